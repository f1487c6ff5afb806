import { describe, expect, it } from "vitest";
import type { Evaluation, Profile, Reading } from "../../api";
import { valueAt } from "../../lib/readings";
import { bandsOf, missWords, withBands } from "../profiles";
import { doughAnswer, questions, wantedBand } from "./questions";

/** A scoop as it should be; each test says what is different. */
const judged = (patch: Record<string, unknown> = {}): Evaluation =>
  ({
    mass_g: 600,
    dough: dough(),
    fizz: {
      co2_l: 4,
      co2_piece_l: 0.4,
      base_to_acid: 7.8,
      limiting: "acid",
      bicarbonate_left_g: 205,
    },
    bath: { ph_fresh: 7.5, ph_stepin: 7.5, ph_soak: 7.6, ph_aired: 8.6 },
    lather: {
      active_g: 3,
      active_piece_g: 6,
      score: 55,
      score_band: [43, 67],
      foam_l: 48,
      height_cm: 6,
      character: 40,
      half_life_min: 27,
    },
    firmness: { at_20_c: 77, at_30_c: 77 },
    release: { minutes: 4 },
    drying: { hours: 29, low_hours: 22, high_hours: 43, dries: true, reason: null },
    feel: { oil_g: 1.2, richness: "little", free_oil_g: 0.9, ring: 12, slip: "none", tint: 0, cloud: 17 },
    skin: { harshness_mg_l: 7, scent_share: 0.4 },
    cost: { currency: "USD", batch: "3.10", piece: "0.31", bath: "0.14", basis: "studio" },
    assumed: { humidity_pct: 40, room_c: 21, way: "crumbled", bath_c: 38, loss_fraction: 0.05 },
    portions: [],
    ...patch,
  }) as unknown as Evaluation;

const dough = (patch: Record<string, unknown> = {}) => ({
  temperature_c: 21,
  saturation: 0.8,
  saturation_band: [0.66, 0.94],
  state: "play dough",
  when_cold: { temperature_c: 21, saturation: 0.8, state: "play dough" },
  working_window_c: null,
  window_reason: "no fat",
  wanted: {
    states: ["play dough"],
    saturation_low: 0.65,
    saturation_from: 0.65,
    saturation_high: 0.95,
    state_when_cold: null,
  },
  ...patch,
});

/** A declaration as the API sends it. */
const declared = (id: string, question: string, patch: Partial<Reading> = {}): [string, Reading] => [
  id,
  {
    id,
    label: id,
    unit: "",
    kind: "practice",
    basis: "dose",
    explained: "",
    question,
    scale_low: null,
    scale_high: null,
    decimals: null,
    desk: null,
    curve: "",
    aim: true,
    has_why: true,
    half_width: null,
    watched: null,
    lane: null,
    always: null,
    ...patch,
  },
];
const PH = { scale_low: 3, scale_high: 11, decimals: 1, always: { low: 5.5, high: 8.5 } };
const REGISTRY = new Map([
  declared("dough.saturation", "hold", { desk: 0, scale_low: 0, scale_high: 2.4, decimals: 2 }),
  declared("dough.working_window_c", "hold", { desk: 1, scale_low: 10, scale_high: 60, aim: false }),
  declared("firmness.at_20_c", "set", { desk: 0, scale_low: 0, scale_high: 100, decimals: 0 }),
  declared("firmness.at_30_c", "set", { label: "Firmness at 30 °C", unit: "of 98" }),
  declared("drying.hours", "set", { desk: 1, scale_low: 0, scale_high: 72, decimals: 0 }),
  declared("lather.score", "foam", {
    label: "Foam score",
    desk: 0,
    scale_low: 0,
    scale_high: 100,
    decimals: 0,
  }),
  declared("lather.active_g", "foam", { desk: 1, scale_low: 0, scale_high: 8 }),
  declared("fizz.co2_piece_l", "fizz", { desk: 0, scale_low: 0, scale_high: 16 }),
  declared("fizz.base_to_acid", "fizz", { desk: 1, scale_low: 0, scale_high: 6 }),
  declared("feel.oil_g", "feel", { desk: 0, scale_low: 0, scale_high: 30 }),
  declared("feel.ring", "feel", {
    label: "Ring",
    desk: 1,
    scale_low: 0,
    scale_high: 100,
    decimals: 0,
    always: { low: null, high: 30 },
  }),
  declared("release.minutes", "feel", { desk: 2, scale_low: 0, scale_high: 45 }),
  declared("bath.ph_stepin", "kind", { desk: 0, half_width: 0.25, ...PH }),
  declared("bath.ph_soak", "kind", PH),
  declared("skin.harshness_mg_l", "kind", { desk: 1, scale_low: 0, scale_high: 60 }),
  declared("skin.scent_share", "kind", {
    desk: 2,
    unit: "of its limit",
    scale_low: 0,
    scale_high: 2,
    lane: { low: null, high: 1 },
  }),
  declared("cost.piece", "cost", { desk: 0, scale_low: 0, scale_high: 1.5, decimals: 2 }),
]);
const asked = (all: Evaluation) => questions(all, all, REGISTRY);
const answers = (all: Evaluation) => Object.fromEntries(asked(all).map((each) => [each.id, each.answer]));

