import { describe, expect, it } from "vitest";
import { figure, gramsAsWeighed, massFigure } from "./numbers";
import { searchIngredients } from "./searchIngredients";

describe("figures", () => {
  it("carry three figures and no idle zeros", () => {
    expect([0, 0.684, 1.2, 12.34, 218.4, 1234.5].map(figure)).toEqual([
      "0",
      "0.68",
      "1.2",
      "12.3",
      "218",
      "1\u202f235",
    ]);
  });
  it("show grams as a scale would be read", () => {
    expect([0.254, 4, 12.34, 296].map(massFigure)).toEqual(["0.25", "4", "12.3", "296"]);
    expect([3.777, 87.04].map(gramsAsWeighed)).toEqual(["3.78", "87.0"]);
  });
});

const item = (id: string, short_name: string, synonyms: string[] = []) => ({
  id,
  short_name,
  name: short_name,
  inci: "",
  synonyms,
});
const SHELF = [
  item("a", "Baking powder"),
  item("b", "Baking soda", ["bicarb"]),
  item("c", "Cocoa butter"),
  item("d", "Shea butter"),
  item("e", "Butter colour"),
];

describe("searching", () => {
  it("puts the start of a name first, then the start of a word", () => {
    expect(searchIngredients(SHELF, "butter").map((each) => each.id)).toEqual(["e", "d", "c"]);
  });
  it("knows everyday names", () => {
    expect(searchIngredients(SHELF, "bica")[0]?.id).toBe("b");
  });
  it("offers the shelf before anything is typed and nothing for nonsense", () => {
    expect(searchIngredients(SHELF, "", 3)).toHaveLength(3);
    expect(searchIngredients(SHELF, "zzz")).toEqual([]);
  });
});
