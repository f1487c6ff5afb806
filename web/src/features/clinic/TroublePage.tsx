import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  messageOf,
  type Trouble,
  type TroubleCause,
  takeChange,
  useAnswerTrouble,
  useDecideTrouble,
  useTrouble,
} from "../../api";
import { figure, fixed, sayMass } from "../../lib/numbers";
import { inUnits, readTyped, unitShown } from "../../lib/units";
import { Button, DrawingTools, NumberInput, useNotice } from "../../ui";
import { causeWords } from "./causeWords";
import { SymptomDrawing } from "./SymptomDrawing";

const SHOWN = 5;
const MEASURES = new Set(["°C", "%", "hours", "weeks", "times", "g", "L"]);

/** A conversation beside the piece's own record: what it may be, why, what is asked, what to do. */
export function TroublePage() {
  const trouble = useTrouble(Number(useParams().troubleId));
  if (trouble.error && !trouble.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(trouble.error)}</p>;
  if (!trouble.data) return <p className="px-14 py-10 text-reading text-soft">Reading the record…</p>;
  return <Sheet trouble={trouble.data} />;
}

function Sheet({ trouble }: { trouble: Trouble }) {
  const [more, setMore] = useState(false);
  const causes = more ? trouble.causes : trouble.causes.slice(0, SHOWN);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <div className="flex items-end gap-6">
        <SymptomDrawing drawing={trouble.drawing} size={120} />
        <div>
          <h1>{trouble.title}</h1>
          <p className="text-row text-soft">
            {trouble.name}.{" "}
            {trouble.batch_id !== null && (
              <Link className="underline underline-offset-4" to={`/batches/${trouble.batch_id}`}>
                Its record
              </Link>
            )}{" "}
            {trouble.formula_id !== null && (
              <Link className="underline underline-offset-4" to={`/formulas/${trouble.formula_id}`}>
                Its Desk
              </Link>
            )}{" "}
            <Link className="underline underline-offset-4" to="/clinic">
              Another trouble
            </Link>
          </p>
        </div>
      </div>
      {trouble.caution && (
        <p className="max-w-[860px] pt-3 text-reading font-semibold text-rosy">{trouble.caution}</p>
      )}
      <div className="grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-14 pt-4 max-[1000px]:grid-cols-1">
        <section aria-label="What it may be">
          <h2 className="flex justify-between text-row italic text-soft">
            What it may be
            <DrawingTools
              name={`${trouble.title}, causes`}
              columns={["Cause", "Chance, %"]}
              rows={trouble.causes.map((each) => [causeWords(each.id), fixed(100 * each.chance, 1)])}
              svg={() => null}
            />
          </h2>
          <ol>
            {causes.map((cause, index) => (
              <Cause key={cause.id} cause={cause} trouble={trouble} open={index === 0} />
            ))}
          </ol>
          {trouble.causes.length > SHOWN && (
            <button
              type="button"
              className="min-h-8 underline underline-offset-4"
              onClick={() => setMore(!more)}
            >
              {more ? "Only the likeliest" : `${trouble.causes.length - SHOWN} less likely ones`}
            </button>
          )}
        </section>
        <div>
          <Questions trouble={trouble} />
          <Outcome trouble={trouble} />
        </div>
      </div>
    </div>
  );
}

