import { useState } from "react";
import type { IngredientSummary } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Button, NumberInput } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { type Draft, type DraftLine, patchLine } from "../draft";

type Change = (change: (draft: Draft) => Draft, field?: string) => void;

const text = (value: number | null) => (value === null ? "" : String(value));
const ENDS = ["min_g", "max_g"] as const;

/** Both ends of a line's limits as they are typed; what is no number, or less than nothing, is not taken. */
export function LimitInputs({ line, name, change }: { line: DraftLine; name: string; change: Change }) {
  const [typed, setTyped] = useState({ min_g: text(line.min_g), max_g: text(line.max_g) });
  const onType = (end: (typeof ENDS)[number], value: string) => {
    setTyped((before) => ({ ...before, [end]: value }));
    const given = readDecimal(value);
    if (given === null || given >= 0)
      change((before) => patchLine(before, line.key, { [end]: given }), `${line.key}.${end}`);
  };
  return ENDS.map((end) => (
    <td key={end} className="w-20 text-right">
      <NumberInput
        aria-label={`${name}, ${end === "min_g" ? "at least" : "at most"} g`}
        className={`w-14 text-right text-ink ${(readDecimal(typed[end]) ?? 0) >= 0 && !crossed(line) ? "" : "text-rosy"}`}
        maxLength={12}
        disabled={line.locked}
        value={typed[end]}
        onChange={(event) => onType(end, event.target.value)}
      />
    </td>
  ));
}

/** Whether a line is to weigh at least more than at most. */
export const crossed = ({ min_g, max_g }: DraftLine): boolean =>
  min_g !== null && max_g !== null && min_g > max_g;

/** The limits a formula carries, where they stand in the way of an answer: to be mended or cleared here. */
export function Limits({
  draft,
  ingredients,
  change,
}: {
  draft: Draft;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  change: Change;
}) {
  const lines = draft.portions
    .flatMap((portion) => portion.lines)
    .filter((line) => line.min_g !== null || line.max_g !== null);
  const [cleared, setCleared] = useState(0);
  if (lines.length === 0) return null;
  return (
    <table className="mt-4 max-w-xl text-body">
      <caption className="text-left text-label italic text-soft">Limits of the lines</caption>
      <HeadRow columns={["", ...["at least, g", "at most, g", ""].map((says) => ({ says, right: true }))]} />
      <tbody>
        {lines.map((line) => {
          const name = ingredients.get(line.ingredient ?? "")?.short_name ?? line.text;
          return (
            <tr
              key={`${line.key} ${cleared}`}
              className={`border-b-[0.9px] border-ink ${crossed(line) ? "font-bold" : ""}`}
            >
              <th scope="row" className="text-left [font-weight:inherit]">
                {name}
                {crossed(line) && <span className="pl-2 text-rosy">at least is above at most</span>}
              </th>
              <LimitInputs line={line} name={name} change={change} />
              <td className="pl-4 text-right">
                <Button
                  onClick={() => {
                    change(
                      (before) => patchLine(before, line.key, { min_g: null, max_g: null }),
                      `${line.key}.limits`,
                    );
                    setCleared(cleared + 1);
                  }}
                >
                  Clear
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
