import { type ReactNode, useState } from "react";
import {
  ApiError,
  type Evaluation,
  type IngredientSummary,
  messageOf,
  type Reading,
  useKeepVersion,
} from "../../api";
import { readAmount } from "../../lib/amounts";
import { useNotice } from "../../ui";
import { type Draft, inUnit, patchLine, scaleBy, setGrams } from "../draft";
import { SubstituteSheet } from "../lines";
import type { WantedBand } from "../profiles";
import { RebalanceSheet } from "../rebalance";
import { ScaleSheet } from "./ScaleSheet";
import { SettingSheet } from "./SettingSheet";

type Open = { kind: "rebalance" | "scale" | "settings" } | { kind: "substitute"; key: string } | null;

interface Given {
  id: number;
  draft: Draft;
  evaluation: Evaluation | null;
  bands: readonly WantedBand[];
  dough: WantedBand | null;
  registry: ReadonlyMap<string, Reading>;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  flush: () => Promise<unknown>;
}

export type SheetUnit = "g" | "oz" | "pct" | "part";

/** The sheets laid over the Desk, and what they do to the formula. */
export function useSheets(given: Given) {
  const { id, draft, evaluation, change } = given;
  const [open, setOpen] = useState<Open>(null);
  const keep = useKeepVersion();
  const say = useNotice();
  const close = () => setOpen(null);
  const gramsOf = () => new Map((evaluation?.lines ?? []).map((line) => [line.index, line.mass_g]));
  const batch_g = evaluation?.mass_g ?? 0;

  /** What was there stays as a version of its own, so that a sheet's work is a new one; false where that failed. */
  const keepFirst = async (note: string): Promise<boolean> => {
    try {
      await given.flush();
      await keep.mutateAsync({ id, note });
    } catch (error) {
      if (error instanceof ApiError && error.details.reason === "unchanged") return true;
      say(`Nothing was changed, for what is there could not be kept first: ${messageOf(error)}`, {
        asks: true,
      });
      return false;
    }
    return true;
  };

  const onRebalance = async (masses: ReadonlyMap<number, number>) => {
    close();
    if (!(await keepFirst("before rebalancing"))) return;
    change((before) => setGrams(before, masses));
    say(
      `${masses.size} line${masses.size === 1 ? "" : "s"} rebalanced; what was there is kept as a version.`,
    );
  };

  const lines = draft.portions.flatMap((portion) => portion.lines);
  let sheet: ReactNode = null;
  if (open?.kind === "rebalance")
    sheet = (
      <RebalanceSheet
        draft={draft}
        bands={given.bands}
        dough={given.dough}
        registry={given.registry}
        ingredients={given.ingredients}
        change={change}
        onApply={(masses) => void onRebalance(masses)}
        onClose={close}
      />
    );
  if (open?.kind === "scale")
    sheet = (
      <ScaleSheet
        batch_g={batch_g}
        onScale={(factor) => {
          change((before) => scaleBy(before, factor));
          close();
        }}
        onClose={close}
      />
    );
  if (open?.kind === "settings")
    sheet = <SettingSheet draft={draft} evaluation={evaluation} change={change} onClose={close} />;
  if (open?.kind === "substitute") {
    const position = lines.findIndex((line) => line.key === open.key);
    const ingredient = lines[position]?.ingredient;
    const name = (ingredient && given.ingredients.get(ingredient)?.short_name) || "this line";
    sheet = (
      <SubstituteSheet
        draft={draft}
        position={position}
        name={name}
        onClose={close}
        onTake={(after, sentence) => {
          // Keys stay, so that the rows of unchanged lines keep their place and their focus.
          change((before) => withKeysOf(after, before));
          close();
          say(sentence);
        }}
      />
    );
  }
  return {
    sheet,
    rebalance: () => setOpen({ kind: "rebalance" }),
    settings: () => setOpen({ kind: "settings" }),
    scale: () => setOpen({ kind: "scale" }),
    substitute: (key: string) => setOpen({ kind: "substitute", key }),
    showIn: (unit: SheetUnit) => change((before) => inUnit(before, unit, gramsOf(), batch_g)),
    rest: (key: string) => change((before) => asRest(inUnit(before, "pct", gramsOf(), batch_g), key)),
  };
}

/** One line takes what the others leave of 100 %. */
function asRest(draft: Draft, key: string): Draft {
  const others = draft.portions
    .flatMap((portion) => portion.lines)
    .filter((line) => line.key !== key && line.unit === "pct")
    .reduce((sum, line) => sum + (readAmount(line.amount) ?? 0), 0);
  const left = Math.max(0, 100 - others);
  return patchLine(draft, key, { amount: String(Number(left.toFixed(4))), unit: "pct" });
}

function withKeysOf(after: Draft, before: Draft): Draft {
  return {
    ...after,
    portions: after.portions.map((portion, index) => ({
      ...portion,
      lines: portion.lines.map((line, at) => ({
        ...line,
        key: before.portions[index]?.lines[at]?.key ?? line.key,
      })),
    })),
  };
}
