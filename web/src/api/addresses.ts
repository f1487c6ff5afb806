import type { paths } from "./schema";
import type { RunSheet } from "./types";

/** Where what the studio gives out as a file is fetched, as its description names it. */
function filled(path: keyof paths, places: Record<string, string | number>): string {
  return path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(places[name] ?? ""));
}

export const batchRecordAddress = (batch_id: number, ending: "json" | "pdf") =>
  filled(`/api/batches/{batch_id}/record.${ending}`, { batch_id });

export const productRecordAddress = (batch_id: number) => filled("/api/records/{batch_id}.pdf", { batch_id });

export const assessorFolderAddress = (batch_id: number) =>
  filled("/api/records/{batch_id}.zip", { batch_id });

export const labelAddress = (label_id: number, ending: "pdf" | "svg") =>
  filled(`/api/labels/{label_id}/label.${ending}`, { label_id });

export const backupAddress = (name: string) => filled("/api/backups/{name}", { name });

/** The run sheet of a plan. */
export function sheetAddress(formula_id: number, sheet: RunSheet): string {
  const query = new URLSearchParams({
    batch_g: String(sheet.batch_g),
    pieces: String(sheet.pieces),
    piece_mass_g: String(sheet.piece_mass_g),
    schools: sheet.schools.map((school) => `${school.id}:${school.taken}`).join(","),
  });
  return `${filled("/api/formulas/{formula_id}/run-sheet.pdf", { formula_id })}?${query}`;
}
