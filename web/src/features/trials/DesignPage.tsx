import { useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  messageOf,
  type TrialDesign,
  useAmendResult,
  useDesign,
  usePourWinner,
  useReadBack,
} from "../../api";
import { readDecimal } from "../../lib/decimals";
import { emptied } from "../../lib/emptied";
import { figure, fixed, percent, sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { Button, DrawingTools, NumberInput, useNotice } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { ResponseDrawing } from "./ResponseDrawing";

/** One design: its trials as a weigh list, what each read, and the reading fitted between them. */
export function DesignPage() {
  const design = useDesign(Number(useParams().designId));
  if (design.error && !design.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(design.error)}</p>;
  if (!design.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Sheet design={design.data} />;
}

function Sheet({ design }: { design: TrialDesign }) {
  const drawing = useRef<SVGSVGElement>(null);
  const best = design.response.best;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>{design.name}</h1>
      <p className="text-row text-soft">
        {design.wanted} {design.label.toLowerCase()}, {design.trials.length} trials of{" "}
        {sayMass(design.batch_g)}; each trial is a version of{" "}
        <Link className="underline underline-offset-4" to={`/formulas/${design.trials_formula_id}`}>
          {design.name}
        </Link>
        .{" "}
        <Link className="underline underline-offset-4" to="/learning/trials">
          All trials
        </Link>
      </p>
      {design.warning && <p className="pt-2 text-reading text-rosy">{inUnits(design.warning)}</p>}
      <p className="pt-2 text-reading">
        {inUnits(design.response.message)}{" "}
        {best && (
          <b>
            Best at{" "}
            {design.bounds
              .map((bound, index) => `${bound.name} ${percent(shareOf(design, best.shares, index))} %`)
              .join(", ")}
            : {said(best, design.unit)}.
          </b>
        )}{" "}
        {best && design.response.flat === false && <PourWinner design={design} />}
      </p>
      <div className="grid grid-cols-[minmax(0,560px)_1fr] gap-x-12 pt-4 max-[1000px]:grid-cols-1">
        <section aria-label="Fitted reading">
          <ResponseDrawing design={design} ref={drawing} />
          <DrawingTools
            svg={() => drawing.current}
            name={design.name}
            columns={[
              ...design.bounds.map((bound) => `${bound.name} [%]`),
              `${design.label} [${design.unit}]`,
            ]}
            rows={design.response.grid.map((point) => [
              ...design.bounds.map((_, index) => percent(shareOf(design, point.shares, index))),
              fixed(point.value, 3),
            ])}
          />
        </section>
        <WeighList design={design} />
      </div>
    </div>
  );
}

/** Per cent of the formula an ingredient is at a mixture. */
export function shareOf(design: TrialDesign, shares: readonly number[], index: number): number {
  const trial = design.trials[0];
  const together = trial ? trial.grams.reduce((sum, grams) => sum + grams, 0) : 0;
  return (100 * (shares[index] ?? 0) * together) / design.batch_g;
}

const said = (point: NonNullable<TrialDesign["response"]["best"]>, unit: string) =>
  point.low === null || point.high === null
    ? `${figure(point.value)} ${unit}`
    : `${figure(point.value)} ${unit} (${figure(point.low)} to ${figure(point.high)})`;

/** The best mixture becomes a version of the formula, with what proves it as its note. */
function PourWinner({ design }: { design: TrialDesign }) {
  const pour = usePourWinner(design.id);
  const say = useNotice();
  const navigate = useNavigate();
  const onPour = async () => {
    try {
      const { formula_id, version, note } = await pour.mutateAsync();
      say(`Version ${version}: ${note}`, {
        action: { label: "Open it", run: () => void navigate(`/formulas/${formula_id}`) },
      });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return <Button onClick={onPour}>Pour it into a new version</Button>;
}

/** The mini-batches: grams of what varies, what the Desk says, what was read. */
function WeighList({ design }: { design: TrialDesign }) {
  return (
    <table className="w-full self-start text-body">
      <caption className="text-left text-row italic text-soft">
        Weigh list; all other lines stay as they are
      </caption>
      <HeadRow
        ruled
        columns={[
          "Trial",
          ...design.bounds.map((bound) => ({ says: `${bound.name}, g`, right: true })),
          { says: "The Desk says", right: true },
          { says: `Read back, ${design.unit}`, className: "pl-6" },
        ]}
      />
      <tbody>
        {design.trials.map((trial) => (
          <tr key={trial.number} className="border-b-[0.9px] border-ink">
            <th scope="row" className="py-1 text-left text-reading font-semibold">
              {trial.number}
            </th>
            {trial.grams.map((mass_g, index) => (
              <td key={design.bounds[index]?.ingredient} className="text-right text-reading">
                {fixed(mass_g, 1)}
              </td>
            ))}
            <td className="text-right">{trial.said === null ? "–" : figure(trial.said)}</td>
            <td className="pl-6">
              <Results design={design} trial={trial} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Results({ design, trial }: { design: TrialDesign; trial: TrialDesign["trials"][number] }) {
  const [typed, setTyped] = useState("");
  const readBack = useReadBack(design.id);
  const amend = useAmendResult(design.id);
  const say = useNotice();
  const attempt = async (act: () => Promise<unknown>) => {
    try {
      await act();
      return true;
    } catch (error) {
      say(messageOf(error), { asks: true });
      return false;
    }
  };
  const onKeep = async () => {
    const value = readDecimal(typed);
    if (value === null) return;
    if (Number.isNaN(value)) return say("A number, please.", { asks: true });
    if (await attempt(() => readBack.mutateAsync({ trial: trial.number, value }))) setTyped(emptied(typed));
  };
  const leaveOut = async (result: number, value: number) => {
    if (await attempt(() => amend.mutateAsync({ result, value: null })))
      say("The result does not count.", {
        action: {
          label: "Take it back",
          run: () => void attempt(() => amend.mutateAsync({ result, value })),
        },
      });
  };
  return (
    <form
      className="flex flex-wrap items-end gap-x-3"
      onSubmit={(event) => {
        event.preventDefault();
        void onKeep();
      }}
    >
      {trial.results.map((result) => (
        <button
          key={result.id}
          type="button"
          className="border-b border-soft"
          aria-label={`Leave out ${result.value} of trial ${trial.number}`}
          onClick={() => void leaveOut(result.id, result.value)}
        >
          {figure(result.value)}
        </button>
      ))}
      <NumberInput
        className="w-16 text-center"
        aria-label={`Result of trial ${trial.number} in ${design.unit}`}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {typed && <Button type="submit">Keep it</Button>}
    </form>
  );
}
