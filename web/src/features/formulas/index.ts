export { DeskPage } from "./DeskPage";
export { emptyFormula, newLine } from "./draft";
export { FormulasPage } from "./FormulasPage";
