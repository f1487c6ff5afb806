export { DeskPage } from "./DeskPage";
export { type Draft, emptyFormula, newLine, toDraft, toFile } from "./draft";
export { FormulasPage } from "./FormulasPage";
export { useAutosave } from "./useAutosave";
