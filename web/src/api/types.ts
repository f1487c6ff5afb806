import type { components } from "./schema";

type Schemas = components["schemas"];
/** Answers hold every key; the description calls those with a default optional. */
export type Complete<T> = T extends (infer Item)[]
  ? T extends [unknown, unknown]
    ? T
    : Complete<Item>[]
  : T extends object
    ? { [Key in keyof T]-?: Complete<Exclude<T[Key], undefined>> }
    : T;

export type Evaluation = Complete<Schemas["Evaluation"]>;
export type Dough = Evaluation["dough"];
export type LineMass = Evaluation["lines"][number];
export type FormulaFile = Schemas["FormulaFile"];
export type FormulaLine = Schemas["LineFile"];
export type FormulaPortion = Schemas["PortionFile"];
export type FormulaAnswer = Schemas["FormulaAnswer"];
export type FormulaGlance = Schemas["FormulaGlance"];
export type Certificate = Complete<Schemas["CertificateFile"]>;
export type ProfileSettings = Schemas["ProfileSettings"];
export type IngredientSummary = Schemas["IngredientSummary"];
export type IngredientAnswer = Schemas["IngredientAnswer"];
export type Reference = Schemas["ReferenceAnswer"];
export type Method = Schemas["MethodAnswer"];
export type Reading = Schemas["ReadingAnswer"];
export type RecipeAnswer = Schemas["RecipeAnswer"];
export type RecipeLine = Schemas["RecipeLine"];
export type PriceBreakText = Schemas["PriceBreakText"];
export type RunSheet = Schemas["RunSheet"];
export type Band = Complete<Schemas["BandAsk"]>;
export type Profile = Schemas["Profile"];
export type Lever = Schemas["Lever"];
export type Explanation = Schemas["ExplanationAnswer"];
export type Substitute = Schemas["Substitute"];
export type BalanceResult = Complete<Schemas["BalanceResult"]>;
export type Charts = Complete<Schemas["ChartsTold"]>;
export type Comparison = Complete<Schemas["Comparison"]>;
export type LedgerEntry = Evaluation["skin"]["ledger"][number];
export type Measure = Evaluation["skin"]["measures"][number];
export type BatchPlan = Complete<Schemas["BatchPlan"]>;
export type PlanAsk = Schemas["PlanSave"];
export type WishAsk = Schemas["WishSave"];
export type Batch = Complete<Schemas["BatchAnswer"]>;
export type BenchStep = Complete<Schemas["BenchStep"]>;
export type Happening = Schemas["EventSave"]["event"];
export type BatchComparison = Complete<Schemas["BatchComparison"]>;
export type JournalEntry = Schemas["JournalEntry"];
export type BatchGlance = Schemas["BatchGlance"];
export type RescueOption = Complete<Schemas["RescueOption"]>;
export type DeviceReading = Schemas["DeviceAnswer"];
export type DrawerAct = Schemas["DrawerAct"];
