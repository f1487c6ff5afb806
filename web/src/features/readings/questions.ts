import type { Evaluation, Reading } from "../../api";
import { figure, fixed, sayMass, sayTemperature, temperatureFigure } from "../../lib/numbers";
import { valueAt } from "../../lib/readings";
import { outBy, type StripScale } from "../../lib/stripMap";
import { signed, temperatureUnit } from "../../lib/units";
import { type Registry, type StripReading, stripOf } from "./strips";

/** The maker's questions, answered from the readings. Nothing is computed here but words. */
export interface Question {
  id: "hold" | "set" | "foam" | "fizz" | "feel" | "kind" | "cost";
  title: string;
  answer: string;
  out: boolean;
  readings: StripReading[];
}

type Answer = Pick<Question, "answer" | "out">;
/** What an evaluation tells of a strip beyond the reading's own declaration. */
type Detail = (evaluation: Evaluation, reading: Reading) => Partial<StripReading>;

const ASKED: readonly [Question["id"], string, (evaluation: Evaluation, registry: Registry) => Answer][] = [
  ["hold", "Will it hold?", doughAnswer],
  ["set", "Will it set?", setAnswer],
  ["foam", "Will it foam?", foamAnswer],
  ["fizz", "Will it fizz?", fizzAnswer],
  ["feel", "How will it feel?", feelAnswer],
  ["kind", "Is it kind?", kindAnswer],
  ["cost", "What does it cost?", costAnswer],
];
/** Questions about the dough in hand; the others are about the whole formula. */
const OF_PART: readonly string[] = ["hold", "set"];

/** `part` is the portion in hand; `all` the formula. */
export function questions(part: Evaluation, all: Evaluation, registry: Registry): Question[] {
  return ASKED.map(([id, title, answer]) => {
    const of = OF_PART.includes(id) ? part : all;
    const readings = [...registry.values()]
      .filter((reading) => reading.question === id && typeof reading.desk === "number")
      .sort((a, b) => (a.desk ?? 0) - (b.desk ?? 0))
      .flatMap((reading) => strip(reading, of));
    return { id, title, ...answer(of, registry), readings };
  });
}

/** The evaluation a reading is told by: that of the portion in hand, or of the whole formula. */
export const toldBy = (reading: Reading, part: Evaluation, all: Evaluation): Evaluation =>
  OF_PART.includes(reading.question) ? part : all;

function strip(reading: Reading, of: Evaluation): StripReading[] {
  if (reading.question === "hold" && !of.dough) return [];
  const value = valueAt(of, reading.id);
  if (reading.id === "fizz.base_to_acid" && value === null) return [];
  return [stripOf(reading, value, DETAILS[reading.id]?.(of, reading) ?? {})];
}

export function wantedBand(part: Evaluation): StripScale["wanted"] {
  const wanted = part.dough?.wanted;
  if (!wanted || (wanted.saturation_from === null && wanted.saturation_high === null)) return undefined;
  return { low: wanted.saturation_from ?? undefined, high: wanted.saturation_high ?? undefined };
}

/** Whether the dough is where its method wants it, in words. */
export function doughAnswer(part: Evaluation): Answer {
  const dough = part.dough;
  if (!dough?.state) return { answer: "Nothing in the bowl yet", out: false };
  const band = wantedBand(part);
  if (!dough.wanted.states.includes(dough.state)) {
    const { saturation } = dough;
    if (saturation !== null && band?.low !== undefined && saturation < band.low)
      return { answer: `${dough.state}, ${figure(band.low - saturation)} short`, out: true };
    if (saturation !== null && band?.high !== undefined && saturation > band.high)
      return { answer: `${dough.state}, ${figure(saturation - band.high)} over`, out: true };
    return { answer: `${dough.state}, not ${dough.wanted.states.join(" or ")}`, out: true };
  }
  if (dough.saturation !== null && band?.low !== undefined && dough.saturation < band.low)
    return { answer: `Just, at the dry end`, out: false };
  if (dough.saturation !== null && band?.high !== undefined && dough.saturation > band.high)
    return { answer: `Just, at the wet end`, out: false };
  const cold = dough.wanted.state_when_cold;
  if (cold && dough.when_cold.state !== cold)
    return { answer: `Does not set at ${sayTemperature(dough.when_cold.temperature_c)}`, out: true };
  return { answer: cold ? "Yes, and sets" : "Yes", out: false };
}

