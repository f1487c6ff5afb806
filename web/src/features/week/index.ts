export { WeekPage } from "./WeekPage";
