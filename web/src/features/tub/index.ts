export { TestPage } from "./TestPage";
export { TubPage } from "./TubPage";
