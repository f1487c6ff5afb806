export { ClinicPage } from "./ClinicPage";
export { TroublePage } from "./TroublePage";
