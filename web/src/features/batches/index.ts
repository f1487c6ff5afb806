export { BatchesPage } from "./BatchesPage";
export { BatchPage } from "./BatchPage";
export { BesidePage } from "./BesidePage";
