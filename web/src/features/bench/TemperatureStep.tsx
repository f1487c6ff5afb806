import { useEffect, useRef } from "react";
import { temperatureFigure } from "../../lib/numbers";
import { inUnits, temperatureUnit } from "../../lib/units";
import { useAlarm } from "./alarm";
import { Words } from "./DoStep";
import { Back, Press, StandIn, TypedFigure } from "./parts";
import type { StepProps } from "./step";

const TAKE_EVERY_S = 120;

/** The thermometer against flash point and window; a reading is taken every two minutes by itself. */
export function TemperatureStep(props: StepProps) {
  const { batch, step, devices, act, onBack } = props;
  const reading = devices.thermometer;
  const value = devices.live && reading && !reading.fault ? reading.value : null;
  const source = reading?.source === "stand-in" ? "stand-in" : "thermometer";
  const low = step.low_c;
  const high = step.high_c;
  const verdict =
    value === null
      ? null
      : low !== null && value < low
        ? "too cold: warm it gently"
        : high !== null && value >= high
          ? "too hot: let it cool"
          : "right";
  // The edge is heard when it is crossed, not when the step begins on one side of it.
  useAlarm(value === null ? null : verdict === "right" ? "reached" : "leaving");
  const last = useRef(0);
  const taking = useRef(act);
  taking.current = act;
  useEffect(() => {
    const now = Date.now();
    if (value === null || now - last.current < (TAKE_EVERY_S * 1000) / batch.clock_rate) return;
    last.current = now;
    void taking.current({ kind: "temperature", step: step.key, value_c: value, source });
  }, [value, source, step.key, batch.clock_rate]);
  const watch = batch.watch;
  const right = verdict === "right" || (value === null && watch?.verdict === "work");
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      {value === null ? (
        <>
          <p className="text-state text-soft">The thermometer is not heard: measure and type.</p>
          <TypedFigure
            label="Temperature in degrees Celsius"
            unit="°C"
            word="Take it"
            onGive={(typed) =>
              void act({ kind: "temperature", step: step.key, value_c: typed, source: "hand" })
            }
          />
        </>
      ) : (
        <p
          className="whitespace-nowrap text-[min(180px,22vh,14vw)] font-medium leading-[0.95]"
          data-reading="thermometer"
        >
          {temperatureFigure(value, 1)} <span className="text-bench-unit-large">{temperatureUnit()}</span>{" "}
          <StandIn reading={reading} />
        </p>
      )}
      <TemperatureStrip value={value ?? watch?.temperature_c ?? null} low={low} high={high} />
      <p
        role="status"
        className={`min-h-[60px] text-bench-word font-semibold ${right ? "text-verd" : "text-rosy"}`}
      >
        {verdict ?? ""}
        {watch && watch.minutes !== null && (
          <span className="block text-bench-note font-medium text-ink">{inUnits(watch.sentence)}</span>
        )}
      </p>
      <div className="flex gap-3">
        <Back onBack={onBack} />
        <Press next={right} onClick={() => void act({ kind: "done", step: step.key })}>
          {right ? "Go on" : "Go on all the same"}
        </Press>
      </div>
    </div>
  );
}

function TemperatureStrip({
  value,
  low,
  high,
}: {
  value: number | null;
  low: number | null;
  high: number | null;
}) {
  const from = Math.min(15, (low ?? 20) - 10);
  const to = Math.max(60, (high ?? 50) + 15);
  const px = (celsius: number) => (620 * (Math.min(Math.max(celsius, from), to) - from)) / (to - from);
  return (
    <svg viewBox="0 0 620 70" className="block w-full" aria-hidden="true">
      <rect width="620" height="40" fill="var(--shade)" />
      <rect
        x={px(low ?? from)}
        width={px(high ?? to) - px(low ?? from)}
        height="40"
        fill="var(--lit)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      {value !== null && (
        <path d={`M${px(value)} -2q5 22 0 44`} stroke="var(--rosy)" strokeWidth="4" fill="none" />
      )}
      <g fontSize="20" fill="var(--ink)" textAnchor="middle">
        {low !== null && (
          <text x={px(low)} y="64">
            {temperatureFigure(low)}
          </text>
        )}
        {high !== null && (
          <text x={px(high)} y="64">
            {temperatureFigure(high)}
          </text>
        )}
      </g>
    </svg>
  );
}
