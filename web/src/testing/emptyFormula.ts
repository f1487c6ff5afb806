import type { FormulaFile } from "../api";

/** A formula of one empty portion, for tests of what is done to it; the studio says what is usual. */
export const emptyFormula = (name = "New formula"): FormulaFile =>
  ({
    name,
    method: "",
    batch_g: 1000,
    portions: [{ name: "body", lines: [], share_pct: null, mass_g: null, split: null }],
  }) as unknown as FormulaFile;
