import { Link } from "react-router";
import {
  type Learning,
  type LearntFactor,
  messageOf,
  useFactor,
  useLearning,
  useLearningProgress,
  useReadOn,
  useReference,
} from "../../api";
import { figure } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { Button, HowFar, useNotice } from "../../ui";
import { FactorStrip, Tally } from "./FactorStrip";
import { Guides } from "./Guides";

/** What the studio's own work makes of the defaults: each factor shown, and used only once it is accepted. */
export function LearningPage() {
  const learning = useLearning();
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Learning</h1>
      <p className="text-row text-soft">
        {learning.data ? summary(learning.data) : learning.error ? "" : "Working it out…"}{" "}
        <Link className="underline underline-offset-4" to="/tub">
          To the tub
        </Link>{" "}
        <Link className="underline underline-offset-4" to="/learning/trials">
          Next trials
        </Link>
      </p>
      {learning.data && learning.data.waiting > 0 && <Waiting learning={learning.data} />}
      <Guides />
      {learning.error && <p className="pt-6 text-reading text-rosy">{messageOf(learning.error)}</p>}
      {learning.data && learning.data.factors.length === 0 && (
        <p className="pt-8 text-reading">
          Nothing has been seen yet that speaks of a default. Feel a dough at the bench, weigh a tray until it
          is dry, or measure the foam of a bath.
        </p>
      )}
      {learning.data && learning.data.factors.length > 0 && <Factors learning={learning.data} />}
      {learning.data && learning.data.errors.length > 0 && <Errors learning={learning.data} />}
      {learning.data && learning.data.set_aside.length > 0 && <SetAside learning={learning.data} />}
    </div>
  );
}

/** What is still to be read: how far it is while it is being read, else a way to go on. */
function Waiting({ learning }: { learning: Learning }) {
  const readOn = useReadOn();
  const say = useNotice();
  const put = (on: boolean) => {
    readOn.mutateAsync(on).catch((error: unknown) => say(messageOf(error), { asks: true }));
  };
  if (learning.reading) return <Reading onStop={() => put(false)} />;
  const one = learning.waiting === 1;
  return (
    <p className="flex flex-wrap items-baseline gap-5 pt-3 text-body">
      {figure(learning.waiting)} {one ? "batch, tray or bath has" : "batches, trays and baths have"} still to
      be read; what is below is learnt from the rest.
      <Button onClick={() => put(true)}>Go on reading</Button>
    </p>
  );
}

function Reading({ onStop }: { onStop: () => void }) {
  const progress = useLearningProgress();
  const { done = 0, whole = 0 } = progress.data ?? {};
  return <HowFar done={done} whole={whole} of="batches, trays and baths are read" onStop={onStop} />;
}

function summary(learning: Learning): string {
  const used = learning.factors.filter((each) => each.used !== null).length;
  const counted = (n: number, one: string, more: string) => `${figure(n)} ${n === 1 ? one : more}`;
  const some = (n: number, one: string, more: string) => (n ? `${counted(n, one, more)}, ` : "");
  const measured =
    some(learning.ropes, "rope", "ropes") +
    some(learning.drops, "drop test", "drop tests") +
    some(learning.shaped, "batch of weighed pieces", "batches of weighed pieces");
  return `From ${measured}${counted(learning.batches, "batch felt", "batches felt")}, ${counted(learning.trays, "tray weighed dry", "trays weighed dry")} and ${counted(learning.tests, "height", "heights")} of foam. ${
    used === 0
      ? "Nothing of it is used yet."
      : `${used} ${used === 1 ? "factor is" : "factors are"} used in every reading.`
  }`;
}

/** What could not be learnt from, and why; alike reasons once, with their number. */
function SetAside({ learning }: { learning: Learning }) {
  const counted = new Map<string, number>();
  for (const each of learning.set_aside) {
    const said = `${each.kind}: ${inUnits(each.reason)}.`;
    counted.set(said, (counted.get(said) ?? 0) + 1);
  }
  return (
    <section aria-label="Set aside" className="pt-8">
      <h2 className="text-row italic text-soft">Set aside</h2>
      <ul className="text-body">
        {[...counted].map(([said, n]) => (
          <li key={said}>
            {said} {n > 1 && <span className="text-soft">{figure(n)} times</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Factors({ learning }: { learning: Learning }) {
  return (
    <ul className="max-w-[1100px] pt-6">
      {learning.factors.map((factor) => (
        <li
          key={factor.id}
          className="grid grid-cols-[420px_1fr_auto] items-center gap-x-8 border-b-[0.9px] border-ink py-3 max-[1000px]:grid-cols-1"
        >
          <FactorStrip factor={factor} />
          <div>
            <p className={`text-body ${factor.used === null ? "" : "font-semibold"}`}>
              {inUnits(factor.message)}
            </p>
            <Tally n={factor.n} />
          </div>
          <Use factor={factor} />
        </li>
      ))}
    </ul>
  );
}

function Use({ factor }: { factor: LearntFactor }) {
  const use = useFactor();
  const say = useNotice();
  const put = async (accepted: boolean) => {
    try {
      await use.mutateAsync({ factor: factor.id, accepted });
      say(accepted ? "Used in every reading from now on." : "The default is used again.", {
        action: { label: "Take it back", run: () => void put(!accepted) },
      });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <Button
      aria-label={`${factor.used === null ? "Use yours" : "Use the default again"}: ${factor.id}`}
      disabled={use.isPending}
      className="min-h-12"
      onClick={() => void put(factor.used === null)}
    >
      {factor.used === null ? "Use yours" : "Use the default again"}
    </Button>
  );
}

/** What is learnt of, and no reading of a formula. */
const NO_READINGS: Record<string, string> = {
  "piece.mass_g": "What a tool takes",
  "batch.loss_pct": "What a bowl loses",
};
const LONG = 360;

/** How far off, before and after: two fronts on one paper, the gap between them printed. */
function Errors({ learning }: { learning: Learning }) {
  const reference = useReference();
  const names = new Map(reference.data?.readings.map((reading) => [reading.id, reading.label]));
  return (
    <section aria-label="What it mends" className="pt-8">
      <h2 className="text-row italic text-soft">
        How far readings are off, before learning and after, each observation judged by all the others
      </h2>
      <table className="mt-2 text-body">
        <tbody>
          {learning.errors.map((error, index) => {
            const most = Math.max(error.before, error.after, 1e-9);
            const [before, after] = [(LONG * error.before) / most, (LONG * error.after) / most];
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: a reading may stand twice, and errors keep their order
              <tr key={index} className="border-b-[0.9px] border-ink">
                <th scope="row" className="py-1 pr-8 text-left font-medium">
                  {names.get(error.reading) ?? NO_READINGS[error.reading] ?? error.reading}
                </th>
                <td>
                  <svg width={LONG + 12} height="30" aria-hidden="true">
                    <path
                      d={`M0 8H${before}q6 5 0 12H0Z`}
                      fill="var(--lit)"
                      stroke="var(--ink)"
                      strokeWidth="1"
                    />
                    <path
                      d={`M0 8H${after}q6 5 0 12H0Z`}
                      fill="var(--vtint)"
                      stroke="var(--ink)"
                      strokeWidth="1.2"
                    />
                  </svg>
                </td>
                <td className="pl-6">
                  {figure(error.before)} → <b>{figure(error.after)}</b>
                  <span className="block text-caption text-soft">
                    {error.measure}, {error.n} seen
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
