import { useEffect, useMemo, useState } from "react";
import { type BalanceResult, type Band, findBalance, messageOf, type Objective } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { type Draft, toFile } from "./draft";
import type { WantedBand } from "./profiles";

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
  const [result, setResult] = useState<BalanceResult | null>(null);
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(true);
  const [mass, setMass] = useState<number | null>(null);
  const asked = useMemo<Band[]>(
    () =>
      wishes
        .filter((wish) => wish.on && (wish.low.trim() || wish.high.trim()))
        .map((wish) => ({ reading: wish.reading, low: readDecimal(wish.low), high: readDecimal(wish.high) })),
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
      findBalance({ formula: toFile(draft), targets, objective, locks: [], guarded }, controller.signal)
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
  }, [draft, asked, objective, keepMass, guarded, mass]);
  return { result, refused, busy };
}
