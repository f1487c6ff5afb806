export { LookPage } from "./LookPage";
