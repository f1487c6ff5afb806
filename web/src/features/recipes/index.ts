export { RecipePage } from "./RecipePage";
