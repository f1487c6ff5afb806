import type { BalanceResult, Evaluation, Reading } from "../../api";
import { figure } from "../../lib/numbers";
import { valueAt } from "../../lib/readings";
import { inUnits } from "../../lib/units";
import type { Wish } from "./useBalance";

/** Which wishes stand against each other, and how far each would have to give. */
export function Conflicts({
  result,
  wishes,
  set,
  registry,
}: {
  result: BalanceResult;
  wishes: readonly Wish[];
  set: (index: number, patch: Partial<Wish>) => void;
  registry: ReadonlyMap<string, Reading>;
}) {
  return (
    <section aria-label="What stands in the way" className="mb-4">
      <h3 className="text-row font-bold text-rosy">Not all of it at once</h3>
      <ul className="text-body">
        {result.conflicts.map((conflict) => {
          const path = conflict.target.split(/[<>=]/)[0] ?? "";
          const index = wishes.findIndex((wish) => wish.reading === path);
          const wish = wishes[index];
          const value = valueAt(result.readings_after as Evaluation, path);
          const over = wish && wish.high.trim() !== "" && value !== null && value > Number(wish.high);
          const end = over ? "high" : "low";
          const from = wish ? Number(wish[end] || 0) : 0;
          const give = end === "low" ? from - conflict.give : from + conflict.give;
          const [min, max] =
            give < from
              ? [give - Math.abs(conflict.give) * 0.2, from]
              : [from, give + Math.abs(conflict.give) * 0.2];
          return (
            <li key={conflict.target} className="border-b-[0.9px] border-rosy py-1">
              {inUnits(conflict.message)}
              {wish && (
                <label className="mt-1 flex items-center gap-3 text-label text-soft">
                  Let it give
                  <input
                    type="range"
                    className="flex-1"
                    aria-label={`${registry.get(path)?.label ?? path}: how far it gives`}
                    min={min}
                    max={max}
                    step={(max - min) / 40}
                    value={from}
                    onChange={(event) =>
                      set(index, { [end]: String(Number(Number(event.target.value).toPrecision(3))) })
                    }
                  />
                  <button
                    type="button"
                    className="border-b border-ink text-ink"
                    onClick={() =>
                      set(index, {
                        [end]: String(Number((end === "low" ? give * 0.995 : give * 1.005).toPrecision(3))),
                      })
                    }
                  >
                    to {figure(give)}
                  </button>
                </label>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
