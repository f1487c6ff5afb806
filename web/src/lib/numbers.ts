/** Numbers as they are shown; nothing is computed here but the digits. */

/** Three significant figures, never more than two decimals: 0.68, 77, 1.2, 218. */
export function figure(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size >= 100) return Math.round(value).toLocaleString("en-GB").replace(/,/g, "\u202f");
  if (size >= 10) return trim(value.toFixed(1));
  return trim(value.toFixed(2));
}

/** Grams: whole from 100 g on, tenths below, hundredths below 1 g. */
export function grams(value: number): string {
  if (value >= 100) return figure(value);
  if (value >= 1 || value === 0) return trim(value.toFixed(1));
  return trim(value.toFixed(2));
}

/** Grams as a scale shows them: always one decimal, two below 10 g. */
export function scaleGrams(value: number): string {
  return value < 10 ? value.toFixed(2) : value.toFixed(1);
}

export function trim(text: string): string {
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

export function percent(value: number): string {
  return value.toFixed(1);
}
