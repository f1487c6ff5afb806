/**
 * Cells that a spreadsheet would take for a formula, also behind blanks or a line break and written wide; numbers with a sign
 * are none.
 */
const FORMULA = /^(?:[\t\r\n]|[\s\u200b\u200e\u200f]*[=+\-@\uff1d\uff0b\uff0d\uff20])/;
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

function cell(text: string): string {
  const harmless = FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(harmless) ? `"${harmless.replace(/"/g, '""')}"` : harmless;
}

/** A table as CSV: quoted where needed, no cell a formula (OWASP, CSV injection). */
export function csv(rows: readonly (readonly string[])[]): string {
  return `${rows.map((row) => row.map(cell).join(",")).join("\n")}\n`;
}
