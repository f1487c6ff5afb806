import type { BalanceResult, Evaluation, IngredientSummary, Reading } from "../../api";
import { figure, massFigure } from "../../lib/numbers";
import { valueAt, watchedOf } from "../../lib/readings";
import { inUnits } from "../../lib/units";
import { HeadRow } from "../../ui/HeadRow";
import { type Draft, type DraftLine, patchLine } from "../draft";
import { LimitInputs } from "./Limits";

/** Every line before and after, with what binds it; the readings beside it. */
export function BalanceOutcome({
  result,
  draft,
  ingredients,
  registry,
  change,
}: {
  result: BalanceResult;
  draft: Draft;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  registry: ReadonlyMap<string, Reading>;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
}) {
  const lines = draft.portions.flatMap((portion) => portion.lines);
  return (
    <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)] gap-12 max-[900px]:grid-cols-1">
      <table className="w-full self-start text-body">
        <caption className="text-left text-label italic text-soft">Lines, before and after</caption>
        <HeadRow
          columns={[
            "",
            ...["held", "at least, g", "at most, g", "before", "after, g"].map((says) => ({
              says,
              right: true,
            })),
          ]}
        />
        <tbody>
          {result.lines.map((each) => {
            const line = lines[each.position];
            const name = ingredients.get(each.ingredient)?.short_name ?? each.ingredient;
            return line ? <BoundLine key={line.key} {...{ each, line, name, change }} /> : null;
          })}
        </tbody>
      </table>
      <div>
        <table className="w-full text-body">
          <caption className="text-left text-label italic text-soft">Readings, before and after</caption>
          <tbody>
            {watchedOf(registry.values()).map((reading) => (
              <Moved key={reading.id} reading={reading} result={result} />
            ))}
          </tbody>
        </table>
        {result.guards.length > 0 && (
          <div className="mt-3 text-label">
            <p className="italic text-soft">What held it back</p>
            <ul>
              {result.guards.map((guard) => (
                <li key={guard.guard} className={guard.kept ? "" : "text-rosy"}>
                  {inUnits(guard.message)}
                  {guard.kept ? "" : " Not kept."}
                </li>
              ))}
            </ul>
          </div>
        )}
        {result.marginals.length > 0 && (
          <ul className="mt-3 text-label">
            {result.marginals.map((marginal) => (
              <li key={marginal.target}>{inUnits(marginal.message)}</li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

function BoundLine({
  each,
  line,
  name,
  change,
}: {
  each: BalanceResult["lines"][number];
  line: DraftLine;
  name: string;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
}) {
  const moved = massFigure(each.before_g) !== massFigure(each.after_g);
  return (
    <tr className={`h-[26px] border-b-[0.9px] border-ink ${moved ? "font-bold" : "text-soft"}`}>
      <th scope="row" className="text-left [font-weight:inherit]">
        {name}
      </th>
      <td className="w-12 text-right">
        <input
          type="checkbox"
          aria-label={`Hold ${name}`}
          checked={line.locked}
          onChange={(event) =>
            change((before) => patchLine(before, line.key, { locked: event.target.checked }))
          }
        />
      </td>
      <LimitInputs line={line} name={name} change={change} />
      <td className="w-16 text-right">{massFigure(each.before_g)}</td>
      <td className="w-20 text-right">{moved ? `→ ${massFigure(each.after_g)}` : ""}</td>
    </tr>
  );
}

function Moved({ reading, result }: { reading: Reading; result: BalanceResult }) {
  const before = valueAt(result.readings_before as Evaluation, reading.id);
  const after = valueAt(result.readings_after as Evaluation, reading.id);
  if (before === null && after === null) return null;
  const shown = (value: number | null) => (value === null ? "–" : figure(value));
  const same = shown(before) === shown(after);
  return (
    <tr className={`border-b-[0.9px] border-ink ${same ? "text-soft" : "font-bold"}`}>
      <th scope="row" className="text-left [font-weight:inherit]">
        {reading.label}
      </th>
      <td className="w-16 text-right">{shown(before)}</td>
      <td className="w-20 text-right">{same ? "" : `→ ${shown(after)}`}</td>
      <td className="w-14 pl-2 text-caption text-soft">{reading.unit}</td>
    </tr>
  );
}
