export { CurvesPage } from "./CurvesPage";
