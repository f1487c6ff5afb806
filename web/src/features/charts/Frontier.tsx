import { useRef, useState } from "react";
import {
  type BalanceResult,
  type Band,
  type FormulaFile,
  findBalance,
  messageOf,
  type Profile,
} from "../../api";
import { figure } from "../../lib/numbers";
import { Button, DrawingTools, Plot } from "../../ui";

interface Point {
  score: number;
  cost: number;
}

const STEPS = [35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85];

/** What foam costs: the cheapest formula of the same lines for each score, one after the other. */
export function Frontier({
  file,
  profile,
  dough,
  name,
}: {
  file: FormulaFile;
  profile: Profile | undefined;
  /** The dough must stay workable, or the cheapest formula would be plain soda. */
  dough: Band | null;
  name: string;
}) {
  const [points, setPoints] = useState<Point[]>([]);
  const [here, setHere] = useState<Point | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [failed, setFailed] = useState("");
  const stop = useRef<AbortController | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
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
        if (result.status === "solved" && point) setPoints((before) => [...before, point]);
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
  const sorted = [...points].sort((a, b) => a.score - b.score);
  const costs = [...sorted.map((point) => point.cost), here?.cost ?? 0];
  const says = sorted.length
    ? `From ${sorted[0]?.cost.toFixed(2)} a piece at score ${figure(sorted[0]?.score ?? 0)} to ${sorted.at(-1)?.cost.toFixed(2)} at ${figure(sorted.at(-1)?.score ?? 0)}.`
    : "The cheapest formula of these lines for each foam score.";
  return (
    <section id="frontier" aria-label="Foam against cost" className="scroll-mt-4">
      <p className="flex items-baseline justify-between">
        <b className="text-row font-normal italic text-soft">Foam against cost</b>
        <DrawingTools
          name={`${name}, foam against cost`}
          columns={["foam score", "USD a piece"]}
          rows={sorted.map((point) => [point.score.toFixed(1), point.cost.toFixed(2)])}
          svg={() => drawing.current}
        />
      </p>
      <p className="pb-2 text-body" role="status">
        {failed || says}{" "}
        {busy && (
          <span className="text-soft">
            {done} of {STEPS.length} solved.
          </span>
        )}
      </p>
      {sorted.length > 1 && (
        <Plot
          ref={drawing}
          text={`Cost of a piece over foam score. ${says}`}
          x={{ min: 30, max: 90, label: "foam" }}
          y={{ min: 0, max: Math.max(...costs) * 1.2, label: "USD" }}
          lines={[
            { name: "cheapest", points: sorted.map((point) => [point.score, point.cost]), style: "ink" },
            ...(here
              ? [
                  {
                    name: "as it is",
                    points: [
                      [Math.max(30, here.score - 0.7), here.cost],
                      [here.score + 0.7, here.cost],
                    ] as [number, number][],
                    style: "wet" as const,
                  },
                ]
              : []),
          ]}
        />
      )}
      <p className="pt-2">
        {busy ? (
          <Button onClick={cancel}>Stop</Button>
        ) : (
          <Button onClick={() => void start()}>{sorted.length ? "Work it out anew" : "Work it out"}</Button>
        )}
      </p>
    </section>
  );
}

function pointOf(readings: BalanceResult["readings_after"]): Point | null {
  const score = readings.lather.score;
  const cost = readings.cost.piece;
  return score === null || cost === null ? null : { score, cost: Number(cost) };
}
