export { BatchesPage } from "./BatchesPage";
export { BatchPage } from "./BatchPage";
