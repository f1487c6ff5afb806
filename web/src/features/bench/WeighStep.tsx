import { useEffect, useRef, useState } from "react";
import { findWaysOut, messageOf, type RescueOption, zeroScale } from "../../api";
import { benchFigure, figure, sayBenchMass, sayMass } from "../../lib/numbers";
import { inUnits, massUnit } from "../../lib/units";
import { useNotice } from "../../ui";
import { BenchStrip } from "./BenchStrip";
import { useJars, WhichJar } from "./jars";
import { LotLine } from "./LotLine";
import { Back, HoldPress, Press, StandIn, TypedFigure } from "./parts";
import type { StepProps } from "./step";

type Source = "scale" | "hand" | "stand-in";

/** Less than this on the scale is nothing that could be kept [g]. */
const LEAST_KEPT_G = 0.05;
const STILL_READINGS = 4; // a third of a second of stillness, seen again and again

/** Weigh one line: by itself once the reading is still and within tolerance, or by one press. */
export function WeighStep({ batch, step, devices, act, onBack, onSkip }: StepProps) {
  const target = step.target_g ?? 0;
  const tolerance = step.tolerance_g ?? 0.5;
  const scale = devices.scale;
  const value = devices.live && scale && !scale.fault ? scale.value : null;
  const still = value !== null && (scale?.stable ?? false);
  const within = value !== null && Math.abs(value - target) <= tolerance;
  const over = value !== null && value - target > tolerance;
  const [byHand, setByHand] = useState(false);
  const [ways, setWays] = useState<RescueOption[]>();
  const [reckoning, setReckoning] = useState(false);
  const seen = useRef(0);
  // What lies on the scale from the line before is not this line: it has to have been lighter first.
  const armed = useRef(false);
  const say = useNotice();

  const jars = useJars(batch, step.ingredient);
  const [short, setShort] = useState<{ actual_g: number; source: Source } | null>(null);
  const source: Source = scale?.source === "stand-in" ? "stand-in" : "scale";

  const keep = async (actual_g: number, by: Source) => {
    if (short === null && jars.isShort(actual_g)) return setShort({ actual_g, source: by });
    setShort(null);
    await act({ kind: "weighed", step: step.key, actual_g, source: by });
  };
  const keepNow = useRef(keep);
  keepNow.current = keep;
  // biome-ignore lint/correctness/useExhaustiveDependencies: every reading counts, even one of the same value
  useEffect(() => {
    if (value !== null && value < target - tolerance) armed.current = true;
    seen.current = armed.current && still && within ? seen.current + 1 : 0;
    if (seen.current < STILL_READINGS || value === null) return;
    seen.current = 0;
    void keepNow.current(value, source);
  }, [scale]);

  const askWays = async () => {
    if (value === null) return;
    setReckoning(true);
    try {
      setWays(await findWaysOut(batch.id, value));
    } catch (error) {
      say(messageOf(error), { asks: true });
    } finally {
      setReckoning(false);
    }
  };
  const onWay = async (way: RescueOption) => {
    setWays(undefined);
    if (value === null) return;
    await act({
      kind: "rescued",
      step: step.key,
      actual_g: value,
      way: way.way as "keep",
      source,
    });
  };

  if (short && step.ingredient)
    return (
      <WhichJar
        jars={jars}
        actual_g={short.actual_g}
        onJar={async (code, mass_g) => {
          const ingredient = step.ingredient ?? "";
          if (code !== null && !(await act({ kind: "lot", ingredient, code, mass_g }))) return;
          await keep(short.actual_g, short.source);
        }}
        onBack={() => setShort(null)}
      />
    );
  if (value === null || byHand)
    return (
      <div className="flex flex-col gap-4">
        <p className="text-bench-target font-medium leading-none">
          {benchFigure(target)} <span className="text-bench-unit">{massUnit()}</span>
        </p>
        <p className="text-state text-soft">
          {value === null
            ? `The scale ${scale?.fault === "overload" ? "has too much on it" : "is not heard"}: weigh it on another one and type what it shows.`
            : "Type what the other scale shows."}
        </p>
        {step.ingredient && <LotLine batch={batch} ingredient={step.ingredient} act={act} />}
        <TypedFigure
          label="Weighed, in grams"
          unit="g"
          meant={target}
          onGive={(typed) => void keep(typed, "hand")}
        />
        <div className="flex gap-3">
          <Back onBack={onBack} wide />
          <Press onClick={onSkip}>Leave it out…</Press>
          {value !== null && <Press onClick={() => setByHand(false)}>Use the scale</Press>}
        </div>
      </div>
    );
  const togo = target - value;
  return (
    <div className="flex flex-col gap-3">
      <p
        className="whitespace-nowrap text-[min(220px,26vh,15vw)] font-medium leading-[0.95]"
        data-reading="scale"
        data-at={scale?.at_ms}
      >
        {benchFigure(value)} <span className="text-bench-unit-large">{massUnit()}</span>
      </p>
      <BenchStrip value={value} target={target} tolerance={tolerance} />
      {step.ingredient && <LotLine batch={batch} ingredient={step.ingredient} act={act} />}
      <div className="flex items-baseline justify-between gap-6">
        <p className={`text-bench-step font-semibold leading-none ${within ? "text-verd" : "text-rosy"}`}>
          {within ? "right" : benchFigure(Math.abs(togo))}
          {!within && (
            <span className="pl-3 text-bench-line font-medium">
              {massUnit()} {togo > 0 ? "to go" : "too much"}
            </span>
          )}
        </p>
        <p className="text-right text-bench-note">
          by itself, inside ± {sayBenchMass(tolerance)}
          {scale?.source === "stand-in" && <br />}
          <StandIn reading={scale} />
        </p>
      </div>
      {ways ? (
        <Ways ways={ways} onWay={(way) => void onWay(way)} />
      ) : (
        <div className="flex gap-3">
          <Back onBack={onBack} />
          <Press onClick={() => void zeroScale()}>Zero scale</Press>
          {over ? (
            <Press next onClick={() => void askWays()} disabled={reckoning || !still}>
              {reckoning ? "Reckoning…" : still ? "What now?" : "Settling…"}
            </Press>
          ) : within ? (
            <Press next onClick={() => void keep(value, source)}>
              Keep {benchFigure(value)}
            </Press>
          ) : (
            value >= LEAST_KEPT_G && (
              <HoldPress onHeld={() => void keep(value, source)}>Hold to keep {benchFigure(value)}</HoldPress>
            )
          )}
        </div>
      )}
      <p className="flex gap-3">
        <button type="button" className="min-h-12 border-b border-ink px-2 text-bench-key" onClick={onSkip}>
          Leave it out…
        </button>
        <button
          type="button"
          className="min-h-12 border-b border-ink px-2 text-bench-key"
          onClick={() => setByHand(true)}
        >
          Type it instead
        </button>
      </p>
    </div>
  );
}

function Ways({ ways, onWay }: { ways: readonly RescueOption[]; onWay: (way: RescueOption) => void }) {
  return (
    <ul aria-label="Ways out" className="flex max-h-[46vh] flex-col gap-2 overflow-y-auto">
      {ways.map((way) => (
        <li key={way.way}>
          <button
            type="button"
            disabled={way.why_not !== ""}
            className="min-h-[88px] w-full border-t-2 border-ink bg-lit px-4 py-2 text-left text-bench-note font-semibold disabled:text-soft"
            onClick={() => onWay(way)}
          >
            {inUnits(way.text)}
            <span className="block text-bench-key font-medium text-soft">
              {way.why_not
                ? `Not possible: ${way.why_not}.`
                : way.effects
                    .filter(
                      (effect) => effect.after !== null && figure(effect.before) !== figure(effect.after),
                    )
                    .slice(0, 3)
                    .map(
                      (effect) => `${effect.label} ${figure(effect.before)} to ${figure(effect.after ?? 0)}`,
                    )
                    .join(", ") || `the bowl comes to ${sayMass(way.batch_g)}`}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
