import { describe, expect, it } from "vitest";
import type { IngredientSummary } from "../../api";
import { emptyFormula } from "../../testing/emptyFormula";
import {
  addLines,
  addPortion,
  type Draft,
  halvePortion,
  inUnit,
  newLine,
  patchPortion,
  removePortion,
  scaleBy,
  setGrams,
  takeLever,
  toDraft,
} from "./draft";
import { groupLines, HEADINGS } from "./groups";

const line = (amount: string, unit = "g", ingredient = "kaolin") => newLine({ amount, unit, ingredient });
const draft = (...lines: ReturnType<typeof line>[]): Draft =>
  addLines(toDraft(emptyFormula()), 0, lines.length ? lines : [line("100"), line("50")]);
const typed = (of: Draft) =>
  of.portions.map((portion) => portion.lines.map((each) => `${each.amount} ${each.unit}`));

describe("scaling", () => {
  it("makes every weighed line larger, cups and fractions too", () => {
    const before = draft(line("100"), line("1 1/2", "cup"), line("¾", "tsp"), line("0,5", "oz"));
    expect(typed(scaleBy(before, 2))).toEqual([["200 g", "3 cup", "1.5 tsp", "1 oz"]]);
  });
  it("leaves shares and parts as they are, and lets the batch they share grow", () => {
    const before = draft(line("60", "pct"), line("2", "part"));
    const after = scaleBy(before, 3);
    expect(typed(after)).toEqual([["60 pct", "2 part"]]);
    expect(after.batch_g).toBe(3 * before.batch_g);
  });
  it("leaves alone what is no number", () => {
    expect(typed(scaleBy(draft(line("a handful")), 2))).toEqual([["a handful g"]]);
  });
  it("comes back the same when undone by its inverse", () => {
    const before = draft(line("120"), line("33.5"));
    expect(typed(scaleBy(scaleBy(before, 2.5), 0.4))).toEqual(typed(before));
  });
});

describe("one unit for the whole sheet", () => {
  const grams = new Map([
    [0, 300],
    [1, 100],
  ]);
  it("turns grams to per cent that make a hundred", () => {
    const after = inUnit(draft(line("300"), line("100")), "pct", grams, 400);
    expect(typed(after)).toEqual([["75 pct", "25 pct"]]);
    expect(after.batch_g).toBe(400);
  });
  it("gives parts by the heaviest line, ten to it", () => {
    expect(typed(inUnit(draft(line("300"), line("100")), "part", grams, 400))).toEqual([
      ["10 part", "3.3333 part"],
    ]);
  });
  it("uses the avoirdupois ounce of 28.349523125 g", () => {
    // NIST Special Publication 811, appendix B.
    expect(typed(inUnit(draft(line("300"), line("100")), "oz", grams, 400))).toEqual([
      ["10.5822 oz", "3.5274 oz"],
    ]);
  });
  it("keeps what is in that unit already as it was typed", () => {
    const after = inUnit(draft(line("10 1/2", "oz"), line("100")), "oz", grams, 400);
    expect(typed(after)[0]?.[0]).toBe("10 1/2 oz");
  });
  it("leaves a line that is not understood", () => {
    const unknown = newLine({ amount: "5", unit: "g", ingredient: null, text: "moon dust" });
    expect(typed(inUnit(draft(line("300"), unknown), "oz", new Map([[0, 300]]), 300))[0]?.[1]).toBe("5 g");
  });
});

describe("portions", () => {
  it("are halved line by line, with keys of their own", () => {
    const halved = halvePortion(draft(line("101"), line("1 1/2", "cup")), 0);
    expect(typed(halved)).toEqual([
      ["50.5 g", "0.75 cup"],
      ["50.5 g", "0.75 cup"],
    ]);
    const keys = halved.portions.flatMap((portion) => portion.lines.map((each) => each.key));
    expect(new Set(keys).size).toBe(keys.length);
    expect(halved.portions.map((portion) => portion.name)).toEqual(["first half", "second half"]);
  });
  it("are renamed, given a share and taken out, but never the last one", () => {
    const two = addPortion(draft(), "topping");
    const shared = patchPortion(two, 1, { share_pct: 20, split: "wet" });
    expect(shared.portions[1]).toMatchObject({ name: "topping", share_pct: 20, split: "wet" });
    expect(removePortion(shared, 0).portions.map((portion) => portion.name)).toEqual(["topping"]);
    expect(removePortion(draft(), 0).portions).toHaveLength(1);
  });
  it("stay where there is none to halve", () => {
    const before = draft();
    expect(halvePortion(before, 7)).toBe(before);
  });
});

describe("changes that come from the solver", () => {
  it("count lines over all portions", () => {
    const two = addLines(addPortion(draft(), "topping"), 1, [line("7")]);
    expect(typed(setGrams(two, new Map([[2, 9.126]])))).toEqual([["100 g", "50 g"], ["9.13 g"]]);
  });
  it("change the lever's line, or begin it", () => {
    const grown = takeLever(draft(), 0, { ingredient: "kaolin", position: 1, after_g: 61 });
    expect(typed(grown)).toEqual([["100 g", "61 g"]]);
    const begun = takeLever(draft(), 0, { ingredient: "glycerin", position: null, after_g: 4.25 });
    expect(begun.portions[0]?.lines.at(-1)).toMatchObject({ ingredient: "glycerin", amount: "4.25" });
  });
});

describe("headings", () => {
  const shelf = new Map(
    [
      ["soda", "dry"],
      ["acid", "acid-last"],
      ["cocoa", "melt"],
      ["mist", "spray"],
      ["scent", "scent"],
      ["mica", "colour"],
    ].map(([id = "", phase = ""]) => [id, { id, phase } as IngredientSummary]),
  );
  const named = (ids: string[], phase = "") => ids.map((id) => newLine({ ingredient: id, phase }));
  it("stand in the order of the work, whatever was typed first", () => {
    const groups = groupLines(named(["mica", "mist", "cocoa", "soda", "acid"]), shelf);
    expect(groups.map((group) => group.label)).toEqual(HEADINGS.filter((each) => each !== ""));
    expect(groups[0]?.lines.map((each) => each.ingredient)).toEqual(["soda", "acid"]);
  });
  it("are the recipe's own where it has any, before the others", () => {
    const groups = groupLines([...named(["soda"]), ...named(["scent"], "Drizzle")], shelf);
    expect(groups.map((group) => group.label)).toEqual(["Drizzle", "Powders"]);
  });
  it("put what is not understood last", () => {
    const groups = groupLines([newLine({ text: "moon dust" }), ...named(["soda"])], shelf);
    expect(groups.map((group) => group.label)).toEqual(["Powders", "Not understood"]);
  });
  it("hold every line once", () => {
    const lines = named(["mica", "mist", "soda", "soda"]);
    expect(groupLines(lines, shelf).flatMap((group) => group.lines)).toHaveLength(lines.length);
  });
});
