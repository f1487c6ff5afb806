import { describe, expect, it } from "vitest";
import { heightOf, levelOf, profile, RIM_SATURATION, SURFACE, strata } from "./bowl";

describe("the bowl", () => {
  it("is closed at the floor and full width at the rim", () => {
    expect(profile(0)).toBe(0);
    expect(profile(1)).toBe(1);
  });
  it("fills from floor to rim", () => {
    expect(heightOf(0)).toBe(0);
    expect(heightOf(1)).toBeCloseTo(1, 2);
    expect(heightOf(0.3)).toBeLessThan(heightOf(0.6));
  });
  it("holds 60 per cent of its volume under the dry surface", () => {
    // Simpson's rule on the profile, independent of the table inside.
    const volume = (top: number) => {
      const n = 400;
      let sum = 0;
      for (let i = 0; i <= n; i++) {
        const weight = i === 0 || i === n ? 1 : i % 2 ? 4 : 2;
        sum += weight * profile((top * i) / n) ** 2;
      }
      return (sum * top) / (3 * n);
    };
    expect(volume(SURFACE) / volume(1)).toBeCloseTo(0.6, 2);
  });
  it("stands at the surface for saturation 1 and at the rim where it pours", () => {
    expect(levelOf(0)).toBe(0);
    expect(levelOf(1)).toBeCloseTo(SURFACE, 6);
    expect(levelOf(RIM_SATURATION)).toBeCloseTo(1, 6);
    expect(levelOf(60)).toBe(1);
  });
  it("stacks layers without gap, the last one at the surface", () => {
    const layers = strata([
      { key: "a", ml: 100 },
      { key: "b", ml: 50 },
      { key: "c", ml: 0 },
    ]);
    expect(layers[0]?.from).toBe(0);
    expect(layers[1]?.from).toBe(layers[0]?.to);
    expect(layers[2]?.to).toBeCloseTo(SURFACE, 6);
  });
  it("draws nothing out of nothing", () => {
    expect(strata([])).toEqual([]);
  });
});
