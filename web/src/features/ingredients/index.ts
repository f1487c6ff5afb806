export { PantryPage } from "./PantryPage";
