import type { Evaluation, Reading } from "../api";

/** The number behind a dotted path; null where it cannot be said. */
export function valueAt(evaluation: Evaluation, path: string): number | null {
  const further = evaluation.further?.[path];
  if (typeof further === "number") return further;
  let found: unknown = evaluation;
  for (const name of path.split("."))
    found = found && typeof found === "object" ? (found as Record<string, unknown>)[name] : null;
  if (typeof found === "number") return found;
  return typeof found === "string" && found.trim() && Number.isFinite(Number(found)) ? Number(found) : null;
}

/** The readings that are set side by side when something changes, in their order. */
export const watchedOf = (readings: Iterable<Reading>): Reading[] =>
  [...readings]
    .filter((reading) => reading.watched !== null)
    .sort((first, second) => (first.watched ?? 0) - (second.watched ?? 0));
