import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import {
  calendarAddress,
  messageOf,
  ON_RACK_AT_ONCE,
  type Rack,
  type Tray,
  useRack,
  useTray,
} from "../../api";
import { Button, PageHead, SearchField } from "../../ui";
import { AirDrawing } from "./AirDrawing";
import { AirLine, AnotherPlace } from "./AirLine";
import { SetOutSheet } from "./SetOutSheet";
import { TrayShelf } from "./TrayShelf";

/** Each tray is judged by all that was weighed of it: what is wrapped is many, and looked at a few at a time. */
const [WRAPPED_AT_ONCE, MOST_AT_ONCE] = [12, 200];

/** What is drying, how far along, and what to do about it today. */
export function RackPage() {
  const [wrapped, setWrapped] = useState(false);
  const [many, setMany] = useState(WRAPPED_AT_ONCE);
  const [search, setSearch] = useState("");
  const [setting, setSetting] = useState(false);
  const [parameters] = useSearchParams();
  const linked = useTray(Number(parameters.get("tray")) || null);
  const { data, error } = useRack(wrapped, search, wrapped ? many : ON_RACK_AT_ONCE);
  useShelfKeys();
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead title={wrapped ? "Wrapped" : "On the rack"} lead={data ? summary(data, wrapped) : "Opening…"}>
        <SearchField label="Search the rack" placeholder="Name" value={search} onSearch={setSearch} />
        <Button onClick={() => setWrapped(!wrapped)}>
          {wrapped ? "What is on the rack" : "What is wrapped"}
        </Button>
        <a className="border-b-[0.9px] border-ink text-body" href={calendarAddress()}>
          Calendar
        </a>
        <Button primary onClick={() => setSetting(true)}>
          Set pieces out
        </Button>
      </PageHead>
      {error && <p className="pt-6 text-reading text-rosy">{messageOf(error)}</p>}
      {data && !wrapped && (
        <div className="pt-3">
          {data.places.map((place) => (
            <div key={place.name}>
              <AirLine place={place} />
              <AirDrawing place={place.name} />
            </div>
          ))}
          <AnotherPlace taken={data.places.map((place) => place.name)} />
          <Today items={data.items} tonightAt={data.tonight_at} />
        </div>
      )}
      {linked.error && <p className="pt-6 text-reading text-rosy">{messageOf(linked.error)}</p>}
      {linked.data && data && !data.items.some((tray) => tray.id === linked.data.id) && (
        <TrayShelf tray={linked.data} places={data.places.map((place) => place.name)} />
      )}
      {data?.items.length === 0 && (
        <p className="pt-8 text-reading">
          {search
            ? `Nothing here by "${search}".`
            : "Nothing here yet. A batch that ends at the bench is set out from its record."}
        </p>
      )}
      {data?.items.map((tray) => (
        <TrayShelf key={tray.id} tray={tray} places={data.places.map((place) => place.name)} />
      ))}
      {data?.next && (
        <p className="pt-6 text-body text-soft">
          The newest {data.items.length}; older ones are found by name.{" "}
          {wrapped && many < MOST_AT_ONCE && (
            <Button onClick={() => setMany(Math.min(MOST_AT_ONCE, many + WRAPPED_AT_ONCE))}>
              Show more of them
            </Button>
          )}
        </p>
      )}
      <footer className="no-print flex gap-6 pt-6 text-caption text-soft max-[900px]:hidden">
        <span>
          <Key name="↑" /> <Key name="↓" /> shelf
        </span>
        <span>
          <Key name="Enter" /> weigh
        </span>
        <span>
          <Key name="T" /> the next task is done
        </span>
        <span>
          <Key name="W" /> wrap
        </span>
        <span className="ml-auto italic">Green is still wet, in the piece and on the shelf.</span>
      </footer>
      {setting && data && <SetOutSheet places={data.places} onClose={() => setSetting(false)} />}
    </div>
  );
}

const Key = ({ name }: { name: string }) => (
  <kbd className="border-b border-ink font-sans text-hint text-ink">{name}</kbd>
);

/** What is due by tonight, in its order. */
function Today({ items, tonightAt }: { items: readonly Tray[]; tonightAt: string }) {
  const tonight = new Date(tonightAt);
  const due = items
    .flatMap((tray) => tray.reading.tasks.map((task) => ({ tray, task })))
    .filter(({ task }) => !task.done_at && new Date(task.due_at) < tonight)
    .sort((a, b) => a.task.due_at.localeCompare(b.task.due_at));
  if (due.length === 0) return null;
  return (
    <p className="pt-2 text-row">
      <span className="italic text-soft">Today: </span>
      {due.map(({ tray, task }, index) => (
        <span key={`${tray.id}${task.kind}`} className={task.late ? "font-semibold text-rosy" : ""}>
          {index > 0 && "; "}
          {task.title.toLowerCase()}, {tray.name}{" "}
          {task.late
            ? "(late)"
            : `(${new Date(task.due_at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })})`}
        </span>
      ))}
      .
    </p>
  );
}

function summary(rack: Rack, wrapped: boolean): string {
  const count = rack.items.length;
  if (wrapped)
    return count === 0
      ? "Nothing is wrapped yet."
      : `${count} ${count === 1 ? "tray" : "trays"}, the newest first.`;
  const ready = rack.items.filter((tray) => tray.reading.ready).length;
  const damp = rack.items.filter((tray) => tray.reading.fit?.gaining).length;
  const still = rack.items.filter((tray) => tray.reading.fit?.state === "not-losing").length;
  const parts = [count === 1 ? "One tray is drying." : `${count === 0 ? "No" : count} trays are drying.`];
  if (ready) parts.push(ready === 1 ? "One is ready to wrap." : `${ready} are ready to wrap.`);
  if (damp) parts.push(damp === 1 ? "One gains weight." : `${damp} gain weight.`);
  if (still) parts.push(still === 1 ? "One loses nothing." : `${still} lose nothing.`);
  return parts.join(" ");
}

/** The arrows walk from shelf to shelf, from wherever on the page. */
function useShelfKeys(): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const here = event.target;
      const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (step === 0 || (here instanceof HTMLElement && /^(INPUT|SELECT|TEXTAREA)$/.test(here.tagName)))
        return;
      if (document.querySelector('[role="dialog"]')) return;
      const shelves = [...document.querySelectorAll<HTMLElement>("[data-tray]")];
      const next = shelves[shelves.findIndex((shelf) => shelf.contains(here as Node)) + step];
      if (!next) return;
      event.preventDefault();
      next.focus();
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
}
