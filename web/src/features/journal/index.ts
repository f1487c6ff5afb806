export { JournalPage } from "./JournalPage";
