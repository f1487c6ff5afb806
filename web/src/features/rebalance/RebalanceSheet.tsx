import { useState } from "react";
import type { IngredientSummary, Objective, Reading } from "../../api";
import { Button, Dialog, NumberInput } from "../../ui";
import type { Draft } from "../draft";
import type { WantedBand } from "../profiles";
import { BalanceOutcome } from "./BalanceOutcome";
import { Conflicts } from "./Conflicts";
import { Limits } from "./Limits";
import { firstWishes, useBalance, type Wish } from "./useBalance";

interface Props {
  draft: Draft;
  bands: readonly WantedBand[];
  dough: WantedBand | null;
  registry: ReadonlyMap<string, Reading>;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  onApply: (masses: ReadonlyMap<number, number>) => void;
  onClose: () => void;
}

const OBJECTIVES: readonly [Objective, string][] = [
  ["least-change", "change as little as can be"],
  ["cheapest", "be as cheap as can be"],
  ["gentlest", "be as gentle as can be"],
  ["most-lather", "foam as much as can be"],
];
/** The whole formula at once: what is wanted, what it takes, what stands in the way. */
export function RebalanceSheet(props: Props) {
  const { draft, bands, dough, registry, ingredients, change, onApply, onClose } = props;
  const [wishes, setWishes] = useState<Wish[]>(() => firstWishes(bands, dough));
  const [objective, setObjective] = useState<Objective>("least-change");
  const [keepMass, setKeepMass] = useState(true);
  const [guarded, setGuarded] = useState(true);
  const { result, refused, busy } = useBalance(draft, wishes, objective, keepMass, guarded);
  const set = (index: number, patch: Partial<Wish>) =>
    setWishes(wishes.map((wish, at) => (at === index ? { ...wish, ...patch } : wish)));
  const met = result?.status === "solved" || result?.status === "another-formula";
  const ready = !busy && !refused && met && (result?.changes.length ?? 0) > 0;
  const onTake = () => {
    if (ready) onApply(new Map(result.changes.map((line) => [line.position, line.after_g])));
  };
  const more = [...registry.values()].filter(
    (reading) => reading.aim && !wishes.some((wish) => wish.reading === reading.id),
  );
  return (
    <Dialog
      open
      wide
      onOpenChange={onClose}
      title="Rebalance"
      lead="Says which lines to move, and how the readings follow."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onTake();
        }}
      >
        <section aria-label="What is wanted" className="mt-4">
          <ul>
            {wishes.map((wish, index) => {
              const reading = registry.get(wish.reading);
              return (
                <li
                  key={wish.reading}
                  className="flex items-baseline gap-3 border-b-[0.9px] border-ink py-0.5"
                >
                  <label className="flex flex-1 items-baseline gap-2 text-body">
                    <input
                      type="checkbox"
                      checked={wish.on}
                      onChange={(e) => set(index, { on: e.target.checked })}
                    />
                    {reading?.label ?? wish.reading}
                  </label>
                  {(["low", "high"] as const).map((end) => (
                    <label key={end} className="text-caption text-soft">
                      {end === "low" ? "from" : "to"}{" "}
                      <NumberInput
                        aria-label={`${reading?.label ?? wish.reading}, ${end === "low" ? "at least" : "at most"}`}
                        className="w-16 text-body text-ink"
                        value={wish[end]}
                        onChange={(event) => set(index, { [end]: event.target.value })}
                      />
                    </label>
                  ))}
                  <span className="w-20 text-caption text-soft">{reading?.unit}</span>
                </li>
              );
            })}
          </ul>
          <p className="mt-3 flex flex-wrap items-baseline gap-6 text-body">
            <label>
              It should{" "}
              <select
                className="written"
                value={objective}
                onChange={(event) => setObjective(event.target.value as Objective)}
              >
                {OBJECTIVES.map(([id, words]) => (
                  <option key={id} value={id}>
                    {words}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-baseline gap-2">
              <input
                type="checkbox"
                checked={keepMass}
                onChange={(event) => setKeepMass(event.target.checked)}
              />
              and keep the batch's mass
            </label>
            <label className="flex items-baseline gap-2">
              <input
                type="checkbox"
                checked={guarded}
                onChange={(event) => setGuarded(event.target.checked)}
              />
              and its proportion, bath pH and dough
            </label>
            <label>
              and hold{" "}
              <select
                className="written"
                aria-label="Another reading to hold"
                value=""
                onChange={(event) =>
                  setWishes([...wishes, { reading: event.target.value, low: "", high: "", on: true }])
                }
              >
                <option value="">another reading…</option>
                {more.map((reading) => (
                  <option key={reading.id} value={reading.id}>
                    {reading.label}
                  </option>
                ))}
              </select>
            </label>
          </p>
        </section>
        <p className="mt-4 flex items-center gap-6">
          <Button primary type="submit" hint="Enter" disabled={!ready}>
            Take it as a new version
          </Button>
          {!refused && result?.status === "solved" && result.changes.length === 0 && (
            <span className="text-body text-soft">All of this holds already.</span>
          )}
        </p>
        <div aria-live="polite" className="mt-5" aria-busy={busy}>
          {refused && <p className="text-body text-rosy">{refused}</p>}
          {refused && !result && <Limits {...{ draft, ingredients, change }} />}
          {result?.status === "another-formula" && !refused && (
            <p className="text-body">
              More than a third of the batch would move, or it would be of quite another size: all of it holds
              then, but it is another formula.
            </p>
          )}
          {result?.status === "infeasible" && !refused && (
            <Conflicts result={result} wishes={wishes} set={set} registry={registry} />
          )}
          {result && <BalanceOutcome {...{ result, draft, ingredients, registry, change }} />}
        </div>
      </form>
    </Dialog>
  );
}