function setAnswer(part: Evaluation): Answer {
  const { hours, dries, reason } = part.drying;
  const never = dries === false;
  const answer = never
    ? (reason ?? "Not in this air")
    : hours === null
      ? "Nothing to set yet"
      : `In ${Math.round(hours)} hours`;
  return { answer: sentenceCase(answer), out: never };
}

function foamAnswer(all: Evaluation): Answer {
  const { active_g, height_cm } = all.lather;
  if (active_g === null) return { answer: "Nothing to foam yet", out: false };
  return {
    answer: active_g === 0 ? "No surfactant" : `${figure(height_cm ?? 0)} cm in the tub`,
    out: false,
  };
}

function fizzAnswer(all: Evaluation): Answer {
  const { co2_l, co2_piece_l } = all.fizz;
  if (co2_l === null) return { answer: "Nothing to fizz yet", out: false };
  return { answer: co2_l === 0 ? "No" : `${figure(co2_piece_l ?? 0)} L a piece`, out: false };
}

function feelAnswer(all: Evaluation): Answer {
  const { richness, slip } = all.feel;
  const slippery = slip === "warn" ? ", slippery tub" : slip === "note" ? ", mind the tub floor" : "";
  return { answer: richness ? `${RICHNESS[richness]}${slippery}` : "Not known yet", out: false };
}

function kindAnswer(all: Evaluation, registry: Registry): Answer {
  const { ph_stepin, ph_soak } = all.bath;
  const always = registry.get("bath.ph_stepin")?.always;
  const lane = { low: always?.low ?? undefined, high: always?.high ?? undefined };
  const out = [ph_stepin, ph_soak].some((value) => value !== null && outBy(value, lane) !== 0);
  if (ph_stepin === null) return { answer: "Not known yet", out };
  const by = outBy(ph_stepin, lane);
  const scent = all.skin.scent_share === null ? ", scent not known" : "";
  const answer = out
    ? `pH ${figure(Math.abs(by))} ${by < 0 ? `under ${lane.low}` : `over ${lane.high}`}`
    : `pH ${fixed(ph_stepin, 1)}${scent}`;
  return { answer, out };
}

function costAnswer(all: Evaluation): Answer {
  const { batch, currency } = all.cost;
  return { answer: batch === null ? "No price yet" : `${signed(batch)} ${currency} a batch`, out: false };
}

const RICHNESS: Record<string, string> = {
  none: "No oil to speak of",
  little: "A little oil",
  rich: "Rich",
  "very-oily": "Very oily",
};
const whole = (value: number | null): string => (value === null ? "–" : String(Math.round(value)));
const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const ph = (value: number | null): string => (value === null ? "not known" : fixed(value, 1));
const also = (reading: Reading, text: string): string => `${reading.explained} ${text}`.trim();

