import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  ApiError,
  type Batch,
  beginNextBowl,
  type Happening,
  messageOf,
  type Reference,
  useAwake,
  useBatch,
  useBenchEvents,
  useIngredients,
  useReference,
  useRefreshBatch,
  useStream,
} from "../../api";
import { pressOf } from "../../lib/benchQueue";
import { useInTurn } from "../../lib/inTurn";
import { sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { KettleMark, useNotice } from "../../ui";
import { HeldList, RefusedList } from "../batches/HeldList";
import { useSetOutBatch } from "../rack/useSetOutBatch";
import { useSound, useTouched } from "./alarm";
import { BenchFrame, stepInHand } from "./BenchFrame";
import { DeviceDrawer } from "./DeviceDrawer";
import { Hourglass, Press, useLeft } from "./parts";
import { SkipSheet } from "./SkipSheet";
import type { StepProps } from "./step";

/** The run sheet made live: one step at a time. */
export function BenchPage() {
  const id = Number(useParams().batchId);
  const batch = useBatch(id);
  const reference = useReference();
  // While the network is away asking again fails, and what is known stays on the screen.
  if (batch.error && !batch.data)
    return <p className="px-14 py-10 text-state text-rosy">{messageOf(batch.error)}</p>;
  if (!batch.data || !reference.data) return <p className="px-14 py-10 text-state text-soft">Opening…</p>;
  return <Bench key={id} batch={batch.data} reference={reference.data} />;
}

function Bench({ batch: known, reference }: { batch: Batch; reference: Reference }) {
  const say = useNotice();
  const events = useBenchEvents(known);
  const batch = events.batch;
  const refresh = useRefreshBatch(batch.id);
  const devices = useStream(batch.id, known.state.seq, () => void refresh());
  const [skipping, setSkipping] = useState(false);
  const ingredients = useIngredients();
  const byId = useMemo(
    () => new Map((ingredients.data?.ingredients ?? []).map((item) => [item.id, item])),
    [ingredients.data],
  );
  useAwake();
  const { state } = batch;
  const step = stepInHand(batch);
  const act = useInTurn(async (event: Happening) => {
    try {
      await events.act(event);
      return true;
    } catch (error) {
      say(messageOf(error), { asks: true });
      return false;
    }
  }, pressOf);
  const onBack = () => {
    const before = state.current === null ? state.steps.length - 1 : state.current - 1;
    const earlier = state.steps[before];
    if (earlier) void act({ kind: "back", step: earlier.key });
  };
  return (
    <>
      <BenchFrame
        batch={batch}
        reference={reference}
        devices={devices}
        ingredients={byId}
        act={act}
        onBack={onBack}
        onSkip={() => setSkipping(true)}
        telling={events.busy}
        head={<Head batch={batch} />}
        said={
          <>
            {events.waiting > 0 && (
              <p
                role="status"
                className="border-y-2 border-rosy py-1 text-bench-note font-semibold text-rosy"
              >
                The studio does not answer. {events.waiting}{" "}
                {events.waiting === 1 ? "thing is" : "things are"} kept on this tablet and written down once
                it does.
              </p>
            )}
            <HeldList batch={batch} act={act} />
            <RefusedList refused={events.refused} onSetAside={events.setAside} />
          </>
        }
        beside={
          <>
            <Timer batch={batch} />
            <LeftOut batch={batch} act={act} weighing={step?.kind === "weigh"} />
          </>
        }
        foot={<DeviceDrawer devices={devices} />}
        finished={<Finished batch={batch} act={act} onBack={onBack} />}
      />
      {skipping && step && (
        <SkipSheet
          step={step}
          onClose={() => setSkipping(false)}
          onSkip={async (why) => {
            setSkipping(false);
            await act({ kind: "skipped", step: step.key, why });
          }}
        />
      )}
    </>
  );
}

function Head({ batch }: { batch: Batch }) {
  const [sound, turnSound] = useSound();
  const touched = useTouched();
  return (
    <header className="flex min-h-14 items-center justify-between">
      <Link to="/" className="flex min-h-12 items-center gap-3 text-bench-key font-semibold">
        <KettleMark />
        <span className="sr-only">All formulas; this is </span>
        {batch.name}, version {batch.version}
        {batch.bowls > 1 && `, bowl ${batch.bowl} of ${batch.bowls}`}
      </Link>
      <nav aria-label="Places of work" className="flex gap-6 text-bench-key">
        <button
          type="button"
          className="min-h-12 min-w-12 text-soft"
          aria-pressed={sound}
          onClick={turnSound}
        >
          Sound {sound ? (touched ? "on" : "on, once you touch the page") : "off"}
        </button>
        <Link className="flex min-h-12 min-w-12 items-center" to={`/formulas/${batch.formula_id}`}>
          Desk
        </Link>
        <Link className="flex min-h-12 min-w-12 items-center" to="/bench">
          All batches
        </Link>
        <Link className="flex min-h-12 min-w-12 items-center" to={`/batches/${batch.id}`}>
          Record
        </Link>
      </nav>
    </header>
  );
}

function Timer({ batch }: { batch: Batch }) {
  const { timer, current, steps } = batch.state;
  const left = useLeft(timer?.ends_at);
  const step = current === null ? null : steps[current];
  if (!timer || left === null || step?.kind === "rest") return null;
  return (
    <div className="flex justify-end">
      <Hourglass
        left={left}
        whole={(timer.minutes * 60) / batch.clock_rate}
        word={left > 0 ? "rest" : "time is up"}
      />
    </div>
  );
}

/** What was left out stays in sight until it is weighed or the batch is closed. */
function LeftOut({ batch, act, weighing }: { batch: Batch; act: StepProps["act"]; weighing: boolean }) {
  const { steps, status, skipped } = batch.state;
  const left = steps.filter((step, index) => step.kind === "weigh" && status[index] === "skipped");
  if (left.length === 0) return null;
  return (
    <ul aria-label="Left out" className="pb-2">
      {left.map((step) => (
        <li
          key={step.key}
          className="flex items-center justify-between gap-4 border-b border-rosy text-bench-note text-rosy"
        >
          <span>
            Left out: {step.title.replace(/^Weigh /, "")}
            {!weighing && ` (${skipped.findLast(([key]) => key === step.key)?.[1] ?? ""})`}
          </span>
          <button
            type="button"
            className="min-h-12 px-3 font-bold underline underline-offset-4"
            onClick={() => void act({ kind: "back", step: step.key })}
          >
            Weigh it now
          </button>
        </li>
      ))}
    </ul>
  );
}

function Finished({ batch, act, onBack }: { batch: Batch; act: StepProps["act"]; onBack: () => void }) {
  const navigate = useNavigate();
  const say = useNotice();
  const another = batch.bowl < batch.bowls;
  const onNextBowl = async () => {
    try {
      const next = await beginNextBowl(batch.id);
      await navigate(`/bench/${next.id}`);
    } catch (error) {
      // Begun already, on this screen or another: go there.
      const begun = error instanceof ApiError ? error.details.id : undefined;
      if (typeof begun === "number") await navigate(`/bench/${begun}`);
      else say(messageOf(error), { asks: true });
    }
  };
  const setOut = useSetOutBatch(batch);
  const left = batch.state.status.filter((status) => status === "skipped").length;
  return (
    <>
      <h1 className="text-bench-step font-medium leading-tight">On the paper</h1>
      <p className="text-bench-line">
        {batch.state.pieces_done} pieces from {sayMass(batch.now.mass_g)}.{" "}
        {left > 0 && <b className="text-rosy">{left} left out. </b>}
        {batch.now.drying.hours !== null
          ? `Dry after about ${Math.round(batch.now.drying.hours)} h.`
          : `It will not dry: ${inUnits(batch.now.drying.reason ?? "")}.`}
      </p>
      <div className="flex gap-3">
        {!batch.closed_at && <Press onClick={onBack}>Back</Press>}
        <Press onClick={() => void navigate(`/batches/${batch.id}`)}>To the record</Press>
        <Press next={!another} onClick={() => void setOut()}>
          Set out on the rack
        </Press>
        {another && (
          <Press next onClick={() => void onNextBowl()}>
            Bowl {batch.bowl + 1} of {batch.bowls}
          </Press>
        )}
      </div>
      {!batch.closed_at && (
        <p className="text-bench-note text-soft">
          The record stays open for what becomes of it; close it there.{" "}
          <button
            type="button"
            className="min-h-12 border-b border-ink px-2 text-ink"
            onClick={() => void act({ kind: "pieces", count: 1 })}
          >
            One more piece
          </button>
        </p>
      )}
    </>
  );
}
