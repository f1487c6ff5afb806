import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  type Batch,
  batchRecordAddress,
  getFormula,
  type Happening,
  type IngredientSummary,
  messageOf,
  putFormula,
  useBatch,
  useCreateFormula,
  useHappen,
  useIngredients,
  useReference,
  useRefreshBatch,
} from "../../api";
import { emptied } from "../../lib/emptied";
import { figure, sayMass } from "../../lib/numbers";
import { valueAt, watchedOf } from "../../lib/readings";
import { inUnits } from "../../lib/units";
import { Button, Photos, useActInTurn, useNotice } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { useSetOutBatch } from "../rack/useSetOutBatch";
import { DeviationLine } from "./DeviationLine";
import { DrawnLots } from "./DrawnLots";
import { HeldList } from "./HeldList";
import { Outcome } from "./Outcome";

/** The record of one batch: as planned, as weighed, as corrected, and what became of it. */
export function BatchPage() {
  const id = Number(useParams().batchId);
  const batch = useBatch(id);
  const ingredients = useIngredients();
  const byId = useMemo(
    () => new Map((ingredients.data?.ingredients ?? []).map((item) => [item.id, item])),
    [ingredients.data],
  );
  if (batch.error && !batch.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(batch.error)}</p>;
  if (!batch.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <BatchRecord key={id} batch={batch.data} ingredients={byId} />;
}

function BatchRecord({
  batch,
  ingredients,
}: {
  batch: Batch;
  ingredients: ReadonlyMap<string, IngredientSummary>;
}) {
  const happen = useHappen(batch.id);
  const setOut = useSetOutBatch(batch);
  const refresh = useRefreshBatch(batch.id);
  const act = useActInTurn(
    batch,
    (after, event: Happening) => happen.mutateAsync({ after, event }),
    "The batch has moved on; this is how it stands now.",
  );
  const moment = (iso: string) =>
    new Date(iso).toLocaleString("en-GB", {
      day: "numeric",
      month: "short",
      hour: "2-digit",
      minute: "2-digit",
    });
  return (
    <div className="pb-16 pl-14 pr-9 pt-2 print:p-0">
      <h1>
        {batch.name}, batch {batch.id}
      </h1>
      <p className="text-row text-soft">
        Version {batch.version}, {sayMass(batch.batch_g)} as planned, begun {moment(batch.created_at)}.{" "}
        {batch.closed_at ? `Closed ${moment(batch.closed_at)}: it stays as it is.` : "Still open."}{" "}
        <span className="no-print">
          {!batch.closed_at && (
            <Link className="underline underline-offset-4" to={`/bench/${batch.id}`}>
              To the bench
            </Link>
          )}{" "}
          <button type="button" className="underline underline-offset-4" onClick={() => void setOut()}>
            On the rack
          </button>{" "}
          <Link className="underline underline-offset-4" to={`/formulas/${batch.formula_id}`}>
            Its Desk
          </Link>{" "}
          <Link className="underline underline-offset-4" to={`/batches/${batch.id}/beside`}>
            Beside another
          </Link>{" "}
          <Link className="underline underline-offset-4" to={`/tub?batch=${batch.id}`}>
            To the tub
          </Link>{" "}
          <Link className="underline underline-offset-4" to={`/batches/${batch.id}/label`}>
            Its label
          </Link>{" "}
          <Link className="underline underline-offset-4" to={`/clinic?batch=${batch.id}`}>
            What went wrong?
          </Link>{" "}
          <a className="underline underline-offset-4" href={batchRecordAddress(batch.id, "json")} download>
            JSON
          </a>{" "}
          <a className="underline underline-offset-4" href={batchRecordAddress(batch.id, "pdf")} download>
            PDF
          </a>
        </span>
      </p>
      <DeviationLine batch={batch} ingredients={ingredients} />
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-14 pt-6 max-[1000px]:grid-cols-1">
        <Readings batch={batch} />
        <Story batch={batch} moment={moment} />
      </div>
      <HeldList batch={batch} act={act} />
      {batch.closed_at && <DrawnLots batch={batch.id} />}
      {!batch.closed_at && <Outcome key={batch.state.seq} batch={batch} act={act} />}
      <Photos
        of={{ noun: "batches", id: batch.id }}
        names={batch.state.photos}
        what="Batch"
        after={batch.state.seq}
        onKept={refresh}
      />
      <Foot batch={batch} act={act} />
    </div>
  );
}

/** A reading of a batch; one of several portions is told by its first dough. */
function told(evaluation: Batch["now"], reading: string): number | null {
  const first = evaluation.portions[0];
  const ofDough = reading.startsWith("dough.") && !evaluation.dough && first;
  return valueAt(ofDough ? first : evaluation, reading);
}

function Readings({ batch }: { batch: Batch }) {
  const reference = useReference();
  const shown = (value: number | null) => (value === null ? "–" : figure(value));
  return (
    <table className="self-start text-body">
      <caption className="text-left text-row italic text-soft">What was planned, and what was made</caption>
      <HeadRow columns={["", { says: "as planned", right: true }, { says: "as made", right: true }]} />
      <tbody>
        {watchedOf(reference.data?.readings ?? []).map(({ id, label, unit }) => {
          const before = shown(told(batch.before, id));
          const now = shown(told(batch.now, id));
          return (
            <tr
              key={id}
              className={`border-b-[0.9px] border-ink ${before === now ? "text-soft" : "font-bold"}`}
            >
              <th scope="row" className="py-0.5 text-left [font-weight:inherit]">
                {label} <span className="text-caption font-medium text-soft">{unit}</span>
              </th>
              <td className="text-right">{before}</td>
              <td className="text-right">{now}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Story({ batch, moment }: { batch: Batch; moment: (iso: string) => string }) {
  return (
    <section aria-label="What happened">
      <h2 className="text-row italic text-soft">What happened</h2>
      {batch.events.length === 0 && <p className="text-body">Nothing yet.</p>}
      <ol className="text-body">
        {batch.events.map((entry) => (
          <li key={entry.seq} className="grid grid-cols-[112px_1fr] border-b-[0.9px] border-ink py-0.5">
            <time dateTime={entry.at} className="text-caption text-soft">
              {moment(entry.at)}
            </time>
            <span className={["skipped", "rescued", "corrected"].includes(entry.kind) ? "font-semibold" : ""}>
              {inUnits(entry.text)}
              {entry.made_at && late(entry.made_at, entry.at) && (
                <span className="text-soft"> Made {moment(entry.made_at)}, heard then.</span>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

const LATE_MS = 60_000;
/** Whether an event was heard well after it was made: it had waited on a device. */
const late = (made: string, heard: string) => new Date(heard).getTime() - new Date(made).getTime() > LATE_MS;

function Foot({ batch, act }: { batch: Batch; act: (event: Happening) => Promise<boolean> }) {
  const [text, setText] = useState("");
  const [asking, setAsking] = useState(false);
  const create = useCreateFormula();
  const navigate = useNavigate();
  const say = useNotice();
  const onWord = async () => {
    if (!text.trim()) return;
    const event: Happening = batch.closed_at
      ? { kind: "amended", text: text.trim() }
      : { kind: "note", text: text.trim() };
    if (await act(event)) setText(emptied(text));
  };
  const onMade = async () => {
    try {
      const made = await create.mutateAsync({
        ...batch.made,
        name: `${batch.name}, as made in batch ${batch.id}`,
      });
      await navigate(`/formulas/${made.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const onNext = async () => {
    try {
      const formula = await getFormula(batch.formula_id);
      const made = { ...batch.made, room: batch.planned.room, name: formula.formula.name };
      await putFormula(batch.formula_id, formula.revision, made);
      await navigate(`/formulas/${batch.formula_id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <div className="no-print flex flex-wrap items-end gap-6 pt-8">
      <form
        className="flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void onWord();
        }}
      >
        <label className="text-caption italic text-soft">
          {batch.closed_at ? "Amend it; the record itself stays as it is" : "A note"}
          <input
            className="written block w-96 text-row not-italic text-ink"
            maxLength={2000}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <Button type="submit">{batch.closed_at ? "Amend" : "Note it"}</Button>
      </form>
      <Button onClick={() => void onNext()}>Make it the next version</Button>
      <Button onClick={() => void onMade()}>Begin a formula from it, as made</Button>
      <Button onClick={() => window.print()}>Print the record</Button>
      {!batch.closed_at &&
        (asking ? (
          <span className="text-body">
            Nothing can be changed after that.{" "}
            <Button primary onClick={() => void act({ kind: "closed" })}>
              Close it for good
            </Button>{" "}
            <Button onClick={() => setAsking(false)}>Not yet</Button>
          </span>
        ) : (
          <Button primary onClick={() => setAsking(true)}>
            Close the record…
          </Button>
        ))}
    </div>
  );
}
