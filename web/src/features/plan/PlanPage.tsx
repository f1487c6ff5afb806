import { Fragment, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  type BatchPlan,
  beginBatch,
  type FormulaAnswer,
  messageOf,
  type PlanAsk,
  type RunSheet,
  sheetAddress,
  useFormula,
  useMoulds,
  usePlan,
  useReference,
  useSaveMoulds,
} from "../../api";
import { askingKey } from "../../lib/askingKey";
import { percent, sayMass } from "../../lib/numbers";
import { inUnits, massUnit, temperatureUnit } from "../../lib/units";
import { Button, NumberInput, useNotice } from "../../ui";
import { Needs } from "./Needs";
import { RollDrawing } from "./RollDrawing";
import { RunSheetPaper } from "./RunSheetPaper";
import { StageLine, span } from "./StageLine";
import { WeighLine } from "./WeighLine";
import { WishRow } from "./WishRow";
import { newPlan, newWish, type PlanDraft, refusal, toAsk, type WishDraft } from "./wishes";

/** How many, of what, by when: batch, bowls, needs, times and the run sheet follow. */
export function PlanPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  if (formula.error && !formula.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(formula.error)}</p>;
  if (!formula.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Plan key={id} id={id} answer={formula.data} />;
}

function Plan({ id, answer }: { id: number; answer: FormulaAnswer }) {
  const { room, piece } = answer.formula;
  const [draft, setDraft] = useState<PlanDraft>(() =>
    newPlan(room.temperature_c, room.humidity_pct, piece.wished_pieces?.toString()),
  );
  const [asked, setAsked] = useState<PlanAsk>(() => toAsk(draft));
  const reference = useReference();
  const moulds = useMoulds();
  const saveMoulds = useSaveMoulds();
  const say = useNotice();
  const onMoulds = async (tool: string, count: number | null) => {
    try {
      await saveMoulds.mutateAsync({ tool, count });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const refused = refusal(draft);
  const { data: plan, error } = usePlan(id, asked);
  const change = (patch: Partial<PlanDraft>) => {
    const next = { ...draft, ...patch };
    setDraft(next);
    if (refusal(next) === null) setAsked(toAsk(next));
  };
  const changeWish = (key: number, patch: Partial<WishDraft>) =>
    change({ wishes: draft.wishes.map((wish) => (wish.key === key ? { ...wish, ...patch } : wish)) });
  return (
    <div className="pb-16 pl-14 pr-9 pt-2 print:p-0">
      <div className="no-print">
        <h1>{answer.formula.name}</h1>
        <p className="text-row text-soft">
          {plan ? `${plan.run_sheet.method_name}, ${plan.run_sheet.set_time} to set. ` : ""}
          <Link className="underline underline-offset-4" to={`/formulas/${id}`}>
            Back to its Desk
          </Link>
        </p>
        <div className="flex flex-wrap items-end justify-between gap-6 pt-4">
          <div>
            {draft.by === "mass" && (
              <p className="text-state font-[400] leading-10">
                <NumberInput
                  aria-label="Batch in grams"
                  className="w-24 text-center font-semibold"
                  value={draft.batch}
                  onChange={(event) => change({ batch: event.target.value })}
                />{" "}
                {massUnit()} in all.
              </p>
            )}
            {draft.wishes.map((wish, index) => (
              <WishRow
                key={wish.key}
                wish={wish}
                index={index}
                counted={draft.by === "mass" && index === 0}
                tools={reference.data?.tools ?? []}
                moulds={moulds.data?.counts ?? {}}
                onMoulds={(tool, count) => void onMoulds(tool, count)}
                onChange={(patch) => changeWish(wish.key, patch)}
                onRemove={
                  draft.wishes.length > 1
                    ? () => change({ wishes: draft.wishes.filter((each) => each.key !== wish.key) })
                    : undefined
                }
              />
            ))}
            <Settings draft={draft} change={change} />
            {plan && (
              <Schools
                schools={plan.run_sheet.schools}
                onTake={(school, option) => change({ schools: { ...draft.schools, [school]: option } })}
              />
            )}
          </div>
          <Actions id={id} asked={asked} ready={!!plan && !error && refused === null} />
        </div>
        {refused && (
          <p role="alert" className="text-label text-rosy">
            {refused}
          </p>
        )}
        {error && (
          <p role="alert" className="pt-4 text-reading text-rosy">
            {messageOf(error)}
          </p>
        )}
        {plan && !error && <Summary plan={plan} />}
        {plan && !error && (
          <p className="text-body">
            <a
              className="inline-block min-h-7 border-b border-ink"
              download
              href={sheetAddress(id, plan.run_sheet)}
            >
              Run sheet as PDF
            </a>
          </p>
        )}
      </div>
      {plan && !error && (
        <>
          <div className="no-print">
            <StageLine plan={plan} />
            {plan.order.pieces.map((planned) => (
              <RollDrawing key={`${planned.tool}${planned.pieces}`} planned={planned} />
            ))}
            <WeighLine sheet={plan.run_sheet} />
          </div>
          <Needs key={JSON.stringify(plan.order.needs.map((need) => need.on_hand_g))} plan={plan} />
          <RunSheetPaper sheet={plan.run_sheet} />
        </>
      )}
    </div>
  );
}

function Settings({ draft, change }: { draft: PlanDraft; change: (patch: Partial<PlanDraft>) => void }) {
  return (
    <>
      <p className="flex gap-6 text-body">
        <button
          type="button"
          className="min-h-7 border-b border-ink"
          onClick={() => change({ wishes: [...draft.wishes, newWish()] })}
        >
          And another tool
        </button>
        <button
          type="button"
          className="min-h-7 border-b border-ink"
          onClick={() => change({ by: draft.by === "mass" ? "pieces" : "mass" })}
        >
          {draft.by === "mass" ? "Count pieces instead" : "Give the mass instead"}
        </button>
      </p>
      <p className="pt-2 text-row">
        One bowl holds{" "}
        <NumberInput
          aria-label="What one bowl holds in grams"
          placeholder="all of it"
          className="w-20 text-center font-semibold"
          value={draft.bowl}
          onChange={(event) => change({ bowl: event.target.value })}
        />{" "}
        {massUnit()}; it dries at{" "}
        <NumberInput
          aria-label="Temperature of the drying room in degrees Celsius"
          className="w-12 text-center font-semibold"
          value={draft.room}
          onChange={(event) => change({ room: event.target.value })}
        />{" "}
        {temperatureUnit()} and{" "}
        <NumberInput
          aria-label="Humidity of the drying room in per cent"
          className="w-12 text-center font-semibold"
          value={draft.humidity}
          onChange={(event) => change({ humidity: event.target.value })}
        />{" "}
        % humidity;{" "}
        <select
          aria-label="Reckon from"
          className="written font-semibold"
          value={draft.when}
          onChange={(event) => change({ when: event.target.value as PlanDraft["when"] })}
        >
          <option value="now">beginning now</option>
          <option value="start">beginning at</option>
          <option value="ready">ready by</option>
        </select>
        {draft.when !== "now" && (
          <>
            {" "}
            <input
              type="datetime-local"
              aria-label="Day and hour"
              className="written font-semibold"
              value={draft.moment}
              onChange={(event) => change({ moment: event.target.value })}
            />
          </>
        )}
        .
      </p>
    </>
  );
}

/** Where makers differ: one sentence, each choice in its place. */
function Schools({
  schools,
  onTake,
}: {
  schools: RunSheet["schools"];
  onTake: (school: string, option: string) => void;
}) {
  if (schools.length === 0) return null;
  return (
    <p className="max-w-[640px] pt-2 text-row">
      {schools.map((school, index) => (
        <Fragment key={school.id}>
          {index === 0 ? school.question.charAt(0).toUpperCase() + school.question.slice(1) : school.question}{" "}
          <select
            aria-label={school.question}
            className="written font-semibold"
            value={school.taken}
            onChange={(event) => onTake(school.id, event.target.value)}
          >
            {school.options.map((option) => (
              <option key={option.id} value={option.id}>
                {option.name}
              </option>
            ))}
          </select>
          {index < schools.length - 1 ? "; " : "."}
        </Fragment>
      ))}
    </p>
  );
}

function Actions({ id, asked, ready }: { id: number; asked: PlanAsk; ready: boolean }) {
  const navigate = useNavigate();
  const say = useNotice();
  const key = useRef(askingKey());
  const onBegin = async () => {
    try {
      const batch = await beginBatch(id, asked, key.current);
      await navigate(`/bench/${batch.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <p className="flex gap-6">
      <Button onClick={() => window.print()} disabled={!ready}>
        Print the run sheet
      </Button>
      <Button primary onClick={() => void onBegin()} disabled={!ready}>
        Take it to the bench
      </Button>
    </p>
  );
}

function Summary({ plan }: { plan: BatchPlan }) {
  const { order, schedule } = plan;
  const bowls = order.bowls_g.length;
  return (
    <>
      <p className="pt-1 text-body text-soft">
        {order.pieces
          .map((item) => `${item.pieces} × ${sayMass(item.piece_mass_g)} (${item.basis})`)
          .join(", ")}
        ; weigh <b className="text-ink">{sayMass(order.batch_g)}</b>
        {bowls > 1 && ` in ${bowls} bowls of ${sayMass(order.bowls_g[0] ?? 0)}`}, of which about{" "}
        {percent((100 * order.loss_g) / order.batch_g)} % stays on bowl and gloves
        {order.leftover_g >= 1 && ` and ${sayMass(order.leftover_g)} are left over`}.{" "}
        {order.portions.length > 1 &&
          `Portions: ${order.portions.map((item) => `${item.name} ${sayMass(item.mass_g)} (${item.share_pct.toFixed(0)} %)`).join(", ")}. `}
        Hands are needed for{" "}
        {span(schedule.stages.filter((stage) => stage.hands).reduce((sum, stage) => sum + stage.minutes, 0))}.
      </p>
      {[...schedule.conflicts, ...order.notes].map((sentence) => (
        <p key={sentence} className="text-body font-semibold text-rosy">
          {inUnits(sentence)}
        </p>
      ))}
    </>
  );
}