describe("the seven questions", () => {
  it("are always seven, in the order a maker asks them", () => {
    expect(asked(judged()).map((each) => each.id)).toEqual([
      "hold",
      "set",
      "foam",
      "fizz",
      "feel",
      "kind",
      "cost",
    ]);
  });
  it("are answered in words, with units", () => {
    expect(answers(judged())).toMatchObject({
      hold: "Yes",
      set: "In 29 hours",
      foam: "6 cm in the tub",
      fizz: "0.4 L a piece",
      feel: "A little oil",
      kind: "pH 7.5",
      cost: "3.10 USD a batch",
    });
  });
  it("never make a number of what is not known", () => {
    const empty = judged({
      dough: dough({ state: null, saturation: null, saturation_band: null }),
      fizz: {
        co2_l: null,
        co2_piece_l: null,
        base_to_acid: null,
        limiting: null,
        bicarbonate_left_g: null,
      },
      bath: { ph_fresh: null, ph_stepin: null, ph_soak: null, ph_aired: null },
      lather: {
        active_g: null,
        active_piece_g: null,
        score: null,
        score_band: null,
        foam_l: null,
        height_cm: null,
        character: null,
        half_life_min: null,
      },
      firmness: { at_20_c: null, at_30_c: null },
      release: { minutes: null },
      drying: { hours: null, low_hours: null, high_hours: null, dries: null, reason: null },
      feel: {
        oil_g: null,
        richness: null,
        free_oil_g: null,
        ring: null,
        slip: null,
        tint: null,
        cloud: null,
      },
      skin: { harshness_mg_l: null, scent_share: null },
      cost: { currency: "USD", batch: null, piece: null, bath: null, basis: "reference" },
    });
    expect(Object.values(answers(empty))).toEqual([
      "Nothing in the bowl yet",
      "Nothing to set yet",
      "Nothing to foam yet",
      "Nothing to fizz yet",
      "Not known yet",
      "Not known yet",
      "No price yet",
    ]);
    const shown = asked(empty).flatMap((each) => each.readings.map((reading) => reading.shown));
    expect(shown.some((text) => /NaN|null|undefined|Infinity/.test(text))).toBe(false);
    expect(asked(empty).some((each) => each.out)).toBe(false);
  });
  it("say plainly that there is no foam, no fizz, no oil", () => {
    const bare = judged({
      lather: { active_g: 0, active_piece_g: 0, score: 0, score_band: [0, 0], foam_l: 0, height_cm: 0 },
      fizz: { co2_l: 0, co2_piece_l: 0, base_to_acid: null, limiting: null, bicarbonate_left_g: 0 },
      feel: { oil_g: 0, richness: "none", free_oil_g: 0, ring: 0, slip: "none", tint: 0, cloud: 0 },
    });
    expect(answers(bare)).toMatchObject({
      foam: "No surfactant",
      fizz: "No",
      feel: "No oil to speak of",
    });
  });
  it("warn of a slippery floor before the oil is called rich", () => {
    const oily = (richness: string, slip: string) =>
      answers(judged({ feel: { oil_g: 7, richness, free_oil_g: 7, ring: 40, slip, tint: 0, cloud: 0 } }))
        .feel;
    expect([oily("little", "none"), oily("rich", "note"), oily("very-oily", "warn")]).toEqual([
      "A little oil",
      "Rich, mind the tub floor",
      "Very oily, slippery tub",
    ]);
  });
  it("ask for a hand where the bath is sour or sharp, by step-in and soak alone", () => {
    const bath = (ph_stepin: number, ph_soak: number, ph_aired = 8) =>
      asked(judged({ bath: { ph_fresh: ph_stepin, ph_stepin, ph_soak, ph_aired } })).find(
        (each) => each.id === "kind",
      );
    expect(bath(5.2, 6)).toMatchObject({ answer: "pH 0.3 under 5.5", out: true });
    expect(bath(8.9, 8.9)).toMatchObject({ answer: "pH 0.4 over 8.5", out: true });
    expect(bath(7, 7, 9.4)?.out).toBe(false);
  });
  it("say of a scent without a certificate that it is not known", () => {
    const unknown = judged({ skin: { harshness_mg_l: 7, scent_share: null } });
    expect(answers(unknown).kind).toBe("pH 7.5, scent not known");
    const strip = asked(unknown)
      .flatMap((each) => each.readings)
      .find((reading) => reading.id === "skin.scent_share");
    expect(strip).toMatchObject({ shown: "not known", out: false, unit: "" });
  });
  it("give the reason where it never dries", () => {
    const damp = { hours: null, low_hours: null, high_hours: null, dries: false, reason: "stays sticky" };
    const [, set] = asked(judged({ drying: damp }));
    expect(set).toMatchObject({ answer: "Stays sticky", out: true });
  });
});

