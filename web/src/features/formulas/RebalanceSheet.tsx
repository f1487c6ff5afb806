import { useEffect, useMemo, useState } from "react";
import {
  type BalanceResult,
  type Band,
  type Evaluation,
  findBalance,
  type IngredientSummary,
  messageOf,
  type Objective,
  type Reading,
} from "../../api";
import { figure, grams } from "../../lib/numbers";
import { Button, Dialog } from "../../ui";
import { type Draft, toFile } from "./draft";
import { valueAt, type WantedBand } from "./profiles";

interface Props {
  draft: Draft;
  bands: readonly WantedBand[];
  dough: WantedBand | null;
  registry: ReadonlyMap<string, Reading>;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onApply: (masses: ReadonlyMap<number, number>) => void;
  onClose: () => void;
}

interface Wish {
  reading: string;
  low: string;
  high: string;
  on: boolean;
}

const OBJECTIVES: readonly [Objective, string][] = [
  ["least-change", "change as little as can be"],
  ["cheapest", "be as cheap as can be"],
  ["gentlest", "be as gentle as can be"],
  ["most-lather", "foam as much as can be"],
];
const WATCHED = [
  "dough.saturation",
  "lather.score",
  "firmness.at_20_c",
  "drying.hours",
  "release.minutes",
  "feel.ring",
  "skin.harshness_mg_l",
  "cost.piece",
];
const WAIT_MS = 200;

const text = (value: number | null) => (value === null ? "" : String(value));
const number = (typed: string) => (typed.trim() === "" ? null : Number(typed.replace(",", ".")));

