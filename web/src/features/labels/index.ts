export { LabelPage } from "./LabelPage";
