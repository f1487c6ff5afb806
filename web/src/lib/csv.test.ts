import { expect, test } from "vitest";
import { csv } from "./csv";

test("no cell becomes a formula, numbers stay numbers", () => {
  expect(csv([["=1+1", "-3.5", "@x", "-cmd"]])).toBe("'=1+1,-3.5,'@x,'-cmd\n");
});

test("commas, quotes and returns are quoted", () => {
  expect(csv([["a,b", 'c"d', "e\rf"]])).toBe('"a,b","c""d","e\rf"\n');
});
