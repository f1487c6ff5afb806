import { describe, expect, it } from "vitest";
import {
  backupAddress,
  batchRecordAddress,
  labelAddress,
  productRecordAddress,
  sheetAddress,
} from "./addresses";
import type { RunSheet } from "./types";

describe("where a file is fetched", () => {
  it("is what the description names, with its places filled in", () => {
    expect(batchRecordAddress(4, "json")).toBe("/api/batches/4/record.json");
    expect(productRecordAddress(4)).toBe("/api/records/4.pdf");
    expect(labelAddress(2, "svg")).toBe("/api/labels/2/label.svg");
    expect(backupAddress("day 1?.sqlite3")).toBe("/api/backups/day%201%3F.sqlite3");
  });
});

describe("the run sheet of a plan", () => {
  const sheet = (schools: [string, string][]) =>
    ({
      batch_g: 726.4,
      pieces: 10,
      piece_mass_g: 69.4,
      schools: schools.map(([id, taken]) => ({ id, taken })),
    }) as unknown as RunSheet;

  it("is asked for with the batch, the pieces and the ways that were chosen", () => {
    const address = new URL(
      sheetAddress(
        7,
        sheet([
          ["acid", "last"],
          ["split", "early"],
        ]),
      ),
      "http://x",
    );
    expect(address.pathname).toBe("/api/formulas/7/run-sheet.pdf");
    expect(Object.fromEntries(address.searchParams)).toEqual({
      batch_g: "726.4",
      pieces: "10",
      piece_mass_g: "69.4",
      schools: "acid:last,split:early",
    });
  });

  it("is asked for without ways where there is nothing to choose", () => {
    expect(new URL(sheetAddress(7, sheet([])), "http://x").searchParams.get("schools")).toBe("");
  });
});
