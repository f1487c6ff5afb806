import { readDecimal } from "./decimals";

/** Amounts as makers type them: "218", "0,75", "2/3", "1 1/2", "1½". The server reads them the same way. */
const VULGAR: Readonly<Record<string, number>> = {
  "½": 1 / 2,
  "⅓": 1 / 3,
  "⅔": 2 / 3,
  "¼": 1 / 4,
  "¾": 3 / 4,
  "⅕": 1 / 5,
  "⅖": 2 / 5,
  "⅗": 3 / 5,
  "⅘": 4 / 5,
  "⅙": 1 / 6,
  "⅚": 5 / 6,
  "⅛": 1 / 8,
  "⅜": 3 / 8,
  "⅝": 5 / 8,
  "⅞": 7 / 8,
};
const FRACTION = /^(?:(\d+)\s+)?(\d+)\s*[/⁄]\s*(\d+)$/;
const WITH_VULGAR = new RegExp(`^(\\d+)?\\s*([${Object.keys(VULGAR).join("")}])$`);

/** The number meant, null where none is; nothing typed is 0. */
export function readAmount(typed: string): number | null {
  const text = typed.trim();
  if (text === "") return 0;
  const fraction = FRACTION.exec(text);
  if (fraction) {
    const [, whole = "0", top = "0", bottom = "0"] = fraction;
    return Number(bottom) === 0 ? null : Number(whole) + Number(top) / Number(bottom);
  }
  const vulgar = WITH_VULGAR.exec(text);
  if (vulgar) return Number(vulgar[1] ?? 0) + (VULGAR[vulgar[2] ?? ""] ?? 0);
  const number = readDecimal(text);
  return Number.isNaN(number) ? null : number;
}
