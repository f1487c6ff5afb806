// @vitest-environment jsdom
import { afterEach, describe, expect, it } from "vitest";
import { AskedOnce, doubtOf } from "./plausible";
import { G_PER_OZ, setUnits, USUAL } from "./units";

afterEach(() => setUnits(USUAL));

describe("a figure beside what is meant", () => {
  it("is doubted beyond twice and under half, not before", () => {
    const doubted = [4.9, 5, 10, 20, 20.1].map((value) => doubtOf(value, 10, "g") !== null);
    expect(doubted).toEqual([true, false, false, false, true]);
  });
  it("is not doubted where nothing is meant", () => {
    expect([doubtOf(5, null, "g"), doubtOf(5, 0, "g"), doubtOf(5, undefined, "g")]).toEqual([
      null,
      null,
      null,
    ]);
  });
  it("asks for grams where somebody typed grams for ounces", () => {
    setUnits({ ...USUAL, mass_unit: "oz" });
    const doubt = doubtOf(12.3 * G_PER_OZ, 0.44 * G_PER_OZ, "g");
    expect(doubt?.question).toBe("12.3 oz? 0.440 was meant; grams?");
    expect(doubt?.instead?.label).toBe("12.3 g");
    expect(doubt?.instead?.value).toBeCloseTo(12.3, 9);
  });
  it("offers grams wherever they are nearer, and not where they are farther off", () => {
    setUnits({ ...USUAL, mass_unit: "oz" });
    expect(doubtOf(72 * G_PER_OZ, 0.5 * G_PER_OZ, "g")?.question).toBe("72 oz? 0.500 was meant; grams?");
    expect(doubtOf(1 * G_PER_OZ, 10 * G_PER_OZ, "g")?.instead).toBeNull();
  });
  it("asks once in a form", () => {
    const once = new AskedOnce();
    expect(once.about(72, 10, "g")).toBe("72 g? 10.0 was meant. Keep it again if it is right.");
    expect(once.about(72, 10, "g")).toBe("");
    expect(once.about(73, 10, "g")).not.toBe("");
  });
});
