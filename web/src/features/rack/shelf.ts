import { scaleLinear } from "d3-scale";
import type { Tray } from "../../api";
import { fixed } from "../../lib/numbers";

/** Measures of the shelf's drawing. */
export const SHELF = { width: 1188, height: 176, ground: 128, zero: 194, piece: 58, most: 6 };

/** From hours since the tray was set out to its place on the shelf: the shelf is the strip of hours. */
export function hourScale(tray: Tray) {
  const { age_h, high_h, likely_h } = tray.reading;
  const last = Math.max(48, (high_h ?? likely_h ?? 24) * 1.3, age_h * 1.25);
  return scaleLinear([0, last], [SHELF.zero, SHELF.width]);
}

export const hours = (value: number): string =>
  value < 48 ? `${Math.round(value)} h` : `${fixed(value / 24, 1)} days`;

/** What stands large at the end of the shelf: how long to go, or that it is dry. */
export function verdict(tray: Tray): { figure: string; word: string; asks: boolean } {
  const { reading } = tray;
  if (tray.wrapped_at) return { figure: "wrapped", word: hours(reading.age_h), asks: false };
  if (reading.ready) return { figure: "dry", word: "wrap it", asks: true };
  if (reading.fit?.gaining) return { figure: "damp", word: "it gains weight", asks: true };
  if (reading.fit?.state === "not-losing") return { figure: "still", word: "it loses nothing", asks: true };
  if (reading.fit?.again_h != null)
    return {
      figure: hours(Math.max(0, reading.fit.again_h - reading.age_h)),
      word: "then weigh again",
      asks: true,
    };
  if (reading.likely_h === null) return { figure: "–", word: "not known", asks: true };
  const left = reading.likely_h - reading.age_h;
  if (left <= 0) return { figure: "now", word: "weigh it", asks: true };
  return left < 48
    ? { figure: String(Math.round(left)), word: "h to go", asks: false }
    : { figure: fixed(left / 24, 1), word: "days to go", asks: false };
}

/** One sentence made of the numbers the drawing is made of. */
export function shelfSentence(tray: Tray): string {
  const { reading } = tray;
  const dry = reading.dry_pct === null ? "" : `, ${Math.round(reading.dry_pct)} % dry`;
  const when =
    reading.likely_h === null
      ? ""
      : ` Likely dry at ${hours(reading.likely_h)}, from ${hours(reading.low_h ?? 0)} to ${hours(reading.high_h ?? 0)}.`;
  return `${tray.name}: ${tray.pieces} pieces out for ${hours(reading.age_h)}${dry}.${when}`;
}

/** The task that weighing itself does. */
export const WEIGH_AGAIN = "weigh-again";
