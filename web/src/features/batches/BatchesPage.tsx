import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { type BatchGlance, messageOf, useBatches } from "../../api";
import { grams } from "../../lib/numbers";

/** Every batch that was ever begun, newest first; searched over name, date and remarks. */
export function BatchesPage() {
  const { data, error } = useBatches();
  const [search, setSearch] = useState("");
  const [parameters] = useSearchParams();
  const formula = parameters.get("formula");
  const all = (data?.batches ?? []).filter((row) => !formula || String(row.formula_id) === formula);
  const rows = all.filter((row) => fits(row, search));
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <div className="flex items-end justify-between">
        <div>
          <h1>Bench</h1>
          <p className="text-row text-soft">
            {data ? summary(all) : "Opening…"}{" "}
            {formula && (
              <Link className="underline underline-offset-4" to="/bench">
                Show those of every formula
              </Link>
            )}
          </p>
        </div>
        <input
          type="search"
          aria-label="Search batches"
          placeholder="Name, date, remark"
          className="written w-60 py-1 text-body placeholder:text-soft"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </div>
      {error && <p className="pt-6 text-reading text-rosy">{messageOf(error)}</p>}
      {data && all.length === 0 && (
        <p className="pt-8 text-reading">
          {formula ? "No batch of this formula yet." : "No batch yet."}{" "}
          <Link className="underline underline-offset-4" to={formula ? `/plan/${formula}` : "/plan"}>
            Plan one
          </Link>{" "}
          and take it to the bench.
        </p>
      )}
      {all.length > 0 && rows.length === 0 && (
        <p className="pt-8 text-reading text-soft">No batch speaks of "{search}".</p>
      )}
      {rows.length > 0 && (
        <table className="mt-6 w-full">
          <thead>
            <tr className="text-left text-caption italic text-soft">
              {["Batch", "Made", "Where it stands", "Mass", "Pieces"].map((head, index) => (
                <th key={head} scope="col" className={`font-normal ${index > 2 ? "text-right" : ""}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id} className="border-b-[0.9px] border-ink hover:bg-lit">
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
                <td className="text-right text-body">{grams(row.batch_g)} g</td>
                <td className="text-right text-body">
                  {row.pieces_good === null ? row.pieces : `${row.pieces_good} good of ${row.pieces}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const made = (row: BatchGlance) =>
  new Date(row.created_at).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

function fits(row: BatchGlance, search: string): boolean {
  const text = `${row.name} ${row.method} ${made(row)} ${row.remarks} batch ${row.id}`.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function summary(rows: readonly BatchGlance[]): string {
  const open = rows.filter((row) => !row.closed_at).length;
  return `${rows.length} ${rows.length === 1 ? "batch" : "batches"}, ${open} still open.`;
}
