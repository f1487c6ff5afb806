import { describe, expect, it } from "vitest";
import { emptyFormula } from "../../testing/emptyFormula";
import {
  addLines,
  addPortion,
  addRead,
  type Draft,
  duplicateLine,
  type History,
  history,
  newLine,
  patchLine,
  removeLine,
  swapLines,
  toDraft,
  toFile,
} from "./draft";

const draft = (): Draft =>
  addLines(toDraft(emptyFormula()), 0, [newLine({ amount: "1" }), newLine({ amount: "2" })]);
const amounts = (of: Draft) => of.portions[0]?.lines.map((line) => line.amount);
const keyAt = (of: Draft, index: number) => of.portions[0]?.lines[index]?.key ?? "";
const start = (present: Draft): History => ({ past: [], present, future: [], field: "", at: 0 });

describe("lines", () => {
  it("are changed, doubled, swapped and taken out", () => {
    const before = draft();
    expect(amounts(patchLine(before, keyAt(before, 0), { amount: "5" }))).toEqual(["5", "2"]);
    expect(amounts(duplicateLine(before, keyAt(before, 0)))).toEqual(["1", "1", "2"]);
    expect(amounts(swapLines(before, keyAt(before, 0), keyAt(before, 1)))).toEqual(["2", "1"]);
    expect(amounts(removeLine(before, keyAt(before, 0)))).toEqual(["2"]);
  });
  it("keep their own keys when doubled", () => {
    const doubled = duplicateLine(draft(), "");
    const before = draft();
    const keys = duplicateLine(before, keyAt(before, 0)).portions[0]?.lines.map((line) => line.key);
    expect(new Set(keys).size).toBe(3);
    expect(amounts(doubled)).toEqual(["1", "2"]);
  });
  it("leave the file without keys, and a file comes back the same", () => {
    const file = toFile(draft());
    expect(JSON.stringify(file)).not.toContain('"key"');
    expect(toFile(toDraft(file))).toEqual(file);
  });
});

describe("undo", () => {
  const type = (state: History, amount: string, at: number) =>
    history(state, {
      type: "change",
      change: (before) => patchLine(before, keyAt(before, 0), { amount }),
      field: "first.amount",
      at,
    });

  it("takes typing in one field back in one step", () => {
    let state = start(draft());
    state = type(state, "12", 100);
    state = type(state, "123", 200);
    expect(state.past).toHaveLength(1);
    expect(amounts(history(state, { type: "undo" }).present)).toEqual(["1", "2"]);
  });
  it("counts a later change as its own step", () => {
    let state = type(start(draft()), "12", 100);
    state = type(state, "123", 5000);
    expect(amounts(history(state, { type: "undo" }).present)).toEqual(["12", "2"]);
  });
  it("redoes what was undone until something else is done", () => {
    const done = type(start(draft()), "12", 100);
    const undone = history(done, { type: "undo" });
    expect(amounts(history(undone, { type: "redo" }).present)).toEqual(["12", "2"]);
    expect(history(type(undone, "7", 9000), { type: "redo" }).future).toEqual([]);
  });
  it("has nothing to do at the ends", () => {
    const state = start(draft());
    expect(history(state, { type: "undo" })).toBe(state);
    expect(history(state, { type: "redo" })).toBe(state);
  });
});

describe("lines as read", () => {
  const read = (portion: string, amount: string) => ({
    ...{ portion, amount, ingredient: "kaolin", unit: "g", text: "", phase: "", notes: [], suggestions: [] },
    unknown_name: null,
  });
  it("go to the portion their table names, and to the one in hand without", () => {
    const two = addPortion(toDraft(emptyFormula()), "topping");
    const after = addRead(two, 1, [
      read("Body", "1"),
      read("", "2"),
      read("stripe", "3"),
      read("stripe", "4"),
    ]);
    const amounts = after.portions.map(({ name, lines }) => [name, ...lines.map((line) => line.amount)]);
    expect(amounts).toEqual([
      ["body", "1"],
      ["topping", "2"],
      ["stripe", "3", "4"],
    ]);
  });
});
