export {
  addPortion,
  addRead,
  type Draft,
  type DraftLine,
  duplicateLine,
  halvePortion,
  history,
  inUnit,
  patchLine,
  patchPortion,
  removeLine,
  removePortion,
  scaleBy,
  setGrams,
  swapLines,
  takeLever,
  toDraft,
  toFile,
} from "./draft";
export { groupLines, HEADINGS, type LineGroup } from "./groups";
export { startFrom } from "./startFrom";
export { dropUnsavedWork, type SaveState, unsavedWork, useAutosave } from "./useAutosave";
export { useDroppedFile } from "./useDroppedFile";
