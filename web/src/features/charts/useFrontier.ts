import { useRef, useState } from "react";
import {
  type BalanceResult,
  type Band,
  type FormulaFile,
  findBalance,
  messageOf,
  type Profile,
} from "../../api";

const STEPS = [35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85];

interface Point {
  score: number;
  cost: number;
}

/**
 * The cheapest formula of the same lines for each foam score, one wish after the other: what was found so far, how far it is,
 * and how to begin and stop. The dough must stay workable, or the cheapest formula would be plain soda.
 */
export function useFrontier(file: FormulaFile, profile: Profile | undefined, dough: Band | null) {
  const [points, setPoints] = useState<Point[]>([]);
  const [here, setHere] = useState<Point | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [failed, setFailed] = useState("");
  const stop = useRef<AbortController | null>(null);
  const busy = done !== null && done < STEPS.length;

  const start = async () => {
    const controller = new AbortController();
    stop.current = controller;
    setPoints([]);
    setFailed("");
    setDone(0);
    const others = (profile?.bands ?? []).filter(
      (band) => band.reading !== "lather.score" && !band.reading.startsWith("cost."),
    );
    let mass: number | null = null;
    for (const [index, score] of STEPS.entries()) {
      const targets: Band[] = [
        { reading: "lather.score", low: score, high: null },
        ...others,
        ...(dough ? [dough] : []),
        ...(mass === null ? [] : [{ reading: "mass_g", low: mass, high: mass }]),
      ];
      try {
        const result: BalanceResult = await findBalance(
          { formula: file, targets, objective: "cheapest", locks: [] },
          controller.signal,
        );
        mass = mass ?? result.readings_before.mass_g;
        setHere(pointOf(result.readings_before));
        const point = pointOf(result.readings_after);
        if (result.status !== "infeasible" && point) setPoints((before) => [...before, point]);
        setDone(index + 1);
      } catch (error) {
        if (controller.signal.aborted) return setDone(null);
        setFailed(messageOf(error));
        return setDone(null);
      }
    }
  };
  const cancel = () => {
    stop.current?.abort();
    setDone(null);
  };
  return { points, here, done, failed, busy, steps: STEPS.length, start, cancel };
}

function pointOf(readings: BalanceResult["readings_after"]): Point | null {
  const score = readings.lather.score;
  const cost = readings.cost.piece;
  return score === null || cost === null ? null : { score, cost: Number(cost) };
}
