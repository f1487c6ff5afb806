import { useMemo } from "react";
import type { Batch, IngredientSummary, Reference } from "../../api";
import { markOf } from "../../lib/grains";
import { Bowl, type BowlLayer, bowlSentence } from "../../ui";

const MOST_HAIRS = 100;

export const WET = new Set(["wave", "lens", "level", "brick", "double", "mist", "drop"]);

/** What is in the bowl so far, and what is pouring in: one hair is one gram. */
export function BenchBowl({
  batch,
  ingredients,
  reference,
  pouring,
  missing,
  wet,
}: {
  batch: Batch;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  reference: Reference;
  /** Grams on the scale for the line in hand, and grams still to come. */
  pouring: number;
  missing: number;
  wet: boolean;
}) {
  const layers = useMemo(() => {
    const found: BowlLayer[] = [];
    for (const line of batch.so_far.lines) {
      const item = ingredients.get(line.ingredient);
      if (!item || !line.heaped_ml || line.mass_g <= 0) continue;
      const mark = markOf(item);
      if (!WET.has(mark))
        found.push({ key: String(line.index), name: item.short_name, ml: line.heaped_ml, mark });
    }
    return found;
  }, [batch.so_far, ingredients]);
  const part = batch.so_far.dough ? batch.so_far : batch.so_far.portions[0];
  const dough = layers.length > 0 ? (part?.dough ?? null) : null;
  // Hairs are cut off evenly where a line is heavier than the drawing can hold.
  const share = Math.min(1, MOST_HAIRS / Math.max(1, pouring + missing));
  const hairs = Math.round(pouring * share);
  const coming = Math.round(missing * share);
  const pitch = Math.min(1.5, 110 / Math.max(1, hairs + coming));
  return (
    <svg
      viewBox="0 0 560 520"
      className="h-full max-h-[520px] w-full"
      role="img"
      aria-label={bowlSentence(dough?.saturation ?? null, dough?.state ?? null, dough?.wanted.states ?? [])}
    >
      <Bowl
        seed={`batch${batch.id}`}
        cx={290}
        rimY={170}
        radius={250}
        depth={290}
        layers={layers}
        saturation={batch.so_far.mass_g > 0 ? dough?.saturation || null : 0}
        state={dough?.state ?? null}
        zones={reference.states}
        wanted={[dough?.wanted.saturation_from ?? null, dough?.wanted.saturation_high ?? null]}
      >
        <g fill="none" strokeWidth="1">
          {Array.from({ length: hairs + coming }, (_, index) => (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: hairs have no other name
              key={index}
              d={`M0 ${128 - index * pitch}Q120 ${112 - index * pitch} ${150 + index * 1.1} 262`}
              stroke={index < hairs ? (wet ? "var(--vline)" : "var(--ink)") : "var(--rosy)"}
              strokeDasharray={index < hairs ? undefined : "5 4"}
            />
          ))}
        </g>
      </Bowl>
    </svg>
  );
}
