export { LotPage } from "./LotPage";
export { LotsPage } from "./LotsPage";
