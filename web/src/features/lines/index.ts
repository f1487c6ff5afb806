export { Inline } from "./Inline";
export { LineTable } from "./LineTable";
export { PortionTabs } from "./PortionTabs";
export { QuickEntry } from "./QuickEntry";
export { SubstituteSheet } from "./SubstituteSheet";
