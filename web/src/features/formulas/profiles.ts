import type { Evaluation, Profile, Reading } from "../../api";
import { figure } from "../../lib/numbers";
import { outBy, type StripScale } from "../../lib/stripMap";
import type { Question, StripReading } from "./questions";

/** Wanted of every bath, whatever the profile; defaults of this project, no safety claim. */
const ALWAYS: readonly { reading: string; low: number | null; high: number | null }[] = [
  { reading: "bath.ph_stepin", low: 5.5, high: 8.5 },
  { reading: "bath.ph_soak", low: 5.5, high: 8.5 },
  { reading: "feel.ring", low: null, high: 30 },
];

const GROUP_OF: Record<string, Question["id"]> = {
  dough: "hold",
  firmness: "set",
  drying: "set",
  shelf: "set",
  lather: "foam",
  fizz: "fizz",
  feel: "feel",
  release: "feel",
  piece: "feel",
  bath: "kind",
  skin: "kind",
  cost: "cost",
};

/** Ends of the paper where a band asks for a reading that is not shown otherwise. */
const ENDS: Record<string, readonly [number, number]> = {
  "of 100": [0, 100],
  "of 98": [0, 100],
  "°C": [10, 60],
  h: [0, 72],
  min: [0, 60],
  USD: [0, 2],
};

/** The number behind a dotted path; null where it cannot be said. */
export function valueAt(evaluation: Evaluation, path: string): number | null {
  let found: unknown = evaluation;
  for (const name of path.split("."))
    found = found && typeof found === "object" ? (found as Record<string, unknown>)[name] : null;
  if (typeof found === "number") return found;
  return typeof found === "string" && found.trim() && Number.isFinite(Number(found)) ? Number(found) : null;
}

export interface WantedBand {
  reading: string;
  low: number | null;
  high: number | null;
}

/** All bands a formula is judged by: the profile's own, then those of every bath it does not name. */
export function bandsOf(profile: Profile | undefined): WantedBand[] {
  const own = profile?.bands ?? [];
  const named = new Set(own.map((band) => band.reading));
  return [...own, ...ALWAYS.filter((band) => !named.has(band.reading))];
}

/** Lay the bands over the questions; a reading no question shows gets a strip of its own. */
export function withBands(
  questions: readonly Question[],
  part: Evaluation,
  all: Evaluation,
  bands: readonly WantedBand[],
  registry: ReadonlyMap<string, Reading>,
): Question[] {
  return questions.map((question) => {
    const readings = question.readings.map((reading) => {
      const band = bands.find((each) => each.reading === reading.id);
      return band ? banded(reading, band) : reading;
    });
    for (const band of bands) {
      if (GROUP_OF[band.reading.split(".")[0] ?? ""] !== question.id) continue;
      if (readings.some((reading) => reading.id === band.reading)) continue;
      const added = ownStrip(band, part, all, registry);
      if (added && (added.out || !ALWAYS.includes(band))) readings.push(added);
    }
    const misses = readings.filter((reading) => reading.out && reading.scale.wanted);
    const first = misses[0];
    if (!first || question.out) return { ...question, readings };
    return { ...question, readings, out: true, answer: missWords(first) };
  });
}

/** What is wrong, in words: "10 under 65". */
export function missWords(reading: StripReading): string {
  if (reading.value === null) return "not known";
  const by = outBy(reading.value, reading.scale.wanted);
  const end = by < 0 ? reading.scale.wanted?.low : reading.scale.wanted?.high;
  if (end === undefined) return "";
  return `${reading.label}: ${reading.format(Math.abs(by))} ${by < 0 ? "under" : "over"} ${reading.format(end)}`;
}

function banded(reading: StripReading, band: WantedBand): StripReading {
  const wanted = { low: band.low ?? undefined, high: band.high ?? undefined };
  const scale = stretched(reading.scale, band);
  const value = reading.value;
  return { ...reading, scale: { ...scale, wanted }, out: value !== null && outBy(value, wanted) !== 0 };
}

/** A paper always reaches past what is wanted. */
function stretched(scale: StripScale, band: WantedBand): StripScale {
  return {
    ...scale,
    min: band.low !== null && band.low <= scale.min ? band.low - (scale.max - scale.min) * 0.2 : scale.min,
    max: band.high !== null && band.high >= scale.max ? band.high * 1.4 : scale.max,
  };
}

function ownStrip(
  band: WantedBand,
  part: Evaluation,
  all: Evaluation,
  registry: ReadonlyMap<string, Reading>,
): StripReading | null {
  const reading = registry.get(band.reading);
  if (!reading) return null;
  const ofPart = ["dough", "firmness", "drying"].includes(band.reading.split(".")[0] ?? "");
  const value = valueAt(ofPart ? part : all, band.reading);
  const furthest = 2 * Math.max(band.high ?? 0, band.low ?? 0, value ?? 0, 1e-3);
  const [min, max] = ENDS[reading.unit] ?? [0, furthest];
  const strip: StripReading = {
    id: band.reading,
    label: reading.label,
    kind: reading.kind as StripReading["kind"],
    scale: { min, max: Math.max(max, value ?? 0) },
    value,
    shown: value === null ? "–" : figure(value),
    unit: reading.unit,
    out: false,
    explained: reading.explained,
    format: figure,
  };
  return banded(strip, band);
}

const AIMS =
  /^(dough\.(saturation|stickiness|puff_pct)|fizz\.(co2_piece_l|base_to_acid)|bath\.|lather\.(score|active_g|height_cm|character)|firmness\.|release\.|drying\.hours|feel\.(oil_g|free_oil_g|ring|tint|cloud)|skin\.|cost\.(piece|bath))/;

/** Whether a band on this reading is a wish that lines can follow. */
export const canBeAimedAt = (reading: string): boolean => AIMS.test(reading);