const DETAILS: Record<string, Detail> = {
  "dough.saturation": (part, reading) => {
    const dough = part.dough;
    if (!dough) return {};
    const highest = reading.scale_high ?? Number.POSITIVE_INFINITY;
    const { saturation } = dough;
    return {
      label: `Dough at ${sayTemperature(dough.temperature_c)}`,
      scale: { min: reading.scale_low ?? 0, max: highest, wanted: wantedBand(part) },
      band: dough.saturation_band ? [dough.saturation_band[0], dough.saturation_band[1]] : null,
      ...(saturation !== null && saturation >= highest ? { shown: `over ${highest}` } : {}),
      unit: dough.state ?? "",
      out: doughAnswer(part).out && saturation !== null,
    };
  },
  "dough.working_window_c": (part, reading) => {
    const window = part.dough?.working_window_c;
    const never = part.dough?.window_reason === "never";
    return {
      value: null,
      span: window ? [window[0], window[1]] : null,
      shown: window
        ? `${temperatureFigure(window[0])}–${temperatureFigure(window[1])}`
        : never
          ? "never"
          : "any",
      unit: window
        ? temperatureUnit()
        : never
          ? `in ${temperatureFigure(reading.scale_low ?? 0)}–${sayTemperature(reading.scale_high ?? 0)}`
          : "no fat",
      out: never,
    };
  },
  "drying.hours": (part, reading) => {
    const { low_hours, high_hours, dries } = part.drying;
    const band = low_hours !== null && high_hours !== null;
    const air = `In ${figure(part.assumed.humidity_pct)} % humidity at ${sayTemperature(part.assumed.room_c)}.`;
    return {
      band: band ? [low_hours, high_hours] : null,
      unit: band ? `h, ${whole(low_hours)}–${whole(high_hours)}` : "h",
      out: dries === false,
      explained: also(reading, air),
    };
  },
  "lather.score": (all, reading) => {
    const { score, score_band, foam_l, character, half_life_min } = all.lather;
    if (!score) return { band: null };
    const detail = `${figure(foam_l ?? 0)} L; character ${whole(character)} of 100 (0 creamy, 100 fluffy); half gone ${whole(half_life_min)} min after the tub is full.`;
    return {
      band: score_band ? [score_band[0], score_band[1]] : null,
      explained: also(reading, detail),
    };
  },
  "lather.active_g": (all, reading) => ({
    explained: also(reading, `A whole piece holds ${sayMass(all.lather.active_piece_g ?? 0)}.`),
  }),
  "fizz.co2_piece_l": (all, reading) => {
    const { co2_l, limiting, bicarbonate_left_g } = all.fizz;
    const runsOut = limiting === "balanced" ? "acid and base match" : `${limiting} runs out first`;
    const left = limiting
      ? ` Here ${runsOut}; ${sayMass(bicarbonate_left_g ?? 0)} of bicarbonate stay behind.`
      : "";
    return { explained: also(reading, `${figure(co2_l ?? 0)} L a batch.${left}`) };
  },
  "fizz.base_to_acid": (all, reading) => {
    const ratio = all.fizz.base_to_acid ?? 0;
    return {
      value: Math.min(ratio, reading.scale_high ?? ratio),
      shown: ratio > 100 ? "over 100" : figure(ratio),
    };
  },
  "feel.oil_g": (all, reading) => ({
    explained: also(reading, `${sayMass(all.feel.free_oil_g ?? 0)} of it stay free.`),
  }),
  "feel.ring": (all, reading) => ({
    explained: also(reading, `Tint ${whole(all.feel.tint)}, cloud ${whole(all.feel.cloud)} of 100.`),
  }),
  "release.minutes": (all, reading) => ({
    ...(all.release.minutes === null ? { shown: "never" } : {}),
    explained: also(reading, `Here ${all.assumed.way} at ${sayTemperature(all.assumed.bath_c)}.`),
  }),
  "bath.ph_stepin": (all, reading) => {
    const { ph_fresh, ph_soak, ph_aired } = all.bath;
    const told = `Fresh ${ph(ph_fresh)}, after 20 min ${ph(ph_soak)}, overnight ${ph(ph_aired)}.`;
    return { explained: also(reading, told) };
  },
  "skin.scent_share": (all) => (all.skin.scent_share === null ? { shown: "not known", unit: "" } : {}),
  "cost.piece": (all, reading) => {
    const { piece, bath, currency, basis } = all.cost;
    const prices =
      basis === "studio"
        ? "your prices"
        : basis === "mixed"
          ? "your prices and reference"
          : "reference prices";
    return {
      shown: signed(piece ?? "–"),
      unit: currency,
      explained: also(
        reading,
        `${signed(bath ?? "–")} ${currency} a bath, by ${prices}; ${figure(all.assumed.loss_fraction * 100)} % is lost on bowl and gloves.`,
      ),
    };
  },
};
