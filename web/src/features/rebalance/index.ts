export { RebalanceSheet } from "./RebalanceSheet";
