import { useState } from "react";
import { Link } from "react-router";
import { messageOf, useBatchLots, useNameLot } from "../../api";
import { fixed, sayBenchMass } from "../../lib/numbers";
import { useNotice } from "../../ui";

/** The jars a closed batch was taken from, named or assumed, and what that cost by their own prices. */
export function DrawnLots({ batch }: { batch: number }) {
  const lots = useBatchLots(batch);
  const name = useNameLot();
  const say = useNotice();
  const drawn = lots.data?.drawn ?? [];
  if (!lots.data || drawn.length === 0) return null;
  const cost = Object.entries(lots.data.cost)
    .map(([currency, value]) => `${fixed(Number(value), 2)} ${currency}`)
    .join(" and ");
  const fromLot = (lot: number) =>
    drawn.filter((each) => each.lot_id === lot).reduce((sum, each) => sum + each.mass_g, 0);
  const onNamed = async (ingredient: string, code: string, mass_g: number) => {
    await name
      .mutateAsync({ batch, ingredient, code, mass_g })
      .catch((error: unknown) => say(messageOf(error), { asks: true }));
  };
  const jarsOf = (ingredient: string) =>
    lots.data.lines.find((line) => line.ingredient === ingredient)?.lots ?? [];
  return (
    <section aria-label="Jars" className="pt-8">
      <h2 className="text-row italic text-soft">
        From these jars
        {cost &&
          `; ${cost} by what they cost${lots.data.every_lot_priced ? "" : ", those without a price left out"}`}
      </h2>
      <ul className="flex flex-wrap gap-x-8 gap-y-1 text-body">
        {drawn.map((each) => (
          <li key={`${each.lot_id} ${each.assumed}`}>
            {each.name} {sayBenchMass(each.mass_g)} from{" "}
            <Link className="underline underline-offset-4" to={`/pantry/lots/${each.lot_id}`}>
              {each.code}
            </Link>
            {each.assumed !== false && <b className="text-rosy"> (assumed)</b>}{" "}
            <Right
              assumed={each.assumed !== false}
              code={each.code}
              name={each.name}
              others={jarsOf(each.ingredient)
                .map((jar) => jar.code)
                .filter((code) => code !== each.code)}
              onNamed={(code) =>
                onNamed(each.ingredient, code, code === each.code ? fromLot(each.lot_id) : each.mass_g)
              }
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A jar is confirmed with one press, or put right; after closing that is an amendment, and stays to be seen. */
function Right({
  assumed,
  code,
  name,
  others,
  onNamed,
}: {
  assumed: boolean;
  code: string;
  name: string;
  others: readonly string[];
  onNamed: (code: string) => Promise<void>;
}) {
  const [busy, setBusy] = useState(false);
  const named = (jar: string) => {
    setBusy(true);
    void onNamed(jar).finally(() => setBusy(false));
  };
  return (
    <span className="no-print">
      {assumed && (
        <button
          type="button"
          className="min-h-6 border-b border-ink"
          disabled={busy}
          aria-label={`It was this one: ${name} from ${code}`}
          onClick={() => named(code)}
        >
          It was this one
        </button>
      )}{" "}
      {others.length > 0 && (
        <select
          className="written text-caption"
          aria-label={`${name} came from another jar`}
          value=""
          disabled={busy}
          onChange={(event) => event.target.value && named(event.target.value)}
        >
          <option value="">another jar…</option>
          {others.map((jar) => (
            <option key={jar}>{jar}</option>
          ))}
        </select>
      )}
    </span>
  );
}
