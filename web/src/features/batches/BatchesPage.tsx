import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { type BatchGlance, messageOf, useBatches } from "../../api";
import { sayMass } from "../../lib/numbers";
import { useSettled } from "../../lib/useSettled";
import { LongList, PageHead, SearchField } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";

/** Every batch that was ever begun, newest first; searched over what the journal tells of them. */
export function BatchesPage() {
  const [search, setSearch] = useState("");
  const [parameters] = useSearchParams();
  const formula = parameters.get("formula");
  const batches = useBatches(useSettled(search.trim()), formula ? Number(formula) : undefined);
  const rows = batches.data?.pages.flatMap((page) => page.batches) ?? [];
  const told = batches.data?.pages[0];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead
        title="Bench"
        lead={
          <>
            {told ? summary(told) : "Opening…"}{" "}
            {formula && (
              <Link className="underline underline-offset-4" to="/bench">
                Show those of every formula
              </Link>
            )}
            {!formula && (
              <>
                <Link className="underline underline-offset-4" to="/practice">
                  Practise without wasting a kilo
                </Link>{" "}
                <Link className="underline underline-offset-4" to="/clinic">
                  What went wrong?
                </Link>
              </>
            )}
          </>
        }
      >
        <SearchField
          label="Search batches"
          placeholder="Name, date, remark"
          value={search}
          onSearch={setSearch}
        />
      </PageHead>
      {batches.error && <p className="pt-6 text-reading text-rosy">{messageOf(batches.error)}</p>}
      {told && rows.length === 0 && !search && (
        <p className="pt-8 text-reading">
          {formula ? "No batch of this formula yet." : "No batch yet."}{" "}
          <Link className="underline underline-offset-4" to={formula ? `/plan/${formula}` : "/plan"}>
            Plan one
          </Link>{" "}
          and take it to the bench.
        </p>
      )}
      {told && rows.length === 0 && search && (
        <p className="pt-8 text-reading text-soft">No batch speaks of "{search}".</p>
      )}
      {rows.length > 0 && (
        <table className="mt-6 w-full">
          <HeadRow
            columns={[
              "Batch",
              "Made",
              "Where it stands",
              { says: "Mass", right: true },
              { says: "Pieces", right: true },
            ]}
          />
          <LongList
            as="tbody"
            rows={rows}
            height={59}
            keyOf={(row) => row.id}
            pages={batches}
            render={(row, at, measure) => (
              <tr ref={measure} data-index={at} className="border-b-[0.9px] border-ink hover:bg-lit">
                <td className="py-2">
                  <Link
                    className="text-state hover:underline hover:underline-offset-4"
                    to={row.closed_at ? `/batches/${row.id}` : `/bench/${row.id}`}
                  >
                    {row.name}
                  </Link>
                  <span className="block max-w-[420px] truncate text-caption text-soft">
                    batch {row.id}, version {row.version}
                    {row.remarks && `: ${row.remarks}`}
                  </span>
                </td>
                <td className="text-body">{made(row)}</td>
                <td className={`text-body ${row.closed_at ? "text-soft" : "font-semibold"}`}>
                  {row.closed_at ? "closed" : row.happened === 0 ? "not begun" : "at the bench"}
                </td>
                <td className="text-right text-body">{sayMass(row.batch_g)}</td>
                <td className="text-right text-body">
                  {row.pieces_good === null ? row.pieces : `${row.pieces_good} good of ${row.pieces}`}
                </td>
              </tr>
            )}
          />
        </table>
      )}
    </div>
  );
}

const made = (row: BatchGlance) =>
  new Date(row.created_at).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

function summary(told: { in_all: number; still_open: number }): string {
  return `${told.in_all} ${told.in_all === 1 ? "batch" : "batches"}, ${told.still_open} still open.`;
}
