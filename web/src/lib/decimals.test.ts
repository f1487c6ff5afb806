import { describe, expect, it } from "vitest";
import { readDecimal } from "./decimals";

describe("decimals as typed", () => {
  it("have a point or a comma", () => {
    expect(["0,75", "0.75", " 12 ", "-3", "+.5", "7."].map(readDecimal)).toEqual([
      0.75, 0.75, 12, -3, 0.5, 7,
    ]);
  });
  it("are nothing where nothing is typed", () => {
    expect([readDecimal(""), readDecimal("  ")]).toEqual([null, null]);
  });
  it("are no number where they cannot be meant", () => {
    for (const text of ["1e5", "0x10", "2/3", "1,5,0", "1.000,5", "Infinity", "ten", "-", ","])
      expect(readDecimal(text), text).toBeNaN();
  });
});
