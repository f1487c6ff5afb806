import { useState } from "react";
import { readTyped, temperatureUnit, typedOf } from "../../lib/units";
import { NumberInput, WaterOptions } from "../../ui";
import { Words } from "./DoStep";
import { Press, TypedFigure } from "./parts";
import type { StepProps } from "./step";

/** Room, humidity and tap, read or typed. */
export function ConditionsStep({ batch, step, devices, act }: StepProps) {
  const heard =
    devices.live && devices.hygrometer && !devices.hygrometer.fault ? devices.hygrometer.value : null;
  const [typed, setTyped] = useState<number>();
  const [room, setRoom] = useState(() => typedOf(batch.planned.room.temperature_c, "°C"));
  const [tap, setTap] = useState(batch.planned.use.hardness);
  const humidity = typed ?? heard;
  const celsius = readTyped(room, "°C") ?? Number.NaN;
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      <p className="text-[min(104px,13vh)] font-medium leading-none">
        {humidity === null ? "–" : Math.round(humidity)} <span className="text-bench-unit">% RH</span>
      </p>
      {humidity !== null && step.gate_rh_pct !== null && humidity > step.gate_rh_pct && (
        <p className="text-state font-semibold text-rosy">
          Too damp for this work: run the dehumidifier first, or plan a closed cure.
        </p>
      )}
      {heard === null && (
        <TypedFigure label="Humidity in per cent" unit="% RH" word="Take it" onGive={setTyped} />
      )}
      <div className="flex flex-wrap gap-6 text-state">
        <label>
          Room{" "}
          <NumberInput
            aria-label="Room in degrees Celsius"
            className="h-14 w-20 text-center text-bench-line font-semibold"
            value={room}
            onChange={(event) => setRoom(event.target.value)}
          />{" "}
          {temperatureUnit()}
        </label>
        <label>
          Tap{" "}
          <select
            aria-label="Tap water"
            className="written h-14 min-w-24 text-bench-line font-semibold"
            value={tap}
            onChange={(event) => setTap(event.target.value as typeof tap)}
          >
            <WaterOptions />
          </select>
        </label>
      </div>
      <Press
        next
        disabled={!Number.isFinite(celsius)}
        onClick={() =>
          void act({ kind: "conditions", step: step.key, room_c: celsius, humidity_pct: humidity, tap })
        }
      >
        {humidity === null ? "Go on without the humidity" : "That is the air"}
      </Press>
    </div>
  );
}
