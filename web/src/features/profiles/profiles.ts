import type { Evaluation, Profile } from "../../api";
import { valueAt } from "../../lib/readings";
import { outBy, type StripScale } from "../../lib/stripMap";
import { type Question, type Registry, type StripReading, stripOf, toldBy } from "../readings";

export interface WantedBand {
  reading: string;
  low: number | null;
  high: number | null;
}

/** Wanted of every bath, whatever the profile; defaults of this project, no safety claim. */
const always = (registry: Registry): WantedBand[] =>
  [...registry.values()].flatMap(({ id, always: band }) =>
    band ? [{ reading: id, low: band.low, high: band.high }] : [],
  );

/** All bands a formula is judged by: the profile's own, then those of every bath it does not name. */
export function bandsOf(profile: Profile | undefined, registry: Registry): WantedBand[] {
  const own = profile?.bands ?? [];
  const named = new Set(own.map((band) => band.reading));
  return [...own, ...always(registry).filter((band) => !named.has(band.reading))];
}

/** Lay the bands over the questions; a reading no question shows gets a strip of its own. */
export function withBands(
  questions: readonly Question[],
  part: Evaluation,
  all: Evaluation,
  bands: readonly WantedBand[],
  registry: Registry,
): Question[] {
  return questions.map((question) => {
    const readings = question.readings.map((reading) => {
      const band = bands.find((each) => each.reading === reading.id);
      return band ? banded(reading, band) : reading;
    });
    for (const band of bands) {
      if (registry.get(band.reading)?.question !== question.id) continue;
      if (readings.some((reading) => reading.id === band.reading)) continue;
      const added = ownStrip(band, part, all, registry);
      if (added && (added.out || !isAlways(band, registry))) readings.push(added);
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

/** Whether a band stands for every bath; then its strip is shown only where it is missed. */
function isAlways(band: WantedBand, registry: Registry): boolean {
  const own = registry.get(band.reading)?.always;
  return !!own && own.low === band.low && own.high === band.high;
}

function ownStrip(
  band: WantedBand,
  part: Evaluation,
  all: Evaluation,
  registry: Registry,
): StripReading | null {
  const reading = registry.get(band.reading);
  if (!reading) return null;
  const value = valueAt(toldBy(reading, part, all), band.reading);
  const furthest = 2 * Math.max(band.high ?? 0, band.low ?? 0, value ?? 0, 1e-3);
  const max = Math.max(reading.scale_high ?? furthest, value ?? 0);
  const strip = stripOf(reading, value);
  return banded({ ...strip, scale: { ...strip.scale, max } }, band);
}
