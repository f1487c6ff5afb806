import type { RecipeAnswer, RecipeLine } from "../../api";
import { asksForHand } from "../../lib/notes";

/** What was read, with the maker's own corrections laid over it. */
export interface ReviewLine extends RecipeLine {
  /** The line as pasted: corrections stay with it while the text around it changes. */
  key: string;
  changed: boolean;
}

export type Corrections = ReadonlyMap<string, Partial<RecipeLine>>;

export function reviewLines(
  read: RecipeAnswer,
  corrections: Corrections,
  dropped: ReadonlySet<string>,
): ReviewLine[] {
  const seen = new Map<string, number>();
  return read.lines.flatMap((line) => {
    const count = (seen.get(line.text) ?? 0) + 1;
    seen.set(line.text, count);
    const key = `${line.text}#${count}`;
    if (dropped.has(key)) return [];
    const correction = corrections.get(key);
    return [
      {
        ...line,
        ...correction,
        key,
        changed: correction !== undefined,
      },
    ];
  });
}

/** How sure a line is: understood, guessed, or asking. */
export function sureness(line: ReviewLine): "read" | "guessed" | "asks" {
  if (line.ingredient === null) return "asks";
  if (line.changed) return "read";
  if (line.notes.some((note) => asksForHand(note))) return "asks";
  return line.notes.length ? "guessed" : "read";
}
