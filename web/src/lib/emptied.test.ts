import { expect, test } from "vitest";
import { emptied } from "./emptied";

test("a kept figure leaves its field, the next one typed meanwhile stays", () => {
  expect(emptied("0.9")("0.9")).toBe("");
  expect(emptied("0.9")("2.0")).toBe("2.0");
});
