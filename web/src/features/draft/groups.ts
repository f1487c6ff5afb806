import type { IngredientSummary } from "../../api";
import type { DraftLine } from "./draft";

/** Lines under their headings: the recipe's own where it has any, else by what they are. */
export interface LineGroup {
  label: string;
  lines: DraftLine[];
}

const BY_PHASE: Record<string, string> = {
  dry: "Powders",
  "acid-last": "Powders",
  liquid: "Liquids",
  melt: "Butters and waxes",
  spray: "Liquids",
  scent: "Scent and colour",
  colour: "Scent and colour",
  decoration: "Scent and colour",
};
/** The headings a line can be put under by hand. */
export const HEADINGS = ["Powders", "Butters and waxes", "Liquids", "Scent and colour"];
const ORDER = [...HEADINGS, "Not understood"];

export function groupLines(
  lines: readonly DraftLine[],
  ingredients: ReadonlyMap<string, IngredientSummary>,
): LineGroup[] {
  const groups = new Map<string, DraftLine[]>();
  for (const line of lines) {
    const known = line.ingredient ? ingredients.get(line.ingredient) : undefined;
    const label = line.phase || (known ? (BY_PHASE[known.phase] ?? "Powders") : "Not understood");
    groups.set(label, [...(groups.get(label) ?? []), line]);
  }
  const rank = (label: string) => (ORDER.includes(label) ? ORDER.indexOf(label) : -1);
  return [...groups.entries()]
    .map(([label, members]) => ({ label, lines: members }))
    .sort((a, b) => rank(a.label) - rank(b.label));
}
