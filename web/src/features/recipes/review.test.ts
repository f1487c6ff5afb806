import { describe, expect, it } from "vitest";
import type { RecipeAnswer, RecipeLine } from "../../api";
import { type ReviewLine, reviewLines, sureness } from "./review";

const read = (text: string, patch: Partial<RecipeLine> = {}): RecipeLine => ({
  text,
  ingredient: "baking-soda",
  amount: "1",
  unit: "cup",
  phase: "",
  portion: "",
  notes: [],
  suggestions: [],
  unknown_name: null,
  ...patch,
});
const answer = (...lines: RecipeLine[]) => ({ lines }) as unknown as RecipeAnswer;
const only = (line: RecipeLine): ReviewLine => {
  const [first] = reviewLines(answer(line), new Map(), new Set());
  if (!first) throw new Error("nothing was read");
  return first;
};

describe("reviewing what was read", () => {
  it("lays the maker's corrections over it and keeps them while the text around changes", () => {
    const corrections = new Map([["1 cup soda#1", { amount: "2" }]]);
    const [first] = reviewLines(answer(read("1 cup soda")), corrections, new Set());
    expect(first).toMatchObject({ amount: "2", changed: true });
    const [, moved] = reviewLines(answer(read("new first"), read("1 cup soda")), corrections, new Set());
    expect(moved).toMatchObject({ amount: "2", key: "1 cup soda#1" });
  });
  it("tells two equal lines apart", () => {
    const twice = reviewLines(answer(read("a"), read("a")), new Map([["a#2", { unit: "g" }]]), new Set());
    expect(twice.map((line) => [line.key, line.unit])).toEqual([
      ["a#1", "cup"],
      ["a#2", "g"],
    ]);
  });
  it("leaves out what was dropped", () => {
    expect(reviewLines(answer(read("a"), read("b")), new Map(), new Set(["a#1"]))).toHaveLength(1);
  });
});

describe("how sure a line is", () => {
  it("is read, guessed, or asks", () => {
    expect(sureness(only(read("1 cup soda")))).toBe("read");
    expect(sureness(only(read("a", { notes: ["taken as corn starch"] })))).toBe("guessed");
    expect(sureness(only(read("a", { notes: ["10 to 20: the middle?"] })))).toBe("asks");
    expect(sureness(only(read("a", { notes: ["no amount was given"] })))).toBe("asks");
    expect(sureness(only(read("a", { ingredient: null })))).toBe("asks");
  });
  it("is settled by a correction", () => {
    const [line] = reviewLines(
      answer(read("a", { notes: ["which clay?"] })),
      new Map([["a#1", { ingredient: "kaolin" }]]),
      new Set(),
    );
    expect(line && sureness(line)).toBe("read");
  });
});