describe("whether it holds", () => {
  const answer = (patch: Record<string, unknown>) => doughAnswer(judged({ dough: dough(patch) }));
  it("says how far a dough is from its lane", () => {
    expect(answer({ state: "sticky", saturation: 1.1 })).toEqual({ answer: "sticky, 0.15 over", out: true });
    expect(answer({ state: "crumbly dough", saturation: 0.5 })).toEqual({
      answer: "crumbly dough, 0.15 short",
      out: true,
    });
  });
  it("lets the edges of the wanted state pass with a word", () => {
    expect(answer({ saturation: 0.63 })).toEqual({ answer: "Just, at the dry end", out: false });
    expect(answer({ saturation: 0.99 })).toEqual({ answer: "Just, at the wet end", out: false });
  });
  it("wants a truffle set when cold", () => {
    const wanted = {
      states: ["batter"],
      saturation_low: 1.3,
      saturation_from: 1.3,
      saturation_high: 2.2,
      state_when_cold: "set",
    };
    const hot = { state: "batter", saturation: 1.8, wanted };
    const cold = (state: string) => ({ ...hot, when_cold: { temperature_c: 21, saturation: 0.5, state } });
    expect(answer(cold("set"))).toEqual({ answer: "Yes, and sets", out: false });
    expect(answer(cold("sticky"))).toEqual({ answer: "Does not set at 21 °C", out: true });
  });
  it("opens the lane downwards where crumbly is right too", () => {
    const crumbly = {
      states: ["play dough", "crumbly dough"],
      saturation_low: 0.65,
      saturation_from: 0.28,
      saturation_high: 0.95,
      state_when_cold: null,
    };
    expect(wantedBand(judged({ dough: dough({ wanted: crumbly }) }))).toEqual({ low: 0.28, high: 0.95 });
  });
  it("has no lane where the method has none", () => {
    const free = {
      states: ["pour"],
      saturation_low: null,
      saturation_from: null,
      saturation_high: null,
      state_when_cold: null,
    };
    expect(wantedBand(judged({ dough: dough({ wanted: free }) }))).toBeUndefined();
  });
});

