import { api, client } from "./client";
import type { components } from "./schema";
import type { FormulaFile } from "./types";

export type Money = components["schemas"]["MoneyAnswer"];
export type SizeCost = Money["sizes"][number];

/** What a piece costs as the formula stands, at sizes of the batch. */
export const tellMoney = (formula: FormulaFile, signal: AbortSignal): Promise<Money> =>
  api(client.POST("/api/money", { body: { formula, sizes_g: [] }, signal }));
