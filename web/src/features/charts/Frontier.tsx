import { useRef } from "react";
import type { Band, FormulaFile, Profile } from "../../api";
import { figure, fixed } from "../../lib/numbers";
import { unitShown } from "../../lib/units";
import { Button, DrawingTools, Plot } from "../../ui";

import { useFrontier } from "./useFrontier";

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
  const { points, here, done, failed, busy, steps, start, cancel } = useFrontier(file, profile, dough);
  const drawing = useRef<SVGSVGElement>(null);
  const sorted = [...points].sort((a, b) => a.score - b.score);
  const costs = [...sorted.map((point) => point.cost), here?.cost ?? 0];
  const says = sorted.length
    ? `From ${fixed(sorted[0]?.cost ?? 0, 2)} a piece at score ${figure(sorted[0]?.score ?? 0)} to ${fixed(sorted.at(-1)?.cost ?? 0, 2)} at ${figure(sorted.at(-1)?.score ?? 0)}.`
    : "The cheapest formula of these lines for each foam score.";
  return (
    <section id="frontier" aria-label="Foam against cost" className="scroll-mt-4">
      <p className="flex items-baseline justify-between">
        <b className="text-row font-normal italic text-soft">Foam against cost</b>
        <DrawingTools
          name={`${name}, foam against cost`}
          columns={["foam score", `${unitShown("USD")} a piece`]}
          rows={sorted.map((point) => [fixed(point.score, 1), fixed(point.cost, 2)])}
          svg={() => drawing.current}
        />
      </p>
      <p className="pb-2 text-body" role="status">
        {failed || says}{" "}
        {busy && (
          <span className="text-soft">
            {done} of {steps} solved.
          </span>
        )}
      </p>
      {sorted.length > 1 && (
        <Plot
          ref={drawing}
          text={`Cost of a piece over foam score. ${says}`}
          x={{ min: 30, max: 90, label: "foam" }}
          y={{ min: 0, max: Math.max(...costs) * 1.2, label: unitShown("USD") }}
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
