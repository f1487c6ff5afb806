import { type ReactNode, useEffect, useState } from "react";
import type { Batch, BenchStep, Reference } from "../../api";
import { markOf } from "../../lib/grains";
import { sayMass } from "../../lib/numbers";
import { BenchBowl, WET } from "./BenchBowl";
import { ConditionsStep } from "./ConditionsStep";
import { DoStep } from "./DoStep";
import { FeelStep } from "./FeelStep";
import { StepRuler } from "./parts";
import { RestStep } from "./RestStep";
import { ShapeStep } from "./ShapeStep";
import { SplitStep } from "./SplitStep";
import type { StepProps } from "./step";
import { TemperatureStep } from "./TemperatureStep";
import { WeighStep } from "./WeighStep";
import { WindowLine } from "./WindowLine";

const PATIENCE_MS = 600;

interface Props extends Omit<StepProps, "step"> {
  reference: Reference;
  /** Whether the studio has been told something and has not answered yet. */
  telling: boolean;
  /** Above the step. */
  head: ReactNode;
  /** What has to be said before anything else. */
  said?: ReactNode;
  /** Over the bowl, beside the step. */
  beside?: ReactNode;
  /** Under all of it. */
  foot?: ReactNode;
  /** In place of a step, once all are done. */
  finished: ReactNode;
}

/** The step in hand of a bowl, and the bowl: the same for a batch and for practice. */
export function BenchFrame({ reference, telling, head, said, beside, foot, finished, ...given }: Props) {
  const { batch, devices, ingredients } = given;
  const step = stepInHand(batch);
  const weighing = step?.kind === "weigh";
  const value = weighing && devices.scale && !devices.scale.fault ? Math.max(0, devices.scale.value ?? 0) : 0;
  const item = step?.ingredient ? ingredients.get(step.ingredient) : undefined;
  // Judging, the hands are asked before the Desk is: the tiles take the whole width.
  const wide = step?.kind === "feel";
  return (
    <div className="flex min-h-screen flex-col px-12">
      {head}
      <main
        id="page"
        data-step={step?.key}
        aria-busy={telling}
        className={`grid flex-1 gap-10 max-[900px]:grid-cols-1 ${
          wide ? "grid-cols-1" : "grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]"
        }`}
      >
        <div className="flex flex-col gap-3 pt-1">
          {said}
          {step && (
            <>
              <h1 className="text-bench-step font-medium leading-tight">{step.title}</h1>
              <WindowLine batch={batch} devices={devices} />
              <Step key={step.key} step={step} {...given} />
              <Next batch={batch} />
              <StepRuler at={batch.state.current ?? 0} statuses={batch.state.status} />
              {telling && <Late>Being written down…</Late>}
            </>
          )}
          {!step && finished}
        </div>
        <div className="flex flex-col">
          {beside}
          <div className={`min-h-0 flex-1 max-[900px]:hidden ${wide ? "hidden" : ""}`}>
            <BenchBowl
              batch={batch}
              ingredients={ingredients}
              reference={reference}
              pouring={value}
              missing={weighing ? Math.max(0, (step?.target_g ?? 0) - value) : 0}
              wet={item !== undefined && WET.has(markOf(item))}
            />
          </div>
        </div>
      </main>
      {foot}
    </div>
  );
}

/** Said only where an answer takes so long that a hand would press again. */
function Late({ children }: { children: ReactNode }) {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), PATIENCE_MS);
    return () => clearTimeout(timer);
  }, []);
  return late && <p className="text-bench-key text-soft">{children}</p>;
}

export const stepInHand = ({ state }: Batch): BenchStep | null =>
  state.current === null ? null : (state.steps[state.current] ?? null);

function Step(props: StepProps) {
  const { kind } = props.step;
  if (kind === "conditions") return <ConditionsStep {...props} />;
  if (kind === "weigh") return <WeighStep {...props} />;
  if (kind === "temperature") return <TemperatureStep {...props} />;
  if (kind === "rest") return <RestStep {...props} />;
  if (kind === "feel") return <FeelStep {...props} />;
  if (kind === "split") return <SplitStep {...props} />;
  if (kind === "shape") return <ShapeStep {...props} />;
  return <DoStep {...props} />;
}

function Next({ batch }: { batch: Batch }) {
  const { current, steps, status } = batch.state;
  const next = steps.find((_, index) => current !== null && index > current && status[index] === "open");
  if (!next) return null;
  const mass = next.target_g !== null ? ` ${sayMass(next.target_g)}` : "";
  return (
    <p className="text-bench-note text-soft">
      then{" "}
      <b className="text-ink">
        {next.kind === "weigh" ? next.title.replace(/^Weigh /, "") : next.title.toLowerCase()}
        {mass}
      </b>
    </p>
  );
}
