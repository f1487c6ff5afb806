import { useState } from "react";
import { Link } from "react-router";
import { messageOf, useFormulas } from "../../api";
import { sayMass } from "../../lib/numbers";
import { useSettled } from "../../lib/useSettled";
import { LongList } from "../../ui";

/** Which formula is to be made? */
export function PlanIndexPage() {
  const [search, setSearch] = useState("");
  const { data, error, hasNextPage, isFetching, fetchNextPage } = useFormulas(useSettled(search.trim()));
  const rows =
    data?.pages.flatMap((page) => page.formulas).filter((row) => row.mass_g > 0 || !row.judged) ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Plan</h1>
      <div className="flex max-w-[760px] items-end justify-between">
        <p className="text-row text-soft">Which formula goes to the bench?</p>
        <input
          type="search"
          aria-label="Search formulas"
          placeholder="Name, method or ingredient"
          className="written w-60 py-1 text-body placeholder:text-soft"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </div>
      {error && <p className="pt-6 text-reading text-rosy">{messageOf(error)}</p>}
      {data && rows.length === 0 && search && (
        <p className="pt-8 text-reading text-soft">No formula holds "{search}".</p>
      )}
      {data && rows.length === 0 && !search && (
        <p className="pt-8 text-reading">
          No formula has a weighed line yet.{" "}
          <Link className="underline underline-offset-4" to="/recipes/new">
            Paste a recipe
          </Link>{" "}
          to begin.
        </p>
      )}
      <div className="mt-6 max-w-[760px]">
        <LongList
          as="ol"
          rows={rows}
          height={45}
          keyOf={(row) => row.id}
          pages={{ hasNextPage, isFetching, fetchNextPage }}
          render={(row, at, measure) => (
            <li
              ref={measure}
              data-index={at}
              className="flex items-baseline justify-between border-b-[0.9px] border-ink py-2 hover:bg-lit"
            >
              <Link to={`/plan/${row.id}`} className="text-state hover:underline hover:underline-offset-4">
                {row.name}
              </Link>
              <span className="text-body text-soft">
                {row.method_name}, {sayMass(row.mass_g)} as written
                {row.fits === false && <b className="text-rosy">, {row.state}</b>}
              </span>
            </li>
          )}
        />
      </div>
    </div>
  );
}
