export { VersionsPage } from "./VersionsPage";
