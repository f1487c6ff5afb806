import { afterEach, describe, expect, it } from "vitest";
import { sayMass, sayTemperature } from "./numbers";
import { inUnits, readTyped, setUnits, typedOf, USUAL } from "./units";

afterEach(() => setUnits(USUAL));

describe("units of the studio", () => {
  it("leave sentences alone while they are grams, Celsius and points", () => {
    expect(inUnits("Add 4.5 g at 21 °C.")).toBe("Add 4.5 g at 21 °C.");
  });
  it("turn masses and temperatures in a sentence, and no figure that only looks like one", () => {
    setUnits({ ...USUAL, mass_unit: "oz", temperature_unit: "°F" });
    // 1 oz = 28.349523125 g and F = 1.8 C + 32, both by definition.
    expect(inUnits("Shape between 21 and 24 °C.")).toBe("Shape between 70 and 75 °F.");
    expect(inUnits("Take 1\u202f000 g; 0.5 g/mL and 5 g a day stay")).toBe(
      "Take 35.3 oz; 0.5 g/mL and 5 g a day stay",
    );
    expect(inUnits(inUnits("3.5 to 4 g at −5 °C"))).toBe("0.123 to 0.141 oz at 23 °F");
  });
  it("write a decimal comma, but no comma into dates or versions", () => {
    setUnits({ ...USUAL, decimal_sign: "," });
    expect(inUnits("1.25 of 3.50 USD, version 1.2.3, 03.04.2026")).toBe(
      "1,25 of 3,50 USD, version 1.2.3, 03.04.2026",
    );
  });
  it("come back as they were typed, nothing rounded on the way", () => {
    setUnits({ ...USUAL, mass_unit: "oz", temperature_unit: "°F", decimal_sign: "," });
    for (const [text, unit] of [
      ["7,7", "g"],
      ["0,05", "g"],
      ["71", "°C"],
      ["99,5", "°C"],
    ] as const)
      expect(typedOf(readTyped(text, unit), unit)).toBe(text);
    expect(readTyped("32", "°C")).toBe(0);
    expect(sayMass(28.349523125)).toBe("1 oz");
    expect(sayTemperature(100)).toBe("212 °F");
  });
});
