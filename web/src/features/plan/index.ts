export { PlanIndexPage } from "./PlanIndexPage";
export { PlanPage } from "./PlanPage";
