export { SeriesListPage } from "./SeriesListPage";
export { SeriesPage } from "./SeriesPage";
export { TestPage } from "./TestPage";
export { TubPage } from "./TubPage";
