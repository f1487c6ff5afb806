import { sayBenchMass } from "../../lib/numbers";
import { DoStep } from "./DoStep";
import type { StepProps } from "./step";

/** Split by weight and colour. */
export function SplitStep(props: StepProps) {
  const { step, batch } = props;
  const colours = batch.planned.portions;
  return (
    <div className="flex flex-col gap-4">
      {step.shares.length > 1 && (
        <table className="text-bench-line">
          <caption className="text-left text-bench-note italic text-soft">Shares by weight</caption>
          <tbody>
            {step.shares.map(([name, mass]) => (
              <tr key={name} className="border-b border-ink">
                <th scope="row" className="py-1 text-left font-medium">
                  {colours.length > 1 ? name : "all of it"}
                </th>
                <td className="text-right font-semibold">{sayBenchMass(mass)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <DoStep {...props} />
    </div>
  );
}
