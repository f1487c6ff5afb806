import { describe, expect, it } from "vitest";
import { nodes, outBy, place, rulerStep } from "./stripMap";

const POSTS = { width: 172, xa: 53, xb: 136 };

describe("the lane", () => {
  it("puts every wanted band between the same two posts", () => {
    for (const wanted of [
      { low: 0.65, high: 0.95 },
      { low: 60, high: 85 },
      { low: 5.5, high: 8.5 },
    ]) {
      const map = nodes({ min: 0, max: 100, wanted }, POSTS);
      expect(place(wanted.low, map)).toBeCloseTo(POSTS.xa);
      expect(place(wanted.high, map)).toBeCloseTo(POSTS.xb);
    }
  });
  it("ends at the second post where only a least is wanted", () => {
    const map = nodes({ min: 0, max: 100, wanted: { low: 60 } }, POSTS);
    expect(place(60, map)).toBe(POSTS.xa);
    expect(place(100, map)).toBe(POSTS.xb);
  });
  it("starts at the first post where only a most is wanted", () => {
    const map = nodes({ min: 0, max: 60, wanted: { high: 36 } }, POSTS);
    expect(place(0, map)).toBe(POSTS.xa);
    expect(place(36, map)).toBe(POSTS.xb);
  });
  it("is linear without a wish and stops at its ends", () => {
    const map = nodes({ min: 0, max: 10 }, POSTS);
    expect(place(5, map)).toBe(86);
    expect(place(-3, map)).toBe(0);
    expect(place(99, map)).toBe(172);
  });
  it("never runs backwards", () => {
    const map = nodes({ min: 0, max: 2.4, wanted: { low: 0.65, high: 0.95 } }, POSTS);
    let before = -1;
    for (let value = 0; value <= 2.4; value += 0.01) {
      expect(place(value, map)).toBeGreaterThanOrEqual(before);
      before = place(value, map);
    }
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
    expect(rulerStep(0, 10)).toBe(1);
    expect(rulerStep(0, 100)).toBe(10);
    expect(rulerStep(0, 2.4)).toBeCloseTo(0.2);
    expect(rulerStep(0, 60)).toBe(5);
  });
});
