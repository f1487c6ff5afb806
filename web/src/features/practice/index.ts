export { EyePage } from "./EyePage";
export { PracticePage } from "./PracticePage";
export { RunPage } from "./RunPage";
