import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  type Evaluation,
  evaluate,
  type FormulaAnswer,
  type LedgerEntry,
  type Measure,
  messageOf,
  type Stage,
  useAnswer,
  useFormula,
  useIngredients,
} from "../../api";
import { figure } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { Strip } from "../../ui";
import { type Draft, startFrom, toFile, useAutosave } from "../draft";
import { ProductForm } from "./ProductForm";
import { ScentPapers } from "./ScentPapers";

const STAGES: readonly [Stage, string][] = [
  ["formula", "the formula"],
  ["batch", "making a batch"],
  ["label", "the label"],
  ["sale", "selling it"],
];

/** What the skin meets, what rules ask, what is unknown. */
export function LedgerPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  if (formula.error && !formula.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(formula.error)}</p>;
  if (!formula.data || !formula.isFetchedAfterMount)
    return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Ledger key={id} answer={formula.data} />;
}

function Ledger({ answer }: { answer: FormulaAnswer }) {
  const [start] = useState(() => startFrom(answer));
  const [draft, setDraft] = useState<Draft>(start.draft);
  const [stage, setStage] = useState<Stage>("formula");
  const navigate = useNavigate();
  const save = useAutosave(answer.id, answer.revision, draft, start.dirty);
  const { evaluation, failed } = useStaged(draft, stage);
  const ingredients = useIngredients();
  const byId = useMemo(
    () => new Map((ingredients.data?.ingredients ?? []).map((item) => [item.id, item])),
    [ingredients.data],
  );
  const setProduct = (patch: Partial<Draft["product"]>) =>
    setDraft((before) => ({ ...before, product: { ...before.product, ...patch } }));
  const ledger = evaluation?.skin.ledger ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Skin ledger of {draft.name}</h1>
      <p className="text-row text-soft">
        A ledger, never one number, and no claim that anything is safe: local rules and a licensed assessor
        decide.{" "}
        <Link
          className="underline underline-offset-4"
          to={`/formulas/${answer.id}`}
          onClick={async (event) => {
            event.preventDefault();
            await save.settled();
            await navigate(`/formulas/${answer.id}`);
          }}
        >
          Back to its Desk
        </Link>{" "}
        <span
          role="status"
          className={save.state.kind === "saved" || save.state.kind === "saving" ? "" : "text-rosy"}
        >
          {save.state.kind === "saved"
            ? "Saved."
            : save.state.kind === "saving"
              ? "Saving…"
              : "Not saved: open the Desk."}
        </span>
      </p>
      {failed && <p className="pt-4 text-body text-rosy">{failed}</p>}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] gap-14 pt-6 max-[1100px]:grid-cols-1">
        <div>
          <h2 className="text-row italic text-soft">Room that is left, one dose in one bath</h2>
          <Measures measures={evaluation?.skin.measures ?? []} />
          <ScentPapers draft={draft} evaluation={evaluation} ingredients={byId} onChange={setProduct} />
          <ProductForm product={draft.product} onChange={setProduct} />
        </div>
        <div>
          <p className="text-row">
            <label>
              What is asked before{" "}
              <select
                className="written"
                value={stage}
                onChange={(event) => setStage(event.target.value as Stage)}
                aria-label="Stage"
              >
                {STAGES.map(([each, words]) => (
                  <option key={each} value={each}>
                    {words}
                  </option>
                ))}
              </select>
            </label>{" "}
            in {draft.product.markets.join(", ") || "no market"}: <b>{count(ledger)}</b>.
          </p>
          <Findings ledger={ledger} />
          {evaluation && <Declaration evaluation={evaluation} />}
        </div>
      </div>
    </div>
  );
}

/** Readings for the newest state; the last ones stay while new ones are on their way. */
function useStaged(draft: Draft, stage: Stage) {
  const { answer, error } = useAnswer(
    useMemo(() => (signal: AbortSignal) => evaluate(toFile(draft), signal, stage), [draft, stage]),
  );
  return { evaluation: answer, failed: error ? messageOf(error) : "" };
}