function Cause({ cause, trouble, open: first }: { cause: TroubleCause; trouble: Trouble; open: boolean }) {
  const [open, setOpen] = useState(first);
  const decide = useDecideTrouble(trouble.id);
  const navigate = useNavigate();
  const say = useNotice();
  const onChange = async () => {
    try {
      const { formula_id } = await takeChange(trouble.id, cause.id);
      say("Taken into the formula; what it was before is its version before, and Ctrl Z at the Desk.");
      await navigate(`/formulas/${formula_id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const was = trouble.outcome === cause.id;
  return (
    <li className="border-b-[0.9px] border-ink py-2">
      <button
        type="button"
        aria-expanded={open}
        className="flex w-full items-center gap-4 text-left"
        onClick={() => setOpen(!open)}
      >
        <Chance chance={cause.chance} />
        <span className="text-reading font-semibold">{causeWords(cause.id)}</span>
        {was && <span className="text-body font-bold text-verd">that was it</span>}
      </button>
      {open && (
        <div className="pl-[132px] text-body">
          <ul>
            {cause.evidence.map((each) => (
              <li key={each.what} className={each.supports ? "" : "text-soft"}>
                {each.supports ? "for" : "against"}: {inUnits(each.what)}{" "}
                <span className="text-caption text-soft">
                  <Source source={each.source} trouble={trouble} />
                </span>
              </li>
            ))}
          </ul>
          <p className="pt-2">
            <b>Now.</b> {inUnits(cause.now)}
          </p>
          <p>
            <b>Next time.</b> {inUnits(cause.next_time)}
          </p>
          {cause.change && <Change cause={cause} />}
          <p className="flex flex-wrap gap-4 pt-2">
            {cause.change && trouble.formula_id !== null && (
              <Button onClick={() => void onChange()}>Take the change into the formula</Button>
            )}
            {!was && (
              <Button
                onClick={() =>
                  void decide
                    .mutateAsync({ cause: cause.id, remark: trouble.remark })
                    .then(() => say("Kept. The studio's own experience counts from now on."))
                    .catch((error: unknown) => say(messageOf(error), { asks: true }))
                }
              >
                That was it
              </Button>
            )}
          </p>
        </div>
      )}
    </li>
  );
}

/** A hundred hairs, as many inked as the chance has hundredths. */
function Chance({ chance }: { chance: number }) {
  const path = (from: number, to: number) =>
    Array.from({ length: to - from }, (_, at) => `M${from + at + 0.5} 2v16`).join("");
  const inked = Math.round(100 * chance);
  return (
    <span className="flex w-[116px] shrink-0 items-center gap-2">
      <svg width="72" height="20" viewBox="0 0 100 20" preserveAspectRatio="none" aria-hidden="true">
        <path d={path(0, inked)} stroke="var(--verd)" strokeWidth=".8" />
        <path d={path(inked, 100)} stroke="var(--shade)" strokeWidth=".6" />
      </svg>
      <b className="text-body">{fixed(100 * chance, 0)} %</b>
    </span>
  );
}

const SOURCE_WORDS: Record<string, string> = {
  batch: "from the batch's record",
  reading: "by the readings",
  answer: "as you answered",
  prior: "common practice",
};

function Source({ source, trouble }: { source: string; trouble: Trouble }) {
  const words = SOURCE_WORDS[source] ?? source;
  const to =
    source === "batch" && trouble.batch_id !== null
      ? `/batches/${trouble.batch_id}`
      : source === "reading" && trouble.formula_id !== null
        ? `/formulas/${trouble.formula_id}`
        : null;
  return to ? (
    <Link className="underline underline-offset-2" to={to}>
      {words}
    </Link>
  ) : (
    words
  );
}

function Change({ cause }: { cause: TroubleCause }) {
  const lines = (cause.change ?? []) as { ingredient: string; before_g: number; after_g: number }[];
  return (
    <p className="pt-1">
      <b>As a change.</b>{" "}
      {lines
        .map(
          (each) =>
            `${each.ingredient.replaceAll("-", " ")} ${sayMass(each.before_g)} → ${sayMass(each.after_g)}`,
        )
        .join(", ")}
      .{" "}
      <span className="text-soft">
        {cause.effects
          .filter((each) => each.after === null || figure(each.after) !== figure(each.before))
          .map(
            (each) =>
              `${each.label} ${figure(each.before)} → ${each.after === null ? "–" : figure(each.after)}`,
          )
          .join(", ")}
      </span>
    </p>
  );
}

/** At most five questions, the most telling first; every one can be passed over. */
function Questions({ trouble }: { trouble: Trouble }) {
  const answer = useAnswerTrouble(trouble.id);
  const say = useNotice();
  const [passed, setPassed] = useState<readonly string[]>([]);
  const question = trouble.questions.find((each) => !passed.includes(each.id));
  const give = (id: string, value: string | number | null) =>
    void answer.mutateAsync({ [id]: value }).catch((error: unknown) => say(messageOf(error), { asks: true }));
  const answered = Object.entries(trouble.answers);
  return (
    <section aria-label="Questions">
      <h2 className="text-row italic text-soft">Asked</h2>
      {question ? (
        <div className="border-t-2 border-ink pt-2">
          <p className="text-reading font-semibold">{question.text}</p>
          <p className="flex flex-wrap items-end gap-3 pt-2">
            <Choices
              key={question.id}
              choices={question.choices}
              onGive={(value) => give(question.id, value)}
            />
            <Button onClick={() => setPassed([...passed, question.id])}>I do not know</Button>
          </p>
        </div>
      ) : (
        <p className="text-body text-soft">Nothing more to ask: what else could be said would tell little.</p>
      )}
      {answered.length > 0 && (
        <ul className="pt-3 text-body">
          {answered.map(([key, value]) => (
            <li key={key} className="flex justify-between border-b-[0.9px] border-ink py-0.5">
              <span>
                {key.replace(/_(c|pct|g|l)$/, "").replaceAll("_", " ")}: <b>{String(value)}</b>
              </span>
              <button
                type="button"
                className="min-h-6 text-caption underline"
                onClick={() => give(key, null)}
              >
                take it back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Choices({
  choices,
  onGive,
}: {
  choices: readonly string[];
  onGive: (value: string | number) => void;
}) {
  const [typed, setTyped] = useState("");
  const unit = choices.length === 1 && MEASURES.has(choices[0] ?? "") ? (choices[0] ?? "") : null;
  if (unit === null)
    return choices.map((choice) => (
      <Button key={choice} onClick={() => onGive(choice)}>
        {choice}
      </Button>
    ));
  const value = readTyped(typed, unit);
  const good = value !== null && !Number.isNaN(value);
  return (
    <form
      className="flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (good) onGive(value);
      }}
    >
      <label>
        <NumberInput
          aria-label="Answer"
          className="w-20 text-center text-reading"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />{" "}
        {unitShown(unit)}
      </label>
      <Button type="submit" disabled={!good}>
        Answer
      </Button>
    </form>
  );
}

function Outcome({ trouble }: { trouble: Trouble }) {
  const decide = useDecideTrouble(trouble.id);
  const [remark, setRemark] = useState(trouble.remark);
  const say = useNotice();
  const onDecide = (cause: string | null) =>
    void decide
      .mutateAsync({ cause, remark })
      .catch((error: unknown) => say(messageOf(error), { asks: true }));
  return (
    <section aria-label="What it was" className="pt-8">
      <h2 className="text-row italic text-soft">What it was</h2>
      <p className="text-body">
        {trouble.outcome === null
          ? "Not decided yet; nothing has to be."
          : `It was: ${causeWords(trouble.outcome)}.`}
      </p>
      <label className="block pt-1 text-caption italic text-soft">
        Remark
        <input
          className="written block w-full text-body not-italic text-ink"
          maxLength={2000}
          value={remark}
          onChange={(event) => setRemark(event.target.value)}
          onBlur={() => remark !== trouble.remark && onDecide(trouble.outcome)}
        />
      </label>
      <p className="flex gap-4 pt-2">
        <Button onClick={() => onDecide("none-of-these")}>None of these</Button>
        {trouble.outcome !== null && <Button onClick={() => onDecide(null)}>Not decided after all</Button>}
      </p>
    </section>
  );
}
