import { Link } from "react-router";
import { messageOf, useFormulas } from "../../api";
import { grams } from "../../lib/numbers";

/** Which formula is to be made? */
export function PlanIndexPage() {
  const { data, error } = useFormulas();
  const rows = (data?.formulas ?? []).filter((row) => row.mass_g > 0);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Plan</h1>
      <p className="text-row text-soft">Which formula goes to the bench?</p>
      {error && <p className="pt-6 text-reading text-rosy">{messageOf(error)}</p>}
      {data && rows.length === 0 && (
        <p className="pt-8 text-reading">
          No formula has a weighed line yet.{" "}
          <Link className="underline underline-offset-4" to="/recipes/new">
            Paste a recipe
          </Link>{" "}
          to begin.
        </p>
      )}
      <ul className="mt-6 max-w-[760px]">
        {rows.map((row) => (
          <li
            key={row.id}
            className="flex items-baseline justify-between border-b-[0.9px] border-ink py-2 hover:bg-lit"
          >
            <Link to={`/plan/${row.id}`} className="text-state hover:underline hover:underline-offset-4">
              {row.name}
            </Link>
            <span className="text-body text-soft">
              {row.method_name}, {grams(row.mass_g)} g as written
              {row.fits === false && <b className="text-rosy">, {row.state}</b>}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
