import { useEffect, useMemo, useState } from "react";
import { type Band, findBalance, messageOf, type Objective, useAnswer } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { type Draft, toFile } from "../draft";
import type { WantedBand } from "../profiles";

/** A wanted band as it is typed; off, it is kept but not asked for. */
export interface Wish {
  reading: string;
  low: string;
  high: string;
  on: boolean;
}

const WAIT_MS = 200;

const text = (value: number | null) => (value === null ? "" : String(value));

export function firstWishes(bands: readonly WantedBand[], dough: WantedBand | null): Wish[] {
  const all = dough ? [dough, ...bands.filter((band) => band.reading !== dough.reading)] : [...bands];
  return all.map((band) => ({ reading: band.reading, low: text(band.low), high: text(band.high), on: true }));
}

/** Solves anew for every change of a wish; the newest supersedes. */
export function useBalance(
  draft: Draft,
  wishes: readonly Wish[],
  objective: Objective,
  keepMass: boolean,
  guarded: boolean,
) {
  const [mass, setMass] = useState<number | null>(null);
  const asked = useMemo<Band[]>(
    () =>
      wishes
        .filter((wish) => wish.on && (wish.low.trim() || wish.high.trim()))
        .map((wish) => ({ reading: wish.reading, low: readDecimal(wish.low), high: readDecimal(wish.high) })),
    [wishes],
  );
  const broken = asked.some((band) => Number.isNaN(band.low) || Number.isNaN(band.high));
  const refusal = broken
    ? "An end of a band is a number, or empty."
    : asked.length === 0
      ? "Choose something that is wanted."
      : "";
  const held = keepMass ? mass : null;
  const ask = useMemo(() => {
    if (refusal) return null;
    const targets = held === null ? asked : [...asked, { reading: "mass_g", low: held, high: held }];
    const question = { formula: toFile(draft), targets, objective, locks: [], guarded };
    return (signal: AbortSignal) => findBalance(question, signal);
  }, [draft, asked, objective, held, guarded, refusal]);
  const { answer: result, error, busy } = useAnswer(ask, WAIT_MS);
  const found = result?.readings_before.mass_g ?? null;
  useEffect(() => setMass(found), [found]);
  const refused = refusal || (error ? messageOf(error) : "");
  return { result, refused, busy };
}