describe("a reading that was only declared", () => {
  it("gets its strip under its question, with its own scale", () => {
    const registry = new Map([
      ...REGISTRY,
      declared("dough.powder_share", "hold", { desk: 2, scale_low: 0, scale_high: 1, decimals: 2 }),
    ]);
    const all = judged({ further: { "dough.powder_share": 0.8 } });
    const hold = questions(all, all, registry).find((each) => each.id === "hold");
    expect(hold?.readings.at(-1)).toMatchObject({
      id: "dough.powder_share",
      shown: "0.80",
      scale: { min: 0, max: 1 },
    });
  });
});

describe("bands of a profile", () => {
  const profile = (...bands: { reading: string; low: number | null; high: number | null }[]) =>
    ({ bands }) as unknown as Profile;
  const laid = (all: Evaluation, of: Profile | undefined) =>
    withBands(asked(all), all, all, bandsOf(of, REGISTRY), REGISTRY);
  it("stand beside the bands of every bath, and over them where they name the same", () => {
    expect(bandsOf(undefined, REGISTRY).map((band) => band.reading)).toEqual([
      "feel.ring",
      "bath.ph_stepin",
      "bath.ph_soak",
    ]);
    const own = bandsOf(profile({ reading: "feel.ring", low: null, high: 10 }), REGISTRY);
    expect(own.filter((band) => band.reading === "feel.ring")).toEqual([
      { reading: "feel.ring", low: null, high: 10 },
    ]);
  });
  it("say in one sentence what is wrong", () => {
    const wished = profile({ reading: "lather.score", low: 65, high: 85 });
    const foam = laid(judged(), wished).find((each) => each.id === "foam");
    expect(foam).toMatchObject({ out: true, answer: "Foam score: 10 under 65" });
    const [strip] = foam?.readings ?? [];
    expect(strip && missWords(strip)).toBe("Foam score: 10 under 65");
  });
  it("are silent where all is as wanted", () => {
    const wished = profile({ reading: "lather.score", low: 45, high: 70 });
    expect(laid(judged(), wished).some((each) => each.out)).toBe(false);
  });
  it("give a strip of its own to a reading that no question shows", () => {
    const wished = profile({ reading: "firmness.at_30_c", low: 50, high: null });
    const set = laid(judged(), wished).find((each) => each.id === "set");
    expect(set?.readings.map((reading) => reading.id)).toContain("firmness.at_30_c");
  });
  it("leave an unknown reading out of the lane, never in it", () => {
    const wished = profile({ reading: "lather.score", low: 65, high: 85 });
    const nothing = { active_g: null, active_piece_g: null, score: null, score_band: null };
    const foam = laid(judged({ lather: nothing }), wished).find((each) => each.id === "foam");
    expect(foam?.readings[0]).toMatchObject({ out: false, shown: "–" });
    expect(foam?.readings[0] && missWords(foam.readings[0])).toBe("not known");
  });
  it("stretch the paper past what is wanted", () => {
    const wished = profile({ reading: "feel.oil_g", low: 0, high: 40 });
    const feel = laid(judged(), wished).find((each) => each.id === "feel");
    const scale = feel?.readings.find((reading) => reading.id === "feel.oil_g")?.scale;
    expect(scale?.max).toBeGreaterThan(40);
    expect(scale?.min).toBeLessThan(0);
  });
});

describe("paths into the result", () => {
  it("find numbers, also those that are money as text", () => {
    expect(valueAt(judged(), "lather.score")).toBe(55);
    expect(valueAt(judged(), "cost.piece")).toBe(0.31);
  });
  it("find nothing where nothing is", () => {
    for (const path of ["lather.nonsense", "nonsense.score", "dough.state", "skin", ""])
      expect(valueAt(judged(), path)).toBeNull();
  });
  it("find a declared reading that has no key of its own", () => {
    expect(valueAt(judged({ further: { "dough.powder_share": 0.8 } }), "dough.powder_share")).toBe(0.8);
  });
});
