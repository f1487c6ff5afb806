import { describe, expect, it } from "vitest";
import { flows, markOf } from "./grains";

describe("how an ingredient is drawn", () => {
  it("takes pastes for liquids, and fats and waxes for solids", () => {
    expect(["liquid", "paste"].every(flows)).toBe(true);
    expect(["powder", "crystal", "granule", "wax", "solid-fat", ""].some(flows)).toBe(false);
  });
  it("draws a surfactant that flows as waves and one that does not as needles", () => {
    const mark = (form: string) => markOf({ id: "x", role: "surfactant", form });
    expect([mark("liquid"), mark("paste"), mark("powder")]).toEqual(["wave", "wave", "needle"]);
  });
});
