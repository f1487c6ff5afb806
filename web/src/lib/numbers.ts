/** Numbers as they are shown; nothing is computed here but the digits. */
import { massUnit, signed, temperatureUnit, toShown } from "./units";

/** Three significant figures, never more than two decimals: 0.68, 77, 1.2, 218. */
export function figure(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size >= 100) return Math.round(value).toLocaleString("en-GB").replace(/,/g, "\u202f");
  if (size >= 10) return fixed(value, 1, true);
  return fixed(value, 2, true);
}

/** A figure with so many decimals, in the studio's sign. */
export const fixed = (value: number, digits: number, trimmed = false): string =>
  signed(trimmed ? trim(value.toFixed(digits)) : value.toFixed(digits));

/** A mass without its unit: grams whole from 100 on, tenths below, hundredths below 1 g; ounces to a hundredth. */
export function massFigure(mass_g: number): string {
  const value = toShown(mass_g, "g");
  if (massUnit() !== "g") return fixed(value, value < 0.1 ? 3 : 2, true);
  if (value >= 100) return figure(value);
  return fixed(value, value >= 1 || value === 0 ? 1 : 2, true);
}

export const sayMass = (mass_g: number): string => `${massFigure(mass_g)} ${massUnit()}`;

/** Grams as they are written on the run sheet, whatever the studio's unit: one decimal, two below 10 g. */
export const gramsAsWeighed = (mass_g: number): string => fixed(mass_g, mass_g < 10 ? 2 : 1);

/** A mass where every step of a tenth of a gram counts, at the bench and in its record. */
export function benchFigure(mass_g: number): string {
  const value = toShown(mass_g, "g");
  return massUnit() === "g" ? fixed(value, 1) : fixed(value, 3);
}

export const sayBenchMass = (mass_g: number): string => `${benchFigure(mass_g)} ${massUnit()}`;

export const temperatureFigure = (celsius: number, digits?: number): string => {
  const value = toShown(celsius, "°C");
  return digits === undefined ? figure(value) : fixed(value, digits);
};

export const sayTemperature = (celsius: number, digits?: number): string =>
  `${temperatureFigure(celsius, digits)} ${temperatureUnit()}`;

export function trim(text: string): string {
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

export function percent(value: number): string {
  return fixed(value, 1);
}
