const DECIMAL = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/;

/** A decimal as typed, with a point or a comma: null for nothing, NaN for what is no decimal ("1e5", "2/3", "1,5,0"). */
export function readDecimal(typed: string): number | null {
  const text = typed.trim();
  if (text === "") return null;
  return DECIMAL.test(text) ? Number(text.replace(",", ".")) : Number.NaN;
}
