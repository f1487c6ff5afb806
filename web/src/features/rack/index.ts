export { RackPage } from "./RackPage";
