export { DeskPage, startFrom } from "./DeskPage";
export { addRead, type Draft, emptyFormula, toDraft, toFile } from "./draft";
export { FormulasPage } from "./FormulasPage";
export { useAutosave } from "./useAutosave";
