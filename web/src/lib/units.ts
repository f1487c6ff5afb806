import { readDecimal } from "./decimals";

/**
 * Units as the maker has set them. Inside everything stays in grams, degrees Celsius and millilitres, unrounded; only what is
 * shown and what is typed goes through here.
 */
export interface Units {
  mass_unit: "g" | "oz";
  temperature_unit: "°C" | "°F";
  volume_unit: "mL" | "fl oz";
  decimal_sign: "." | ",";
  currency: string;
}

export const USUAL: Units = {
  mass_unit: "g",
  temperature_unit: "°C",
  volume_unit: "mL",
  decimal_sign: ".",
  currency: "USD",
};
/** International avoirdupois ounce and US fluid ounce, both exact. */
export const G_PER_OZ = 28.349523125;
const ML_PER_FL_OZ = 29.5735295625;
const KEPT = "rosy-kettle-units";

let units: Units = remembered();

function remembered(): Units {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Units>) };
  } catch {
    return USUAL;
  }
}

export const unitsNow = (): Units => units;

/** From now on everything is shown so; the browser remembers it, so that the next page begins with it. */
export function setUnits(next: Units): void {
  units = next;
  try {
    localStorage.setItem(KEPT, JSON.stringify(next));
  } catch {
    // A browser that keeps nothing asks the studio again at the next start.
  }
}

export const massUnit = (): string => units.mass_unit;
export const temperatureUnit = (): string => units.temperature_unit;
export const volumeUnit = (): string => units.volume_unit;

const inOunces = () => units.mass_unit === "oz";
const inFahrenheit = () => units.temperature_unit === "°F";

/** What the number of a quantity is in the studio's unit; units the maker cannot choose stay as they are. */
export function toShown(value: number, unit: string): number {
  if (unit === "g" && inOunces()) return value / G_PER_OZ;
  if (unit === "°C" && inFahrenheit()) return value * 1.8 + 32;
  if (unit === "mL" && units.volume_unit === "fl oz") return value / ML_PER_FL_OZ;
  return value;
}

/** The other way: what was typed in the studio's unit. */
export function fromShown(value: number, unit: string): number {
  if (unit === "g" && inOunces()) return value * G_PER_OZ;
  if (unit === "°C" && inFahrenheit()) return (value - 32) / 1.8;
  if (unit === "mL" && units.volume_unit === "fl oz") return value * ML_PER_FL_OZ;
  return value;
}

/** What the studio calls the unit. */
export function unitShown(unit: string): string {
  if (unit === "g") return units.mass_unit;
  if (unit === "°C") return units.temperature_unit;
  if (unit === "mL") return units.volume_unit;
  // Costs are in the studio's currency; their readings are declared in that of the reference bands.
  if (unit === "USD" || unit === "USD/g") return unit.replace("USD", units.currency);
  return unit;
}

/** A quantity as text for a line to type on; twelve figures hide only what the change of units left behind. */
export function typedOf(value: number | null | undefined, unit: string): string {
  if (value === null || value === undefined) return "";
  return signed(String(Number(toShown(value, unit).toPrecision(12))));
}

/** The studio's decimal sign in a figure that is written with a point. */
export const signed = (text: string): string => (units.decimal_sign === "," ? text.replace(".", ",") : text);

const NUMBER = String.raw`[−-]?\d+(?:[.\u202f]\d+)*`;
const MEASURED = new RegExp(
  String.raw`(?<![\w.,/])(${NUMBER})(?:( to |–| and | or )(${NUMBER}))? (°C|g|mL)(?![\w/·]| a )`,
  "g",
);
const DECIMAL_POINT = /(?<![\w.])(\d+)\.(\d+)(?![\w]|\.\d)/g;

/** A sentence of the studio with its masses, temperatures and decimal signs as the maker reads them. */
export function inUnits(sentence: string): string {
  const changed =
    inOunces() || inFahrenheit() || units.volume_unit === "fl oz"
      ? sentence.replace(MEASURED, (whole, low: string, word?: string, high?: string, unit?: string) => {
          if (!unit || unitShown(unit) === unit) return whole;
          const first = sayAgain(low, unit);
          return `${high === undefined ? first : `${first}${word}${sayAgain(high, unit)}`} ${unitShown(unit)}`;
        })
      : sentence;
  return units.decimal_sign === "," ? changed.replace(DECIMAL_POINT, "$1,$2") : changed;
}

function sayAgain(text: string, unit: string): string {
  const value = toShown(Number(text.replace("−", "-").replaceAll("\u202f", "")), unit);
  if (unit === "°C") return value.toFixed(text.includes(".") ? 1 : 0);
  return String(Number(value.toPrecision(3)));
}

/** A quantity as typed in the studio's unit: null for nothing, NaN for what is no decimal. */
export function readTyped(typed: string, unit: string): number | null {
  const value = readDecimal(typed);
  return value === null ? null : fromShown(value, unit);
}
