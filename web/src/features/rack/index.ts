export { DAMP_PCT } from "./AirDrawing";
export { RackPage } from "./RackPage";
