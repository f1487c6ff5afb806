import type { FormulaAnswer } from "../../api";
import { type Draft, toDraft, toFile } from "./draft";
import { dropUnsavedWork, unsavedWork } from "./useAutosave";

/** Work the server never acknowledged goes before what it has. */
export function startFrom(answer: FormulaAnswer): { draft: Draft; dirty: boolean } {
  const saved = toDraft(answer.formula);
  const kept = unsavedWork(answer.id);
  if (!kept) return { draft: saved, dirty: false };
  const mine = toDraft(kept.formula);
  if (JSON.stringify(toFile(mine)) === JSON.stringify(toFile(saved))) {
    dropUnsavedWork(answer.id);
    return { draft: saved, dirty: false };
  }
  return { draft: mine, dirty: true };
}
