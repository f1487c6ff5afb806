export { LearningPage } from "./LearningPage";
