import { useRef } from "react";
import type { Batch, IngredientSummary } from "../../api";
import { sayBenchMass } from "../../lib/numbers";
import { DrawingTools } from "../../ui";

const WIDTH = 1180;
const ROW = 24;
const LEFT = 220;
const LANE = 210; // half width of the lane: one tolerance [px]
const REACH = 1.7; // tolerances either way that fit the paper

/** How near every weighing came: the lane is its tolerance, the front what was weighed. */
export function DeviationLine({
  batch,
  ingredients,
}: {
  batch: Batch;
  ingredients: ReadonlyMap<string, IngredientSummary>;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const rows = batch.state.steps
    .map((step, index) => ({ step, status: batch.state.status[index] }))
    .filter(({ step }) => step.kind === "weigh")
    .map(({ step, status }) => {
      const made = batch.state.weighings.find((weighing) => weighing.step === step.key);
      const off = made && step.tolerance_g ? (made.actual_g - made.target_g) / step.tolerance_g : null;
      const name = ingredients.get(step.ingredient ?? "")?.short_name ?? step.title;
      return { step, status, made, off, name };
    });
  const middle = LEFT + LANE * REACH;
  const out = rows.filter((row) => row.off !== null && Math.abs(row.off) > 1).length;
  const text = `${rows.filter((row) => row.made).length} of ${rows.length} lines weighed, ${out} outside their tolerance, ${rows.filter((row) => row.status === "skipped").length} left out.`;
  return (
    <figure className="pt-4">
      <svg
        ref={svg}
        role="img"
        aria-label={text}
        viewBox={`0 0 ${WIDTH} ${rows.length * ROW + 12}`}
        className="w-full"
      >
        <rect x={middle - LANE} y="0" width={2 * LANE} height={rows.length * ROW} fill="var(--lit)" />
        <path
          d={`M${middle} 0V${rows.length * ROW}M${middle - LANE} 0V${rows.length * ROW}M${middle + LANE} 0V${rows.length * ROW}`}
          stroke="var(--ink)"
          strokeWidth=".9"
        />
        {rows.map(({ step, status, made, off, name }, index) => {
          const y = index * ROW + ROW / 2;
          const bounded = off === null ? 0 : Math.max(-REACH, Math.min(REACH, off));
          const far = off !== null && Math.abs(off) > 1;
          const x = middle + bounded * LANE;
          return (
            <g key={step.key} fontSize="15" fill="var(--ink)">
              <text x="0" y={y + 5} fontWeight={far || status === "skipped" ? 700 : 500}>
                {name}
              </text>
              {made ? (
                <>
                  <path
                    d={`M${middle} ${y}H${x}`}
                    stroke={far ? "var(--rosy)" : "var(--vline)"}
                    strokeWidth="1.6"
                  />
                  <path
                    d={`M${x} ${y - 8}q3 8 0 16`}
                    stroke={far ? "var(--rosy)" : "var(--verd)"}
                    strokeWidth="2.4"
                    fill="none"
                  />
                  <text x={WIDTH} y={y + 5} textAnchor="end" fill={far ? "var(--rosy)" : "var(--ink)"}>
                    {sayBenchMass(made.actual_g)} for {sayBenchMass(made.target_g)}
                  </text>
                </>
              ) : (
                <text
                  x={WIDTH}
                  y={y + 5}
                  textAnchor="end"
                  fill={status === "skipped" ? "var(--rosy)" : "var(--soft)"}
                >
                  {status === "skipped" ? "left out" : "not weighed yet"}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <figcaption className="flex justify-between text-caption text-soft">
        <span className="italic">The lane is the tolerance of each line.</span>
        <DrawingTools
          name={`${batch.name}, batch ${batch.id}, weighings`}
          columns={["Line", "planned, g", "weighed, g", "tolerance, g", "by"]}
          rows={rows.map(({ step, made, name, status }) => [
            name,
            (made?.target_g ?? step.target_g ?? 0).toFixed(1),
            made ? made.actual_g.toFixed(1) : status === "skipped" ? "left out" : "",
            (step.tolerance_g ?? 0).toFixed(1),
            made?.source ?? "",
          ])}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}
