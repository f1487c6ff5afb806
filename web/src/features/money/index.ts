export { MoneyPage } from "./MoneyPage";
