import { inUnits } from "../../lib/units";
import { Back, Press } from "./parts";
import type { StepProps } from "./step";

/** One thing to do. */
export function DoStep({ step, act, onBack }: StepProps) {
  return (
    <div className="flex flex-col gap-6">
      <Words text={step.text} caution={step.caution} />
      <div className="flex gap-3">
        <Back onBack={onBack} />
        <Press next onClick={() => void act({ kind: "done", step: step.key })}>
          Done
        </Press>
      </div>
    </div>
  );
}

/** What is to be done, and what to mind. */
export function Words({ text, caution }: { text: string; caution: string }) {
  return (
    <div>
      <p className="text-bench-line leading-snug">{inUnits(text)}</p>
      {caution && <p className="pt-3 text-bench-word font-semibold text-rosy">{inUnits(caution)}</p>}
    </div>
  );
}
