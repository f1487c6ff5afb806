export { Clearances } from "./Clearances";
export { FoundPage } from "./FoundPage";
export { Reopened } from "./Reopened";
