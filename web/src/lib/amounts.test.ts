import { describe, expect, it } from "vitest";
import { readAmount } from "./amounts";

describe("an amount as typed", () => {
  it.each([
    ["218", 218],
    [" 0,75 ", 0.75],
    [".5", 0.5],
    ["2/3", 2 / 3],
    ["1 1/2", 1.5],
    ["1½", 1.5],
    ["¾", 0.75],
    ["2 ⅛", 2.125],
    ["1 1⁄4", 1.25],
    ["", 0],
  ])("reads %s", (typed, meant) => {
    expect(readAmount(typed)).toBeCloseTo(meant, 12);
  });
  it.each(["a cup", "1/0", "1/2/3", "1 2", "½½", "1,5,5"])("does not guess at %s", (typed) => {
    expect(readAmount(typed)).toBeNull();
  });
});
