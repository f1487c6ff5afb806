import { Link } from "react-router";
import { useBatchLots } from "../../api";
import { fixed, sayBenchMass } from "../../lib/numbers";

/** The jars a closed batch was taken from, and what that cost by their own prices. */
export function DrawnLots({ batch }: { batch: number }) {
  const lots = useBatchLots(batch);
  const drawn = lots.data?.drawn ?? [];
  if (!lots.data || drawn.length === 0) return null;
  const cost = Object.entries(lots.data.cost)
    .map(([currency, value]) => `${fixed(Number(value), 2)} ${currency}`)
    .join(" and ");
  return (
    <section aria-label="Jars" className="pt-8">
      <h2 className="text-row italic text-soft">
        From these jars
        {cost &&
          `; ${cost} by what they cost${lots.data.every_lot_priced ? "" : ", those without a price left out"}`}
      </h2>
      <ul className="flex flex-wrap gap-x-8 gap-y-1 text-body">
        {drawn.map((each) => (
          <li key={`${each.lot_id}${each.mass_g}`}>
            {each.name} {sayBenchMass(each.mass_g)} from{" "}
            <Link className="underline underline-offset-4" to={`/pantry/lots/${each.lot_id}`}>
              {each.code}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
