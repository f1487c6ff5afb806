import { useState } from "react";
import type { Devices } from "../../api";
import { type DrawerAct, openDrawer } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { NumberInput } from "../../ui";

/** The drawer of the stand-in devices, where the studio has them: pour, heat, cool, breathe, unplug. */
export function DeviceDrawer({ devices }: { devices: Devices }) {
  const [open, setOpen] = useState(false);
  const standIns = [devices.scale, devices.thermometer, devices.hygrometer].some(
    (reading) => reading?.source === "stand-in",
  );
  const [mass, setMass] = useState("10");
  const does = (act: Pick<DrawerAct, "act"> & Partial<DrawerAct>) => () =>
    void openDrawer(act).catch(() => undefined);
  const poured = readDecimal(mass) ?? Number.NaN;
  if (devices.live && !standIns) return null;
  const key = "min-h-12 border-b border-ink px-3 text-bench-key disabled:text-soft";
  return (
    <section aria-label="Stand-in devices" className="border-t border-ink">
      <button
        type="button"
        className="min-h-12 px-2 text-bench-key italic text-soft"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {devices.live ? "Stand-in devices: they measure nothing" : "Devices are not heard"}
      </button>
      {open && (
        <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1 pb-2 text-bench-key">
          <label>
            <span className="sr-only">Grams to pour</span>
            <NumberInput
              aria-label="Grams to pour"
              className="h-12 w-24 text-center text-bench-note"
              value={mass}
              onChange={(event) => setMass(event.target.value)}
            />{" "}
            g
          </label>
          <button
            type="button"
            className={key}
            disabled={!Number.isFinite(poured)}
            onClick={does({ act: "pour", value: poured })}
          >
            Pour
          </button>
          <button
            type="button"
            className={key}
            disabled={!Number.isFinite(poured)}
            onClick={does({ act: "pour", value: poured, seconds: 4 })}
          >
            Pour slowly
          </button>
          <button
            type="button"
            className={key}
            disabled={!Number.isFinite(poured)}
            onClick={does({ act: "pour", value: -poured })}
          >
            Take out
          </button>
          <button type="button" className={key} onClick={does({ act: "clear" })}>
            Clear the pan
          </button>
          <button type="button" className={key} onClick={does({ act: "heat", value: 600, seconds: 120 })}>
            Heat
          </button>
          <button type="button" className={key} onClick={does({ act: "cool", value: 200, seconds: 120 })}>
            Cool
          </button>
          <button type="button" className={key} onClick={does({ act: "breathe", device: "hygrometer" })}>
            Breathe on it
          </button>
          {(["scale", "thermometer", "hygrometer"] as const).map((device) => {
            const out = devices[device]?.fault === "unplugged";
            return (
              <button
                key={device}
                type="button"
                className={key}
                onClick={does({ act: out ? "plug" : "unplug", device })}
              >
                {out ? `Plug the ${device} in` : `Unplug the ${device}`}
              </button>
            );
          })}
        </div>
      )}
    </section>
  );
}
