import { useState } from "react";
import { useAirTyped } from "../../api";
import { sayTemperature } from "../../lib/numbers";
import { readTyped, temperatureUnit, typedOf } from "../../lib/units";
import { NumberInput, WaterOptions } from "../../ui";
import { Words } from "./DoStep";
import { Press, StandIn, TypedFigure } from "./parts";
import type { StepProps } from "./step";

/** Room, humidity and tap, read or typed; what is neither is left out of the record. */
export function ConditionsStep({ batch, step, devices, act }: StepProps) {
  const reading = devices.live && devices.hygrometer && !devices.hygrometer.fault ? devices.hygrometer : null;
  const [typed, setTyped] = useState<number>();
  const [room, setRoom] = useState("");
  const [tap, setTap] = useState("");
  const before = useAirTyped();
  const humidity = typed ?? reading?.value ?? null;
  const celsius = readTyped(room, "°C");
  const source =
    typed !== undefined || !reading ? "hand" : reading.source === "stand-in" ? "stand-in" : "hygrometer";
  const nothing = humidity === null && celsius === null;
  const take = () =>
    void act({
      kind: "conditions",
      step: step.key,
      tap,
      source,
      ...(celsius === null ? {} : { room_c: celsius }),
      ...(humidity === null ? {} : { humidity_pct: humidity }),
    });
  const last = before.data;
  return (
    <div className="flex flex-col gap-3">
      <Words text={step.text} caution={step.caution} />
      <p className="text-[min(88px,11vh)] font-medium leading-none">
        {humidity === null ? "–" : Math.round(humidity)} <span className="text-bench-unit">% RH</span>{" "}
        {typed === undefined && <StandIn reading={reading} />}
      </p>
      {humidity !== null && step.gate_rh_pct !== null && humidity > step.gate_rh_pct && (
        <p className="text-state font-semibold text-rosy">
          Too damp for this work: run the dehumidifier first, or plan a closed cure.
        </p>
      )}
      {reading?.source !== "device" && (
        <TypedFigure label="Humidity in per cent" unit="% RH" word="Take it" onGive={setTyped} />
      )}
      <div className="flex flex-wrap gap-6 text-state">
        <label>
          Room{" "}
          <NumberInput
            aria-label="Room in degrees Celsius"
            className="h-14 w-24 text-center text-bench-line font-semibold"
            placeholder="read it"
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
            onChange={(event) => setTap(event.target.value)}
          >
            <option value="">not said</option>
            <WaterOptions />
          </select>
        </label>
      </div>
      <p className="text-bench-key text-soft">
        Planned for {sayTemperature(batch.planned.room.temperature_c)} and {batch.planned.room.humidity_pct} %
        RH.
      </p>
      <div className="flex gap-3">
        {typed === undefined && last?.humidity_pct != null && last.at && (
          <Press
            onClick={() => {
              setTyped(last.humidity_pct ?? undefined);
              if (last.room_c != null) setRoom(typedOf(last.room_c, "°C"));
            }}
          >
            As typed on {dayOf(last.at)}: {Math.round(last.humidity_pct)} % RH
            {last.room_c != null && ` at ${sayTemperature(last.room_c)}`}
          </Press>
        )}
        <Press next disabled={celsius !== null && !Number.isFinite(celsius)} onClick={take}>
          {nothing
            ? "Go on without the air"
            : humidity === null
              ? "Go on without the humidity"
              : "That is the air"}
        </Press>
      </div>
    </div>
  );
}

const dayOf = (iso: string) => new Date(iso).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
