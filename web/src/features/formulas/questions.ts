import type { Evaluation, Reading } from "../../api";
import { figure, grams } from "../../lib/numbers";
import { outBy, type StripScale } from "../../lib/stripMap";
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
  id: "hold" | "set" | "foam" | "fizz" | "feel" | "kind" | "cost";
  title: string;
  answer: string;
  out: boolean;
  readings: StripReading[];
}

type Registry = ReadonlyMap<string, Reading>;
const asKind = (registry: Registry, id: string): Kind => (registry.get(id)?.kind ?? "practice") as Kind;
const explain = (registry: Registry, id: string): string => registry.get(id)?.explained ?? "";

/** `part` is the portion in hand; `all` the formula. */
export function questions(part: Evaluation, all: Evaluation, registry: Registry): Question[] {
  return [
    hold(part, registry),
    set(part, registry),
    foam(all, registry),
    fizz(all, registry),
    feel(all, registry),
    kind(all, registry),
    cost(all, registry),
  ];
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

/** A reading that is one number on a strip. */
function plain(
  registry: Registry,
  id: string,
  value: number | null,
  scale: StripScale,
  extra: Partial<StripReading> = {},
): StripReading {
  const reading = registry.get(id);
  return {
    id,
    label: reading?.label ?? id,
    kind: asKind(registry, id),
    scale,
    value,
    shown: value === null ? "–" : figure(value),
    unit: reading?.unit ?? "",
    out: value !== null && outBy(value, scale.wanted) !== 0,
    explained: explain(registry, id),
    format: figure,
    ...extra,
  };
}

function set(part: Evaluation, registry: Registry): Question {
  const { hours, low_hours, high_hours, dries, reason } = part.drying;
  const air = `In ${figure(part.assumed.humidity_pct)} % humidity at ${figure(part.assumed.room_c)} °C.`;
  const never = dries === false;
  const answer = never
    ? (reason ?? "Not in this air")
    : hours === null
      ? "Nothing to set yet"
      : `In ${Math.round(hours)} hours`;
  const readings = [
    plain(
      registry,
      "firmness.at_20_c",
      part.firmness.at_20_c,
      { min: 0, max: 100 },
      { shown: whole(part.firmness.at_20_c) },
    ),
    plain(
      registry,
      "drying.hours",
      hours,
      { min: 0, max: 72 },
      {
        band: low_hours !== null && high_hours !== null ? [low_hours, high_hours] : null,
        shown: whole(hours),
        unit: low_hours !== null && high_hours !== null ? `h, ${whole(low_hours)}–${whole(high_hours)}` : "h",
        out: never,
        explained: `${explain(registry, "drying.hours")} ${air}`,
      },
    ),
  ];
  return { id: "set", title: "Will it set?", answer: sentenceCase(answer), out: never, readings };
}

const whole = (value: number | null): string => (value === null ? "–" : String(Math.round(value)));
const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function foam(all: Evaluation, registry: Registry): Question {
  const { active_g, active_piece_g, score, score_band, foam_l, height_cm, character, half_life_min } =
    all.lather;
  const answer =
    active_g === null
      ? "Nothing to foam yet"
      : active_g === 0
        ? "No surfactant"
        : `${figure(height_cm ?? 0)} cm in the tub`;
  const detail =
    score === null || score === 0
      ? ""
      : ` ${figure(foam_l ?? 0)} L; character ${whole(character)} of 100 (0 creamy, 100 fluffy); half gone ${whole(half_life_min)} min after the tub is full.`;
  const readings = [
    plain(
      registry,
      "lather.score",
      score,
      { min: 0, max: 100 },
      {
        band: score_band && score ? [score_band[0], score_band[1]] : null,
        shown: whole(score),
        explained: explain(registry, "lather.score") + detail,
      },
    ),
    plain(
      registry,
      "lather.active_g",
      active_g,
      { min: 0, max: 8 },
      {
        explained: `${explain(registry, "lather.active_g")} A whole piece holds ${figure(active_piece_g ?? 0)} g. Well-liked bars give 3 to 5 g (common practice).`,
      },
    ),
  ];
  return { id: "foam", title: "Will it foam?", answer, out: false, readings };
}

function feel(all: Evaluation, registry: Registry): Question {
  const { oil_g, free_oil_g, ring, slip, tint, cloud } = all.feel;
  const slippery = slip === "warn" ? ", slippery tub" : slip === "note" ? ", mind the tub floor" : "";
  const answer =
    oil_g === null
      ? "Not known yet"
      : oil_g < 0.3
        ? "No oil to speak of"
        : `${oil_g < 4 ? "A little oil" : oil_g < 10 ? "Rich" : "Very oily"}${slippery}`;
  const readings = [
    plain(
      registry,
      "feel.oil_g",
      oil_g,
      { min: 0, max: 30 },
      {
        explained: `${explain(registry, "feel.oil_g")} ${figure(free_oil_g ?? 0)} g of it stay free.`,
      },
    ),
    plain(
      registry,
      "feel.ring",
      ring,
      { min: 0, max: 100 },
      {
        shown: whole(ring),
        explained: `${explain(registry, "feel.ring")} Tint ${whole(tint)}, cloud ${whole(cloud)} of 100. Under 10 none, under 30 faint.`,
      },
    ),
    plain(
      registry,
      "release.minutes",
      all.release.minutes,
      { min: 0, max: 45 },
      {
        shown: all.release.minutes === null ? "never" : figure(all.release.minutes),
        explained: `${explain(registry, "release.minutes")} Here ${all.assumed.way} at ${figure(all.assumed.bath_c)} °C.`,
      },
    ),
  ];
  return { id: "feel", title: "How will it feel?", answer, out: false, readings };
}

/** pH that asks for a word: the limits are project defaults, no safety claim. */
const BATH_PH = { low: 5.5, high: 8.5 };

function kind(all: Evaluation, registry: Registry): Question {
  const { ph_fresh, ph_stepin, ph_soak, ph_aired } = all.bath;
  const out = [ph_stepin, ph_soak].some((value) => value !== null && outBy(value, BATH_PH) !== 0);
  const scent = all.skin.scent_share;
  const by = ph_stepin === null ? 0 : outBy(ph_stepin, BATH_PH);
  const answer =
    ph_stepin === null
      ? "Not known yet"
      : out
        ? `pH ${figure(Math.abs(by))} ${by < 0 ? "under 5.5" : "over 8.5"}`
        : `pH ${ph_stepin.toFixed(1)}${scent === null ? ", scent not known" : ""}`;
  const readings = [
    plain(
      registry,
      "bath.ph_stepin",
      ph_stepin,
      { min: 3, max: 11, wanted: BATH_PH },
      {
        shown: ph_stepin === null ? "–" : ph_stepin.toFixed(1),
        band: ph_stepin === null ? null : [ph_stepin - 0.25, ph_stepin + 0.25],
        explained: `${explain(registry, "bath.ph_stepin")} Fresh ${ph(ph_fresh)}, after 20 min ${ph(ph_soak)}, overnight ${ph(ph_aired)}. The lane is a project default, no safety claim.`,
        format: (v) => v.toFixed(1),
      },
    ),
    plain(registry, "skin.harshness_mg_l", all.skin.harshness_mg_l, { min: 0, max: 60 }),
    plain(
      registry,
      "skin.scent_share",
      scent,
      { min: 0, max: 2, wanted: { high: 1 } },
      {
        shown: scent === null ? "not known" : figure(scent),
        unit: scent === null ? "" : "of its limit",
      },
    ),
  ];
  return { id: "kind", title: "Is it kind?", answer, out, readings };
}

const ph = (value: number | null): string => (value === null ? "not known" : value.toFixed(1));

function fizz(all: Evaluation, registry: Registry): Question {
  const { co2_l, co2_piece_l, base_to_acid, limiting, bicarbonate_left_g } = all.fizz;
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

function cost(all: Evaluation, registry: Registry): Question {
  const { batch, piece, bath, currency, basis } = all.cost;
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
        explained: `${explain(registry, "cost.piece")} ${bath ?? "–"} ${currency} a bath, by ${prices}; ${figure(all.assumed.loss_fraction * 100)} % is lost on bowl and gloves.`,
        format: (v) => v.toFixed(2),
      },
    ],
  };
}
