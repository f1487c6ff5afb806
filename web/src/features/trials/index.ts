export { DesignPage } from "./DesignPage";
export { DesignsPage } from "./DesignsPage";
