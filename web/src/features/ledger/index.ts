export { LedgerPage } from "./LedgerPage";
