import { describe, expect, it } from "vitest";
import { outBy, roundMarks, stripScale } from "./stripMap";

const POSTS = { width: 172, xa: 53, xb: 136 };

describe("the lane", () => {
  it("puts every wanted band between the same two posts", () => {
    for (const wanted of [
      { low: 0.65, high: 0.95 },
      { low: 60, high: 85 },
      { low: 5.5, high: 8.5 },
    ]) {
      const at = stripScale({ min: 0, max: 100, wanted }, POSTS);
      expect(at(wanted.low)).toBeCloseTo(POSTS.xa);
      expect(at(wanted.high)).toBeCloseTo(POSTS.xb);
    }
  });
  it("ends at the second post where only a least is wanted", () => {
    const at = stripScale({ min: 0, max: 100, wanted: { low: 60 } }, POSTS);
    expect(at(60)).toBe(POSTS.xa);
    expect(at(100)).toBe(POSTS.xb);
  });
  it("starts at the first post where only a most is wanted", () => {
    const at = stripScale({ min: 0, max: 60, wanted: { high: 36 } }, POSTS);
    expect(at(0)).toBe(POSTS.xa);
    expect(at(36)).toBe(POSTS.xb);
  });
  it("is linear without a wish and stops at its ends", () => {
    const at = stripScale({ min: 0, max: 10 }, POSTS);
    expect(at(5)).toBe(86);
    expect(at(-3)).toBe(0);
    expect(at(99)).toBe(172);
  });
  it("never runs backwards", () => {
    const at = stripScale({ min: 0, max: 2.4, wanted: { low: 0.65, high: 0.95 } }, POSTS);
    let before = -1;
    for (let value = 0; value <= 2.4; value += 0.01) {
      expect(at(value)).toBeGreaterThanOrEqual(before);
      before = at(value);
    }
  });
});

describe("a band at the edge of its scale", () => {
  it("still lies between the posts", () => {
    const at = stripScale({ min: 0, max: 10, wanted: { low: 0, high: 4 } }, POSTS);
    expect(at(0)).toBe(POSTS.xa);
    expect(at(4)).toBe(POSTS.xb);
  });
});

describe("how far outside", () => {
  it("is signed, and nothing at the edges", () => {
    expect(outBy(55, { low: 60 })).toBe(-5);
    expect(outBy(60, { low: 60, high: 80 })).toBe(0);
    expect(outBy(9, { high: 8.5 })).toBe(0.5);
    expect(outBy(9, undefined)).toBe(0);
  });
});

describe("the ruler", () => {
  it("steps in ones, twos and fives", () => {
    for (const [max, about] of [
      [10, 12],
      [100, 6],
      [2.4, 24],
      [60, 6],
      [0.37, 7],
    ] as const) {
      const marks = roundMarks(0, max, about);
      const step = (marks[1] ?? 0) - (marks[0] ?? 0);
      expect(step / 10 ** Math.floor(Math.log10(step) + 1e-9)).toBeOneOf(
        [1, 2, 5].map((each) => expect.closeTo(each)),
      );
    }
  });
});