/** The whole formula at once: what is wanted, what it takes, what stands in the way. */
export function RebalanceSheet({ draft, bands, dough, registry, ingredients, onApply, onClose }: Props) {
  const [wishes, setWishes] = useState<Wish[]>(() => firstWishes(bands, dough));
  const [objective, setObjective] = useState<Objective>("least-change");
  const [keepMass, setKeepMass] = useState(true);
  const { result, refused, busy } = useBalance(draft, wishes, objective, keepMass);
  const set = (index: number, patch: Partial<Wish>) =>
    setWishes(wishes.map((wish, at) => (at === index ? { ...wish, ...patch } : wish)));
  const held = draft.portions.flatMap((portion) => portion.lines).filter((line) => line.locked).length;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Rebalance"
      lead={`Says which lines to move, and how the readings follow.${held ? ` ${held} held line${held > 1 ? "s stay" : " stays"} as typed.` : " Hold a line on the Desk (Alt H) to keep it as it is."}`}
    >
      <section aria-label="What is wanted" className="mt-4">
        <ul>
          {wishes.map((wish, index) => {
            const reading = registry.get(wish.reading);
            return (
              <li key={wish.reading} className="flex items-baseline gap-3 border-b-[0.9px] border-ink py-0.5">
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
                    <input
                      aria-label={`${reading?.label ?? wish.reading}, ${end === "low" ? "at least" : "at most"}`}
                      className="written w-16 text-body text-ink"
                      inputMode="decimal"
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
        </p>
      </section>
      <p className="mt-4 flex items-center gap-6">
        <Button
          primary
          disabled={busy || result?.status !== "solved" || result.changes.length === 0}
          onClick={() =>
            result && onApply(new Map(result.changes.map((line) => [line.position, line.after_g])))
          }
        >
          Take it as a new version
        </Button>
        {result?.status === "solved" && result.changes.length === 0 && (
          <span className="text-body text-soft">All of this holds already.</span>
        )}
      </p>
      <div aria-live="polite" className="mt-5" aria-busy={busy}>
        {refused && <p className="text-body text-rosy">{refused}</p>}
        {result?.status === "infeasible" && !refused && (
          <Conflicts result={result} wishes={wishes} set={set} registry={registry} />
        )}
        {result && !refused && <Outcome result={result} ingredients={ingredients} registry={registry} />}
      </div>
    </Dialog>
  );
}

function firstWishes(bands: readonly WantedBand[], dough: WantedBand | null): Wish[] {
  const all = dough ? [dough, ...bands.filter((band) => band.reading !== dough.reading)] : [...bands];
  return all.map((band) => ({ reading: band.reading, low: text(band.low), high: text(band.high), on: true }));
}

/** Solves anew for every change of a wish; the newest supersedes. */
function useBalance(draft: Draft, wishes: readonly Wish[], objective: Objective, keepMass: boolean) {
  const [result, setResult] = useState<BalanceResult | null>(null);
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(true);
  const [mass, setMass] = useState<number | null>(null);
  const asked = useMemo<Band[]>(
    () =>
      wishes
        .filter((wish) => wish.on && (wish.low.trim() || wish.high.trim()))
        .map((wish) => ({ reading: wish.reading, low: number(wish.low), high: number(wish.high) })),
    [wishes],
  );
  useEffect(() => {
    const controller = new AbortController();
    const broken = asked.find((band) => Number.isNaN(band.low ?? 0) || Number.isNaN(band.high ?? 0));
    if (broken || asked.length === 0) {
      setRefused(broken ? "An end of a band is a number, or empty." : "Choose something that is wanted.");
      setBusy(false);
      return;
    }
    setBusy(true);
    const timer = setTimeout(() => {
      const targets =
        keepMass && mass !== null ? [...asked, { reading: "mass_g", low: mass, high: mass }] : asked;
      findBalance({ formula: toFile(draft), targets, objective, locks: [] }, controller.signal)
        .then((found) => {
          setResult(found);
          setMass(found.readings_before.mass_g);
          setRefused("");
        })
        .catch((error: unknown) => !controller.signal.aborted && setRefused(messageOf(error)))
        .finally(() => !controller.signal.aborted && setBusy(false));
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      controller.abort();
    };
  }, [draft, asked, objective, keepMass, mass]);
  return { result, refused, busy };
}

function Conflicts({
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
          const end = conflict.target.includes("<=") ? "high" : "low";
          const from = wish ? Number(wish[end] || 0) : 0;
          const give = end === "low" ? from - conflict.give : from + conflict.give;
          const [min, max] =
            give < from
              ? [give - Math.abs(conflict.give) * 0.2, from]
              : [from, give + Math.abs(conflict.give) * 0.2];
          return (
            <li key={conflict.target} className="border-b-[0.9px] border-rosy py-1">
              {conflict.message}
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

function Outcome({
  result,
  ingredients,
  registry,
}: {
  result: BalanceResult;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  registry: ReadonlyMap<string, Reading>;
}) {
  const moved = new Set(result.changes.map((line) => line.position));
  const name = (id: string) => ingredients.get(id)?.short_name ?? id;
  return (
    <div className="grid grid-cols-2 gap-10">
      <table className="w-full self-start text-body">
        <caption className="text-left text-label italic text-soft">Lines, before and after</caption>
        <tbody>
          {result.lines.map((line) => (
            <tr
              key={line.position}
              className={`border-b-[0.9px] border-ink ${moved.has(line.position) ? "font-bold" : "text-soft"}`}
            >
              <th scope="row" className="text-left [font-weight:inherit]">
                {name(line.ingredient)}
              </th>
              <td className="w-20 text-right">{grams(line.before_g)}</td>
              <td className="w-24 text-right">
                {moved.has(line.position) ? `→ ${grams(line.after_g)} g` : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div>
        <table className="w-full text-body">
          <caption className="text-left text-label italic text-soft">Readings, before and after</caption>
          <tbody>
            {WATCHED.map((path) => (
              <Moved key={path} path={path} result={result} registry={registry} />
            ))}
          </tbody>
        </table>
        {result.marginals.length > 0 && (
          <ul className="mt-3 text-label">
            {result.marginals.map((marginal) => (
              <li key={marginal.target}>{marginal.message}</li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

function Moved({
  path,
  result,
  registry,
}: {
  path: string;
  result: BalanceResult;
  registry: ReadonlyMap<string, Reading>;
}) {
  const before = valueAt(result.readings_before as Evaluation, path);
  const after = valueAt(result.readings_after as Evaluation, path);
  if (before === null && after === null) return null;
  const shown = (value: number | null) => (value === null ? "–" : figure(value));
  const same = shown(before) === shown(after);
  const reading = registry.get(path);
  return (
    <tr className={`border-b-[0.9px] border-ink ${same ? "text-soft" : "font-bold"}`}>
      <th scope="row" className="text-left [font-weight:inherit]">
        {reading?.label ?? path}
      </th>
      <td className="w-16 text-right">{shown(before)}</td>
      <td className="w-20 text-right">{same ? "" : `→ ${shown(after)}`}</td>
      <td className="w-14 pl-2 text-caption text-soft">{reading?.unit}</td>
    </tr>
  );
}
