export { DeskPage, startFrom } from "./DeskPage";
export { type Draft, emptyFormula, newLine, toFile } from "./draft";
export { FormulasPage } from "./FormulasPage";
export { useAutosave } from "./useAutosave";
