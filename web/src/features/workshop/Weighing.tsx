import type { Settings } from "../../api";
import { unitShown } from "../../lib/units";
import { KeptNumber } from "../../ui";
import type { Change } from "./useWorkshop";

/** How closely is weighed, and what one stroke of the sprayer gives. */
export function Weighing({ said, change }: { said: Settings; change: Change }) {
  const { tolerance } = said;
  return (
    <section aria-label="Scale and sprayer" className="text-row">
      <h2 className="text-label italic text-soft">Scale and sprayer</h2>
      <p className="leading-10">
        At the bench a weighing may be off by{" "}
        <KeptNumber
          label="Tolerance in per cent"
          value={Number((100 * tolerance.share).toPrecision(6))}
          least={0.1}
          most={10}
          empty={false}
          className="w-14 text-center"
          onKeep={(pct) =>
            void change((now) => ({
              tolerance: { ...tolerance, ...now.tolerance, share: Number(pct) / 100 },
            }))
          }
        />{" "}
        %, and always by{" "}
        <KeptNumber
          label="Tolerance that is always allowed"
          unit="g"
          value={tolerance.least_g}
          least={0.01}
          most={50}
          empty={false}
          className="w-16 text-center"
          onKeep={(least_g) =>
            void change((now) => ({
              tolerance: { ...tolerance, ...now.tolerance, least_g: Number(least_g) },
            }))
          }
        />{" "}
        {unitShown("g")}; a batch that is begun keeps its own.
      </p>
      <p className="leading-10">
        One stroke of the sprayer gives{" "}
        <KeptNumber
          label="One stroke of the sprayer"
          unit="mL"
          value={said.spray_ml ?? null}
          least={0.02}
          most={5}
          placeholder="usual"
          className="w-20 text-center"
          onKeep={(spray_ml) => void change({ spray_ml })}
        />{" "}
        {unitShown("mL")}; twenty strokes on the scale tell.
      </p>
    </section>
  );
}
