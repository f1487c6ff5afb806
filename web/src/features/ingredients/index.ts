export { CertificateFields } from "./CertificateFields";
export { PantryPage } from "./PantryPage";
