import { useState } from "react";
import type { TubTestSave } from "../../api";
import { sayMass } from "../../lib/numbers";
import { fromShown, massUnit, readTyped, temperatureUnit, typedOf } from "../../lib/units";
import { NumberInput, WaterOptions } from "../../ui";

/** Baths of most homes: litres and surface; a bucket counts as well, with a thirtieth of the dose. */
const BATHS = [
  { id: "standard", words: "a usual bath", tub_l: 150, tub_area_m2: 0.8 },
  { id: "small", words: "a small or half-full bath", tub_l: 90, tub_area_m2: 0.65 },
  { id: "bucket", words: "a bucket, poured from 1 m", tub_l: 5, tub_area_m2: 0.05 },
] as const;
const WAYS = {
  crumbled: "crumbled under the tap",
  held: "held, or in a strainer",
  whole: "whole",
} as const;

interface Typed {
  dose: string;
  bath: (typeof BATHS)[number]["id"];
  celsius: string;
  water: string;
  way: keyof typeof WAYS;
}

type Bath = Pick<TubTestSave, "dose_g" | "bath_c" | "tub_l" | "tub_area_m2" | "hardness" | "way">;

/** One bath as it is typed, and as it is asked for: what is wrong with it comes back as a sentence. */
export function useBath() {
  const [typed, setTyped] = useState<Typed>({
    dose: massUnit() === "g" ? "25" : "1",
    bath: "standard",
    celsius: typedOf(temperatureUnit() === "°C" ? 38 : fromShown(100, "°C"), "°C"),
    water: "moderate",
    way: "crumbled",
  });
  const read = (): Bath | string => {
    const [dose_g, bath_c] = [readTyped(typed.dose, "g"), readTyped(typed.celsius, "°C")];
    if (dose_g === null || !(dose_g > 0)) return "How much goes into the bath?";
    if (bath_c === null || !(bath_c >= 5 && bath_c <= 60))
      return `How warm is the bath, in ${temperatureUnit()}?`;
    const { tub_l, tub_area_m2 } = BATHS.find((each) => each.id === typed.bath) ?? BATHS[0];
    return { dose_g, bath_c, tub_l, tub_area_m2, hardness: typed.water, way: typed.way };
  };
  return { typed, put: (some: Partial<Typed>) => setTyped((before) => ({ ...before, ...some })), read };
}

/** Dose, way, tub, warmth and water, in one sentence. */
export function BathFields({ bath }: { bath: ReturnType<typeof useBath> }) {
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <label>
          <NumberInput
            className="w-20 text-center"
            value={bath.typed.dose}
            onChange={(event) => bath.put({ dose: event.target.value })}
          />{" "}
          {massUnit()},
        </label>
        <label>
          <span className="sr-only">Way</span>
          <select
            className="written text-row"
            value={bath.typed.way}
            onChange={(event) => bath.put({ way: event.target.value as Typed["way"] })}
          >
            {Object.entries(WAYS).map(([way, words]) => (
              <option key={way} value={way}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          into{" "}
          <select
            className="written text-row"
            value={bath.typed.bath}
            onChange={(event) => bath.put({ bath: event.target.value as Typed["bath"] })}
          >
            {BATHS.map((each) => (
              <option key={each.id} value={each.id}>
                {each.words}, {each.tub_l} L
              </option>
            ))}
          </select>
        </label>
        <label>
          of{" "}
          <NumberInput
            className="w-14 text-center"
            value={bath.typed.celsius}
            onChange={(event) => bath.put({ celsius: event.target.value })}
          />{" "}
          {temperatureUnit()},
        </label>
        <label>
          <span className="sr-only">Water</span>
          <select
            className="written text-row"
            value={bath.typed.water}
            onChange={(event) => bath.put({ water: event.target.value })}
          >
            <WaterOptions />
          </select>
        </label>
      </div>
      {bath.typed.bath === "bucket" && (
        <p className="text-body text-soft">
          A bucket takes a thirtieth of the dose: what is {sayMass(25)} in a bath is {sayMass(0.8)} in it.
        </p>
      )}
    </>
  );
}
