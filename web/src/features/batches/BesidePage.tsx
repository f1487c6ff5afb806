import { Link, useParams, useSearchParams } from "react-router";
import { messageOf, useBatch, useBatchComparison, useBatches } from "../../api";
import { inUnits } from "../../lib/units";
import { BesideDrawing } from "./BesideDrawing";
import { BesideTables } from "./BesideTables";

/** Two batches side by side: what differed, and which difference explains the most. */
export function BesidePage() {
  const id = Number(useParams().batchId);
  const [parameters, setParameters] = useSearchParams();
  const other = Number(parameters.get("other")) || null;
  const batch = useBatch(id);
  const comparison = useBatchComparison(id, other);
  if (batch.error && !batch.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(batch.error)}</p>;
  if (!batch.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>
        {batch.data.name}, batch {id}
        {other && `, beside batch ${other}`}
      </h1>
      <p className="text-row text-soft">
        <Link className="underline underline-offset-4" to={`/batches/${id}`}>
          Its record
        </Link>{" "}
        {other && (
          <>
            <Link className="underline underline-offset-4" to={`/batches/${other}`}>
              The other record
            </Link>{" "}
            <button
              type="button"
              className="underline underline-offset-4"
              onClick={() => setParameters({}, { replace: true })}
            >
              Beside another
            </button>
          </>
        )}
      </p>
      {!other && (
        <Choose
          formulaId={batch.data.formula_id}
          id={id}
          onChoose={(chosen) => setParameters({ other: String(chosen) })}
        />
      )}
      {comparison.error && <p className="pt-6 text-reading text-rosy">{messageOf(comparison.error)}</p>}
      {other && comparison.data && (
        <>
          <p className="max-w-[900px] pt-5 text-reading">{inUnits(comparison.data.sentence)}</p>
          <BesideDrawing comparison={comparison.data} numbers={[id, other]} />
          <BesideTables comparison={comparison.data} numbers={[id, other]} />
        </>
      )}
    </div>
  );
}

/** The other batches, of the same formula first. */
function Choose({
  formulaId,
  id,
  onChoose,
}: {
  formulaId: number;
  id: number;
  onChoose: (id: number) => void;
}) {
  const same = useBatches("", formulaId);
  const all = useBatches("");
  const ofSame = (same.data?.pages[0]?.batches ?? []).filter((row) => row.id !== id);
  const others = (all.data?.pages[0]?.batches ?? []).filter((row) => row.formula_id !== formulaId);
  if (same.data && all.data && ofSame.length + others.length === 0)
    return <p className="pt-8 text-reading">There is no other batch yet to set beside it.</p>;
  return (
    <div className="grid grid-cols-2 gap-14 pt-8 max-[1000px]:grid-cols-1">
      {(
        [
          ["Of the same formula", ofSame],
          ["Of others", others],
        ] as const
      ).map(([head, rows]) => (
        <section key={head} aria-label={head}>
          <h2 className="text-row italic text-soft">{head}</h2>
          {rows.length === 0 && <p className="text-body text-soft">None.</p>}
          <ul>
            {rows.map((row) => (
              <li key={row.id} className="border-b-[0.9px] border-ink">
                <button
                  type="button"
                  className="flex min-h-12 w-full items-baseline justify-between py-2 text-left text-row hover:bg-lit"
                  onClick={() => onChoose(row.id)}
                >
                  <span>
                    {row.name}, batch {row.id}
                  </span>
                  <span className="text-caption text-soft">
                    {new Date(row.created_at).toLocaleDateString("en-GB", {
                      day: "numeric",
                      month: "short",
                      year: "numeric",
                    })}
                    {row.pieces_good !== null && `, ${row.pieces_good} good of ${row.pieces}`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
