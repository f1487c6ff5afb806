import type { Evaluation, Reading } from "../../api";
import { figure, grams } from "../../lib/numbers";
import type { StripScale } from "../../lib/stripMap";
import type { Kind } from "../../ui";

/** The maker's questions, answered from the readings. Nothing is computed here but words. */
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
  format: (value: number) => string;
}

export interface Question {
  id: "hold" | "foam" | "fizz" | "cost";
  title: string;
  answer: string;
  out: boolean;
  readings: StripReading[];
}

type Registry = ReadonlyMap<string, Reading>;
const asKind = (registry: Registry, id: string): Kind => (registry.get(id)?.kind ?? "practice") as Kind;
const explain = (registry: Registry, id: string): string => registry.get(id)?.explained ?? "";

/** `part` is the portion in hand; `whole` the formula. */
export function questions(part: Evaluation, whole: Evaluation, registry: Registry): Question[] {
  return [hold(part, registry), foam(whole, registry), fizz(whole, registry), cost(whole, registry)];
}

export function wantedBand(part: Evaluation): StripScale["wanted"] {
  const wanted = part.dough?.wanted;
  if (!wanted || (wanted.saturation_low === null && wanted.saturation_high === null)) return undefined;
  const crumblyToo = wanted.states.includes("crumbly dough");
  return {
    low: crumblyToo ? 0.3 : (wanted.saturation_low ?? undefined),
    high: wanted.saturation_high ?? undefined,
  };
}

/** Whether the dough is where its method wants it, in words. */
export function doughAnswer(part: Evaluation): { answer: string; out: boolean } {
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
    return { answer: `Does not set at ${figure(dough.when_cold.temperature_c)} °C`, out: true };
  return { answer: cold ? "Yes, and sets" : "Yes", out: false };
}

function hold(part: Evaluation, registry: Registry): Question {
  const { answer, out } = doughAnswer(part);
  const dough = part.dough;
  const readings: StripReading[] = [];
  if (dough) {
    readings.push({
      id: "dough.saturation",
      label: `Dough at ${figure(dough.temperature_c)} °C`,
      kind: asKind(registry, "dough.saturation"),
      scale: { min: 0, max: 2.4, wanted: wantedBand(part) },
      value: dough.saturation,
      band: dough.saturation_band ? [dough.saturation_band[0], dough.saturation_band[1]] : null,
      shown:
        dough.saturation === null ? "–" : dough.saturation >= 2.4 ? "over 2.4" : dough.saturation.toFixed(2),
      unit: dough.state ?? "",
      out: out && dough.saturation !== null,
      explained: explain(registry, "dough.saturation"),
      format: (v) => v.toFixed(2),
    });
    const window = dough.working_window_c;
    readings.push({
      id: "dough.working_window_c",
      label: "Working window",
      kind: asKind(registry, "dough.working_window_c"),
      scale: { min: 10, max: 60 },
      value: null,
      span: window ? [window[0], window[1]] : null,
      shown: window
        ? `${figure(window[0])}–${figure(window[1])}`
        : dough.window_reason === "never"
          ? "never"
          : "any",
      unit: window ? "°C" : dough.window_reason === "never" ? "in 10–60 °C" : "no fat",
      out: dough.window_reason === "never",
      explained: explain(registry, "dough.working_window_c"),
      format: figure,
    });
  }
  return { id: "hold", title: "Will it hold?", answer, out, readings };
}

function foam(whole: Evaluation, registry: Registry): Question {
  const { active_g, active_band_g, active_piece_g, concentration_mg_l } = whole.lather;
  const answer =
    active_g === null
      ? "Nothing to foam yet"
      : active_g === 0
        ? "No surfactant"
        : `${figure(active_g)} g active a bath`;
  return {
    id: "foam",
    title: "Will it foam?",
    answer,
    out: false,
    readings: [
      {
        id: "lather.active_g",
        label: "Active in bath",
        kind: asKind(registry, "lather.active_g"),
        scale: { min: 0, max: 8 },
        value: active_g,
        band: active_band_g && active_g ? [active_band_g[0], active_band_g[1]] : null,
        shown: active_g === null ? "–" : figure(active_g),
        unit: "g",
        out: false,
        explained: `${explain(registry, "lather.active_g")} A whole piece holds ${figure(active_piece_g ?? 0)} g. Well-liked bars give 3 to 5 g (common practice).`,
        format: figure,
      },
      {
        id: "lather.concentration_mg_l",
        label: "In the water",
        kind: asKind(registry, "lather.concentration_mg_l"),
        scale: { min: 0, max: 60 },
        value: concentration_mg_l,
        shown: concentration_mg_l === null ? "–" : figure(concentration_mg_l),
        unit: "mg/L",
        out: false,
        explained: explain(registry, "lather.concentration_mg_l"),
        format: figure,
      },
    ],
  };
}

function fizz(whole: Evaluation, registry: Registry): Question {
  const { co2_l, co2_piece_l, base_to_acid, limiting, bicarbonate_left_g } = whole.fizz;
  const runsOut = limiting === "balanced" ? "acid and base match" : `${limiting} runs out first`;
  const answer =
    co2_l === null ? "Nothing to fizz yet" : co2_l === 0 ? "No" : `${figure(co2_piece_l ?? 0)} L a piece`;

  const readings: StripReading[] = [
    {
      id: "fizz.co2_l",
      label: "Gas, a piece",
      kind: asKind(registry, "fizz.co2_l"),
      scale: { min: 0, max: 16 },
      value: co2_piece_l,
      shown: co2_piece_l === null ? "–" : figure(co2_piece_l),
      unit: "L",
      out: false,
      explained: `${explain(registry, "fizz.co2_l")} ${figure(co2_l ?? 0)} L a batch. ${limiting ? `Here ${runsOut}; ${grams(bicarbonate_left_g ?? 0)} g of bicarbonate stay behind.` : ""}`,
      format: figure,
    },
  ];
  if (base_to_acid !== null)
    readings.push({
      id: "fizz.base_to_acid",
      label: "Base to acid",
      kind: asKind(registry, "fizz.base_to_acid"),
      scale: { min: 0, max: 6 },
      value: Math.min(base_to_acid, 6),
      shown: base_to_acid > 100 ? "over 100" : figure(base_to_acid),
      unit: "g/g",
      out: false,
      explained: `${explain(registry, "fizz.base_to_acid")} Two to one is the trade's ratio; 1.31 to one uses up both with citric acid.`,
      format: figure,
    });
  return { id: "fizz", title: "Will it fizz?", answer, out: false, readings };
}

function cost(whole: Evaluation, registry: Registry): Question {
  const { batch, piece, bath, currency, basis } = whole.cost;
  const prices =
    basis === "studio" ? "your prices" : basis === "mixed" ? "your prices and reference" : "reference prices";
  return {
    id: "cost",
    title: "What does it cost?",
    answer: batch === null ? "No price yet" : `${batch} ${currency} a batch`,
    out: false,
    readings: [
      {
        id: "cost.piece",
        label: "Per piece",
        kind: asKind(registry, "cost.piece"),
        scale: { min: 0, max: 1.5 },
        value: piece === null ? null : Number(piece),
        shown: piece ?? "–",
        unit: currency,
        out: false,
        explained: `${explain(registry, "cost.piece")} ${bath ?? "–"} ${currency} a bath, by ${prices}; ${figure(whole.assumed.loss_fraction * 100)} % is lost on bowl and gloves.`,
        format: (v) => v.toFixed(2),
      },
    ],
  };
}
