export { DeskPage, startFrom } from "./DeskPage";
export { addRead, type Draft, toDraft, toFile } from "./draft";
export { FormulasPage } from "./FormulasPage";
export { useAutosave } from "./useAutosave";
