import type { components } from "./schema";

type Schemas = components["schemas"];
export type Evaluation = Schemas["Evaluation"];
export type Dough = Schemas["Dough"];
export type LineMass = Schemas["LineMass"];
export type FormulaFile = Schemas["FormulaFile"];
export type FormulaLine = Schemas["LineFile"];
export type FormulaPortion = Schemas["PortionFile"];
export type FormulaAnswer = Schemas["FormulaAnswer"];
export type FormulaGlance = Schemas["FormulaGlance"];
export type IngredientSummary = Schemas["IngredientSummary"];
export type IngredientAnswer = Schemas["IngredientAnswer"];
export type Reference = Schemas["ReferenceAnswer"];
export type Method = Schemas["MethodAnswer"];
export type Reading = Schemas["ReadingAnswer"];
export type RecipeAnswer = Schemas["RecipeAnswer"];
export type RecipeLine = Schemas["RecipeLine"];
export type RunSheet = Schemas["RunSheet"];
