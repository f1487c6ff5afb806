import { Link } from "react-router";
import { messageOf, useSettings } from "../../api";
import { Tools } from "./Tools";
import { Trays } from "./Trays";
import { Tubs } from "./Tubs";
import { useChange } from "./useWorkshop";
import { Weighing } from "./Weighing";
import { Year } from "./Year";

/** What stands in the workshop, and its air through the year: every page reckons with it. */
export function WorkshopPage() {
  const settings = useSettings();
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Workshop</h1>
      <p className="text-row text-soft">
        What stands in it, and its air through the year. A figure counts as soon as its line is left.{" "}
        <Link className="underline underline-offset-4" to="/settings">
          Settings
        </Link>
      </p>
      {settings.error && <p className="pt-6 text-reading text-rosy">{messageOf(settings.error)}</p>}
      {settings.data && <Workshop said={settings.data} />}
    </div>
  );
}

function Workshop({ said }: { said: NonNullable<ReturnType<typeof useSettings>["data"]> }) {
  const change = useChange(said);
  return (
    <div className="flex flex-col gap-9 pt-6">
      <Year rooms={said.rooms ?? []} change={change} />
      <div className="grid grid-cols-2 gap-x-14 gap-y-9 max-[1000px]:grid-cols-1">
        <Tools own={said.tools ?? []} change={change} />
        <div className="flex flex-col gap-9">
          <Trays />
          <Tubs tubs={said.tubs ?? []} change={change} />
          <Weighing said={said} change={change} />
        </div>
      </div>
    </div>
  );
}
