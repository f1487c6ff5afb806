import type { Batch, Devices } from "../../api";
import { sayTemperature, temperatureFigure } from "../../lib/numbers";
import { type Alarm, useAlarm } from "./alarm";

const AFTER = new Set(["feel", "split", "shape", "decorate"]);

/** While a warm dough is judged, split and shaped, its window goes on closing: said, and heard at the edge. */
export function WindowLine({ batch, devices }: { batch: Batch; devices: Devices }) {
  const { steps, current } = batch.state;
  const step = current === null ? null : steps[current];
  const at = steps.findIndex((each) => each.key === "window");
  const window = at >= 0 && current !== null && at < current ? steps[at] : undefined;
  const reading = devices.thermometer;
  const heard = devices.live && reading && !reading.fault ? reading.value : null;
  const value = step && window && AFTER.has(step.kind) ? heard : null;
  const low = window?.low_c ?? 0;
  const high = window?.high_c ?? 0;
  const out = value === null ? null : value < low ? "cold" : value >= high ? "hot" : null;
  useAlarm(value === null ? null : ((out ? "leaving" : "reached") satisfies Alarm));
  if (value === null) return null;
  return (
    <p
      role={out ? "alert" : undefined}
      className={`text-bench-note ${out ? "font-bold text-rosy" : "font-medium text-verd"}`}
    >
      {sayTemperature(value, 1)},{" "}
      {out === "cold"
        ? `under its window of ${temperatureFigure(low)} to ${sayTemperature(high)}: seconds of warmth`
        : out === "hot"
          ? `over its window of ${temperatureFigure(low)} to ${sayTemperature(high)}: let it cool`
          : `inside its window of ${temperatureFigure(low)} to ${sayTemperature(high)}`}
    </p>
  );
}
