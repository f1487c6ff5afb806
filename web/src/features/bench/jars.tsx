import { type Batch, type Lot, useBatchLots } from "../../api";
import { sayBenchMass } from "../../lib/numbers";
import { Press } from "./parts";

/** The jars a line can be taken from: what was named, and what is only assumed. */
export interface Jars {
  lots: readonly Lot[];
  /** The jar in use: named, or the first to expire. */
  lot: Lot | null;
  /** Whether somebody has said that it is this one. */
  named: boolean;
  /** What the jars that were named hold together, or the one that is assumed [g]. */
  holds_g: number;
  /** Whether more was weighed than the jar holds, and there is another it may have come from. */
  isShort: (actual_g: number) => boolean;
}

export function useJars(batch: Batch, ingredient: string | null): Jars {
  const lots = useBatchLots(batch.id);
  const line = lots.data?.lines.find((each) => each.ingredient === ingredient);
  const all = line?.lots ?? [];
  const parts = (ingredient && batch.state.jars?.[ingredient]) || [];
  const id = parts.at(-1)?.lot_id;
  const lot = all.find((each) => each.id === id) ?? all[0] ?? null;
  const used = new Set(parts.map((part) => part.lot_id));
  const holds_g = all
    .filter((each) => (parts.length > 0 ? used.has(each.id) : each.id === lot?.id))
    .reduce((sum, each) => sum + Math.max(0, each.left_g), 0);
  const others = all.filter((each) => !used.has(each.id) && each.id !== lot?.id && each.left_g > 0);
  return {
    lots: all,
    lot,
    named: parts.length > 0,
    holds_g,
    isShort: (actual_g) => lot !== null && actual_g > holds_g && others.length > 0,
  };
}

/** More than the jar holds: which other jar did the rest come from? */
export function WhichJar({
  jars,
  actual_g,
  onJar,
  onBack,
}: {
  jars: Jars;
  actual_g: number;
  /** The jar the rest came from; null where nobody knows. */
  onJar: (code: string | null, mass_g: number) => Promise<void>;
  onBack: () => void;
}) {
  const { lot, lots, holds_g } = jars;
  if (!lot) return null;
  const rest_g = actual_g - holds_g;
  return (
    <section aria-label="Which other jar?" className="flex flex-col gap-3">
      <p className="text-bench-line font-semibold">
        Jar {lot.code} holds {sayBenchMass(holds_g)}, and {sayBenchMass(actual_g)} were weighed. Which jar did
        the other {sayBenchMass(rest_g)} come from?
      </p>
      {lots
        .filter((each) => each.id !== lot.id && each.left_g > 0)
        .map((each) => (
          <Press key={each.id} onClick={() => void onJar(each.code, rest_g)}>
            {each.code}, {sayBenchMass(each.left_g)}
          </Press>
        ))}
      <div className="flex gap-3">
        <Press onClick={onBack}>Weigh it again</Press>
        <Press onClick={() => void onJar(null, rest_g)}>I do not know: assume it</Press>
      </div>
    </section>
  );
}