function count(ledger: readonly LedgerEntry[]): string {
  const words = (["block", "warn", "note"] as const).map((severity) => {
    const number = ledger.filter((entry) => entry.severity === severity).length;
    const word = (MARKS[severity] ?? severity).toLowerCase();
    return number ? `${number} ${word}${number > 1 ? "s" : ""}` : "";
  });
  return words.filter(Boolean).join(", ") || "nothing found, which is not a promise";
}

function Measures({ measures }: { measures: readonly Measure[] }) {
  return (
    <ul className="pt-1">
      {measures.map((measure) => (
        <MeasureRow key={measure.id} measure={measure} />
      ))}
    </ul>
  );
}

function MeasureRow({ measure }: { measure: Measure }) {
  const { label, value, unit } = measure;
  const ends = measure.warn_outside ?? measure.note_outside;
  const note = measure.note_outside ?? measure.warn_outside;
  const low = note?.[0] ?? undefined;
  const high = note?.[1] ?? undefined;
  const top = Math.max(ends?.[1] ?? 0, high ?? 0, value ?? 0, 1e-6) * 1.15;
  const shown = value === null ? "not known" : figure(value);
  const over = measure.headroom !== null && measure.headroom < 0;
  const passed = value !== null && high !== undefined && high !== null && value > high ? high : null;
  return (
    <li className="grid grid-cols-[190px_180px_minmax(0,1fr)] items-center gap-x-2 border-b-[0.9px] border-ink py-1 text-body">
      <span>{label}</span>
      <span>
        {ends && (
          <Strip
            id={measure.id}
            min={low === undefined ? 0 : 3}
            max={low === undefined ? top : 11}
            wanted={{ low, high }}
            value={value}
            text={`${label}: ${shown} ${unit}${high === undefined ? "" : `, note above ${figure(high)}`}`}
            format={figure}
          />
        )}
      </span>
      <span className={`text-right ${over || passed || value === null ? "text-rosy" : ""}`}>
        <b>{shown}</b> <span className="text-caption text-soft">{value === null ? "" : unit}</span>
        {measure.headroom !== null && (
          <span className="block text-caption text-soft">
            {over
              ? "over the line"
              : passed
                ? `over the note line at ${figure(passed)}`
                : `${Math.round(100 * measure.headroom)} % of the line free`}
          </span>
        )}
      </span>
    </li>
  );
}

const MARKS: Record<string, string> = { block: "Block", warn: "Warning", note: "Note" };

function Findings({ ledger }: { ledger: readonly LedgerEntry[] }) {
  return (
    <ul className="pt-2">
      {ledger.map((entry) => (
        <li
          key={entry.rule + entry.message}
          className={`border-b-[0.9px] py-2 ${entry.severity === "note" ? "border-ink" : "border-rosy"}`}
        >
          <p className="text-body">
            <b className={entry.severity === "note" ? "" : "text-rosy"}>{MARKS[entry.severity]}.</b>{" "}
            {inUnits(entry.message)}
          </p>
          <p className="text-caption text-soft">
            {entry.value !== null && `${figure(entry.value)} ${entry.unit}`}
            {entry.value !== null && entry.limit !== null && `, line at ${figure(entry.limit)}`}
            {entry.value !== null && ". "}
            {entry.unknown.length > 0 && (
              <span className="text-rosy">
                Not known: {entry.unknown.map((each) => each.replace(/_/g, " ")).join(", ")}.{" "}
              </span>
            )}
            {entry.source}. Confidence {entry.confidence}.{" "}
            {entry.jurisdiction === "any" ? "" : `${entry.jurisdiction}. `}
            <span className="whitespace-nowrap">{entry.rule}</span>
          </p>
        </li>
      ))}
    </ul>
  );
}

function Declaration({ evaluation }: { evaluation: Evaluation }) {
  const { market, declaration, notes } = evaluation.label;
  if (!declaration.length) return null;
  return (
    <section className="pt-6" aria-label="Ingredient list">
      <h2 className="text-row italic text-soft">Ingredient list for the label, {market}</h2>
      <p className="pt-1 text-body">{declaration.join(", ")}.</p>
      {notes.map((note) => (
        <p key={note} className="text-caption text-soft">
          {note}
        </p>
      ))}
    </section>
  );
}
