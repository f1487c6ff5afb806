export { FormulasPage } from "./FormulasPage";
