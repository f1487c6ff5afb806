import type { Reading } from "../../api";
import { figure, fixed } from "../../lib/numbers";
import { outBy, type StripScale } from "../../lib/stripMap";
import { inUnits, toShown, unitShown } from "../../lib/units";
import type { Kind } from "../../ui";

/** One reading as its strip shows it; all that is known of it comes from its declaration. */
export interface StripReading {
  id: string;
  label: string;
  kind: Kind;
  scale: StripScale;
  value: number | null;
  band?: readonly [number, number] | null;
  span?: readonly [number, number] | null;
  shown: string;
  unit: string;
  out: boolean;
  explained: string;
  /** The curve it can be read off; empty where there is none. */
  curve: string;
  /** Whether it is one number that lines can be asked about. */
  hasWhy: boolean;
  format: (value: number) => string;
}

export type Registry = ReadonlyMap<string, Reading>;

/** A figure as its reading is shown. */
const shownAs =
  (decimals: number | null | undefined, unit: string) =>
  (value: number): string =>
    typeof decimals === "number" ? fixed(toShown(value, unit), decimals) : figure(toShown(value, unit));

/** The strip of a declared reading; `extra` says what only this evaluation tells. */
export function stripOf(
  reading: Reading,
  value: number | null,
  extra: Partial<StripReading> = {},
): StripReading {
  const lane = reading.always ?? reading.lane;
  const wanted = lane ? { low: lane.low ?? undefined, high: lane.high ?? undefined } : undefined;
  const scale: StripScale = {
    min: reading.scale_low ?? 0,
    max: reading.scale_high ?? Math.max(2 * (value ?? 0), 1e-3),
    wanted,
  };
  const half = reading.half_width;
  const strip: StripReading = {
    id: reading.id,
    label: inUnits(reading.label),
    kind: reading.kind as Kind,
    scale,
    value,
    band: half !== null && half !== undefined && value !== null ? [value - half, value + half] : null,
    shown: value === null ? "–" : shownAs(reading.decimals, reading.unit)(value),
    unit: unitShown(reading.unit),
    out: false,
    explained: reading.explained,
    curve: reading.curve,
    hasWhy: reading.has_why,
    format: shownAs(reading.decimals || undefined, reading.unit),
    ...extra,
  };
  if (extra.out === undefined)
    strip.out = strip.value !== null && outBy(strip.value, strip.scale.wanted) !== 0;
  return strip;
}
