import { useRef, useState } from "react";
import { type TubTestSave, useSettings, useUsual } from "../../api";
import { figure, sayMass } from "../../lib/numbers";
import { AskedOnce } from "../../lib/plausible";
import { massUnit, readTyped, temperatureUnit, typedOf } from "../../lib/units";
import { NumberInput, WaterOptions } from "../../ui";

const WAYS = {
  crumbled: "crumbled under the tap",
  held: "held, or in a strainer",
  whole: "whole",
} as const;

/** What a bath is usually given, asked about beyond twice and under half of it [g]. */
const USUAL_DOSE_G = 40;
/** Less than this is no tub to lie in [L]. */
const BUCKET_L = 20;

interface Typed {
  dose: string;
  /** Which of the kept tubs; the first until another is chosen. */
  tub: number;
  /** Null until another warmth than the usual one is typed. */
  celsius: string | null;
  water: string;
  way: keyof typeof WAYS;
}

type Bath = Pick<TubTestSave, "dose_g" | "bath_c" | "tub_l" | "tub_area_m2" | "hardness" | "way">;

/** One bath as it is typed, and as it is asked for: what is wrong with it comes back as a sentence. */
export function useBath() {
  const [typed, setTyped] = useState<Typed>({
    dose: massUnit() === "g" ? "25" : "1",
    tub: 0,
    celsius: null,
    water: "moderate",
    way: "crumbled",
  });
  const asked = useRef(new AskedOnce());
  const tubs = useSettings().data?.tubs ?? [];
  const usual_c = useUsual()?.use.bath_c;
  const celsius = typed.celsius ?? (usual_c === undefined ? "" : typedOf(usual_c, "°C"));
  const read = (): Bath | string => {
    const [dose_g, bath_c] = [readTyped(typed.dose, "g"), readTyped(celsius, "°C")];
    if (dose_g === null || !(dose_g > 0)) return "How much goes into the bath?";
    const doubt = asked.current.about(dose_g, USUAL_DOSE_G, "g");
    if (doubt) return doubt;
    if (bath_c === null || !(bath_c >= 5 && bath_c <= 60))
      return `How warm is the bath, in ${temperatureUnit()}?`;
    const tub = tubs[typed.tub];
    if (!tub) return "Into which tub? The workshop's page keeps them.";
    const { tub_l, tub_area_m2 } = tub;
    return { dose_g, bath_c, tub_l, tub_area_m2, hardness: typed.water, way: typed.way };
  };
  return {
    typed: { ...typed, celsius },
    tubs,
    put: (some: Partial<Typed>) => setTyped((before) => ({ ...before, ...some })),
    read,
  };
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
            value={bath.typed.tub}
            onChange={(event) => bath.put({ tub: Number(event.target.value) })}
          >
            {bath.tubs.map((each, index) => (
              <option key={each.name} value={index}>
                {each.name}, {figure(each.tub_l)} L
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
      {(bath.tubs[bath.typed.tub]?.tub_l ?? BUCKET_L) < BUCKET_L && (
        <p className="text-body text-soft">
          A bucket takes a thirtieth of the dose: what is {sayMass(25)} in a bath is {sayMass(0.8)} in it.
        </p>
      )}
    </>
  );
}
