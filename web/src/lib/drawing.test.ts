import { describe, expect, it } from "vitest";
import { grainPath, markOf, scatter } from "./grains";
import { fall, hairGrams } from "./hairs";
import { seeded } from "./seed";

describe("hairs", () => {
  it("are ten grams each at the Desk, one gram for a pinch, more for a large batch", () => {
    expect(hairGrams(587)).toBe(10);
    expect(hairGrams(40)).toBe(1);
    expect(hairGrams(0)).toBe(10);
    expect(hairGrams(20_000)).toBe(200);
    for (const batch of [100, 1000, 5000, 50_000, 900_000])
      expect(batch / hairGrams(batch)).toBeLessThanOrEqual(110);
  });
  it("fall level from their row and join without a kink", () => {
    const from = { x: 0, y: 0 };
    const to = { x: 100, y: 400 };
    expect(fall(from, to, 0, 0.5)).toBe("M0 0Q25 0 50 100");
    expect(fall(from, to, 0.5, 1)).toBe("M50 100Q75 200 100 400");
  });
});

describe("grains", () => {
  it("lie where they lay before", () => {
    expect(scatter("a", 200, 100, 8)).toEqual(scatter("a", 200, 100, 8));
    expect(scatter("a", 200, 100, 8)).not.toEqual(scatter("b", 200, 100, 8));
  });
  it("keep their distance and fill the box", () => {
    const points = scatter("a", 200, 100, 8);
    for (const [index, a] of points.entries())
      for (const b of points.slice(index + 1))
        expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(8);
    expect(points.length).toBeGreaterThan(200);
  });
  it("have a mark by what they are", () => {
    expect(markOf({ id: "baking-soda", role: "base", form: "powder" })).toBe("prism");
    expect(markOf({ id: "slsa-fine", role: "surfactant", form: "powder" })).toBe("needle");
    expect(markOf({ id: "capb-liquid", role: "surfactant", form: "liquid" })).toBe("wave");
    expect(markOf({ id: "cream-of-tartar", role: "acid", form: "powder" })).toBe("shard");
    expect(markOf(undefined)).toBe("dot");
  });
  it("are drawn with finite numbers", () => {
    for (const mark of [
      "prism",
      "needle",
      "ring",
      "shard",
      "plate",
      "crystal",
      "cube",
      "dot",
      "diamond",
      "star",
    ] as const)
      expect(grainPath(mark, { x: 10, y: 10 }, 0.3)).not.toMatch(/NaN|undefined/);
  });
});

describe("the seeded generator", () => {
  it("stays between 0 and 1 and is even enough", () => {
    const random = seeded("even");
    const values = Array.from({ length: 5000 }, () => random());
    expect(Math.min(...values)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...values)).toBeLessThan(1);
    expect(values.reduce((sum, value) => sum + value, 0) / 5000).toBeCloseTo(0.5, 1);
  });
});
