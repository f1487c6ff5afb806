import { useMemo } from "react";
import type { Evaluation, IngredientSummary } from "../../api";
import { markOf } from "../../lib/grains";
import type { BowlLayer } from "../../ui";
import { type Draft, groupLines } from "../draft";
import type { DrawnRow } from "./DeskDrawing";

const WET_MARKS = new Set(["wave", "lens", "level", "brick", "double", "mist"]);

/** What of the portion in hand is drawn: a hair for each line, and a layer of the bowl for each dry one. */
export function useDrawn(
  draft: Draft,
  inHand: number,
  evaluation: Evaluation | null,
  ingredients: ReadonlyMap<string, IngredientSummary>,
) {
  // What is typed into an amount changes nothing here until its readings have come.
  const structure = draft.portions
    .map((portion) => portion.lines.map((line) => `${line.key}:${line.ingredient}`).join())
    .join(";");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the structure stands for the draft
  return useMemo(() => {
    const offset = draft.portions.slice(0, inHand).reduce((sum, portion) => sum + portion.lines.length, 0);
    const lines = draft.portions[inHand]?.lines ?? [];
    const masses = new Map(evaluation?.lines.map((line) => [line.index - offset, line]));
    const indexOf = new Map(lines.map((line, index) => [line.key, index]));
    const rows: DrawnRow[] = [];
    const layers: BowlLayer[] = [];
    for (const line of groupLines(lines, ingredients).flatMap((group) => group.lines)) {
      const mass = masses.get(indexOf.get(line.key) ?? -1);
      const ingredient = line.ingredient ? ingredients.get(line.ingredient) : undefined;
      if (!mass || !ingredient) continue;
      const mark = markOf(ingredient);
      const wet = WET_MARKS.has(mark) || mark === "drop";
      rows.push({
        key: line.key,
        mass_g: mass.mass_g,
        wet,
        pinch: ["fragrance", "colorant", "decoration"].includes(ingredient.role),
      });
      if (!wet && mass.heaped_ml)
        layers.push({ key: line.key, name: ingredient.short_name, ml: mass.heaped_ml, mark });
    }
    return { rows, layers };
  }, [structure, inHand, evaluation, ingredients]);
}
