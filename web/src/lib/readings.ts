import type { Evaluation } from "../api";

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
