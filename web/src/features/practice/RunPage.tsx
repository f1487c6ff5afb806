import { useMemo } from "react";
import { Link, useParams } from "react-router";
import {
  type Devices,
  messageOf,
  type PracticeDeed,
  type PracticeRun,
  useActInRun,
  useIngredients,
  usePracticeRun,
  useReference,
} from "../../api";
import { pressOf } from "../../lib/benchQueue";
import { useInTurn } from "../../lib/inTurn";
import { fixed, sayTemperature } from "../../lib/numbers";
import { KettleMark, useNotice } from "../../ui";
import { BenchFrame } from "../bench";
import { Debrief } from "./Debrief";
import { Hand } from "./Hand";

/** What a practice bowl has in the way of devices: none, its clock and its thermometer stand in the head. */
const NO_DEVICES: Devices = { scale: null, thermometer: null, hygrometer: null, live: false };

/** A practice bowl at the Bench: its screens, a dough that is drawn, a clock that runs fast. Marked on every side. */
export function RunPage() {
  const run = usePracticeRun(Number(useParams().runId));
  if (run.error && !run.data)
    return <p className="px-14 py-10 text-state text-rosy">{messageOf(run.error)}</p>;
  if (!run.data) return <p className="px-14 py-10 text-state text-soft">Opening…</p>;
  if (run.data.ended && run.data.debrief)
    return (
      <div className="px-12 pb-16">
        <Head run={run.data} />
        <main id="page">
          <h1>{run.data.title}</h1>
          <Debrief run={run.data} found={run.data.debrief} />
        </main>
      </div>
    );
  return <AtTheBench run={run.data} />;
}

function AtTheBench({ run }: { run: PracticeRun }) {
  const act = useActInRun(run.id);
  const say = useNotice();
  const reference = useReference();
  const ingredients = useIngredients();
  const byId = useMemo(
    () => new Map((ingredients.data?.ingredients ?? []).map((item) => [item.id, item])),
    [ingredients.data],
  );
  const onDo = useInTurn(async (deed: PracticeDeed) => {
    try {
      await act.mutateAsync(deed);
      return true;
    } catch (error) {
      say(messageOf(error), { asks: true });
      return false;
    }
  }, pressOfDeed);
  const shaped = act.isPending && act.variables !== undefined && endsIt(run, act.variables);
  if (!reference.data) return null;
  return (
    <BenchFrame
      batch={run.bench}
      reference={reference.data}
      devices={NO_DEVICES}
      ingredients={byId}
      act={(event) => onDo({ event })}
      onSkip={() => undefined}
      telling={act.isPending}
      head={<Head run={run} />}
      hand={<Hand run={run} onDo={(what) => void onDo({ act: what })} />}
      judged={run.fresh}
      said={
        shaped && (
          <p role="status" className="text-bench-note">
            Shaped. Looking for what the best hand would have done…
          </p>
        )
      }
      finished={null}
    />
  );
}

/** Minutes and handfuls pressed twice before the answer are meant once. */
const pressOfDeed = (deed: PracticeDeed) =>
  "event" in deed ? pressOf(deed.event) : `${deed.act.kind} ${deed.act.value}`;

/** Whether this is the last thing to do: the pieces are shaped. */
const endsIt = ({ bench: { state } }: PracticeRun, deed: PracticeDeed) =>
  "event" in deed &&
  deed.event.kind === "done" &&
  state.current !== null &&
  state.steps[state.current]?.kind === "shape";

function Head({ run }: { run: PracticeRun }) {
  return (
    <header>
      <div className="flex min-h-14 items-center justify-between gap-6">
        <Link to="/practice" className="flex min-h-12 items-center gap-3 text-bench-key font-semibold">
          <KettleMark />
          <span className="sr-only">All practice bowls; this is </span>
          {run.title}
        </Link>
        <p className="flex items-baseline gap-6 text-bench-note">
          <b>{fixed(run.minutes, 1, true)} min</b>
          <b>{sayTemperature(run.temperature_c)}</b>
          <span className="text-bench-key text-soft">
            room {sayTemperature(run.room_c)}, {run.humidity_pct} % RH
          </span>
        </p>
        <nav aria-label="Places of work" className="text-bench-key">
          <Link className="flex min-h-12 min-w-12 items-center" to="/practice">
            All bowls
          </Link>
        </nav>
      </div>
      <p className="border-y-2 border-dashed border-rosy py-0.5 text-center text-body font-bold text-rosy">
        Practice: nothing here is weighed from your jars, written in your journal, or learnt from.
      </p>
    </header>
  );
}
