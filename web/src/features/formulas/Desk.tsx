import { type MouseEvent, useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import {
  type Evaluation,
  type FormulaAnswer,
  type IngredientSummary,
  type Lever,
  messageOf,
  type Profile,
  type Reference,
} from "../../api";
import { markOf } from "../../lib/grains";
import { hairGrams } from "../../lib/hairs";
import { figure, grams } from "../../lib/numbers";
import { Bowl, type BowlLayer, bowlSentence, DrawingTools, useNotice } from "../../ui";
import { ConflictDialog } from "./ConflictDialog";
import { DeskDrawing, type DrawnRow } from "./DeskDrawing";
import { DeskHead } from "./DeskHead";
import { addPortion, addRead, type Draft, halvePortion, history, takeLever, toDraft } from "./draft";
import { groupLines } from "./groups";
import { LineTable } from "./LineTable";
import { PieceLine } from "./PieceLine";
import { PortionTabs } from "./PortionTabs";
import { bandsOf, withBands } from "./profiles";
import { QuickEntry } from "./QuickEntry";
import { doughAnswer, questions as makeQuestions, type Question, wantedBand } from "./questions";
import { Readings } from "./Readings";
import type { StripReading } from "./strips";
import { useAutosave } from "./useAutosave";
import { useDeskKeys } from "./useDeskKeys";
import { useDeskLayout, useHurry } from "./useDeskLayout";
import { useDroppedFile } from "./useDroppedFile";
import { useEvaluation } from "./useEvaluation";
import { useMarks } from "./useMarks";
import { useSheets } from "./useSheets";
import { DraftInHand, Why } from "./Why";

interface Props {
  answer: FormulaAnswer;
  start: Draft;
  startDirty: boolean;
  reference: Reference;
  ingredients: readonly IngredientSummary[];
  profiles: readonly Profile[];
}

const PAGE_WORDS = { ledger: "Skin ledger", curves: "Curves", versions: "Versions" };
const PORTION_NAMES = ["second colour", "topping", "drizzle", "embed"];
const WET_MARKS = new Set(["wave", "lens", "level", "brick", "double", "mist"]);

/** The Desk: the formula on the left, the bowl in the middle, the questions on the right. */
export function Desk({ answer, start, startDirty, reference, ingredients, profiles }: Props) {
  const [state, dispatch] = useReducer(history, { past: [], present: start, future: [], field: "", at: 0 });
  const draft = state.present;
  const change = useCallback(
    (alter: (draft: Draft) => Draft, field = "") =>
      dispatch({ type: "change", change: alter, field, at: Date.now() }),
    [],
  );
  const { evaluation, error } = useEvaluation(draft);
  const save = useAutosave(answer.id, answer.revision, draft, startDirty);
  const byId = useMemo(() => new Map(ingredients.map((item) => [item.id, item])), [ingredients]);
  const registry = useMemo(() => new Map(reference.readings.map((item) => [item.id, item])), [reference]);

  const [portion, setPortion] = useState(0);
  const inHand = Math.min(portion, draft.portions.length - 1);
  const [focusKey, setFocusKey] = useState<string>();
  const stage = useRef<HTMLDivElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const table = useRef<HTMLDivElement>(null);
  const readings = useRef<HTMLDivElement>(null);
  const entry = useRef<HTMLInputElement>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const layout = useDeskLayout();
  useHurry(stage, draft);

  const part = partInHand(evaluation, inHand);
  const profile = useMemo(
    () => profiles.find((each) => each.id === draft.profile),
    [profiles, draft.profile],
  );
  const bands = useMemo(() => bandsOf(profile, registry), [profile, registry]);
  const asked = useMemo(
    () =>
      part && evaluation
        ? withBands(makeQuestions(part, evaluation, registry), part, evaluation, bands, registry)
        : [],
    [part, evaluation, bands, registry],
  );
  const dough = part ? wantedBand(part) : undefined;
  const sheets = useSheets({
    id: answer.id,
    draft,
    evaluation,
    bands,
    dough: dough ? { reading: "dough.saturation", low: dough.low ?? null, high: dough.high ?? null } : null,
    registry,
    ingredients: byId,
    change,
    flush: save.settled,
  });
  useDeskKeys({
    undo: () => dispatch({ type: "undo" }),
    redo: () => dispatch({ type: "redo" }),
    rebalance: sheets.rebalance,
    entry,
  });
  const navigate = useNavigate();
  /** The other pages read the studio, so what is in hand must be there first. */
  const leaveTo = async (event: MouseEvent, path: string) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    await save.settled();
    await navigate(path);
  };
  const say = useNotice();
  const onTake = (lever: Lever) => {
    change((before) => takeLever(before, inHand, { ...lever, position: lever.position ?? null }));
    say(`${lever.message}.`, { action: { label: "Take it back", run: () => dispatch({ type: "undo" }) } });
  };
  const onCurve = async (curve: string) => {
    await save.settled();
    await navigate(`/formulas/${answer.id}/curves#${curve}`);
  };
  const latest = useRef({ onTake, onCurve });
  latest.current = { onTake, onCurve };
  const why = useCallback(
    (reading: StripReading) => (
      <Why
        reading={reading}
        onTake={(lever) => latest.current.onTake(lever)}
        onCurve={(curve) => void latest.current.onCurve(curve)}
      />
    ),
    [],
  );
  const { rows, layers } = useDrawn(draft, inHand, evaluation, byId);
  const asks = asked.length > 0;
  const marks = useMarks(
    stage,
    scroller,
    readings,
    `${rows.map((row) => row.key).join()}|${layout.wide}|${asks}|${error?.message}`,
  );
  const band = part ? wantedBand(part) : undefined;
  const wanted = useMemo<[number | null, number | null]>(
    () => [band?.low ?? null, band?.high ?? null],
    [band?.low, band?.high],
  );
  const zones = useMemo(
    () => reference.states.map((zone) => ({ state: zone.state, from: zone.saturation_from })),
    [reference],
  );
  const column = useMemo<[number, number]>(
    () => [56 + layout.left, marks.width - 36 - layout.right],
    [layout.left, layout.right, marks.width],
  );
  const toEntry = useCallback(() => entry.current?.focus(), []);
  const sentence = part
    ? bowlSentence(part.dough?.saturation ?? null, part.dough?.state ?? null, part.dough?.wanted.states ?? [])
    : "The bowl is empty.";

  // A first visit to an empty formula starts where typing starts.
  const isEmpty = draft.portions.every((each) => each.lines.length === 0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only on arrival
  useEffect(() => {
    if (isEmpty) entry.current?.focus();
  }, []);

  const dropped = useDroppedFile(
    (lines) => change((before) => addRead(before, inHand, lines)),
    async (path) => {
      await save.settled();
      await navigate(path);
    },
  );
  return (
    <div className="flex min-h-0 flex-1 flex-col" {...dropped}>
      <div
        ref={stage}
        className={
          layout.wide
            ? "desk-stage relative grid min-h-[600px] flex-none pl-14 pr-9"
            : "desk-stage relative flex flex-col gap-6 px-8"
        }
        style={
          layout.wide ? { gridTemplateColumns: layout.columns, height: "calc(100vh - 84px)" } : undefined
        }
      >
        {layout.wide && part && (
          <DeskDrawing
            ref={drawing}
            seed={`formula${answer.id}`}
            marks={marks}
            rows={rows}
            layers={layers}
            saturation={part.dough?.saturation ?? null}
            state={part.dough?.state ?? null}
            zones={zones}
            wanted={wanted}
            questions={asked}
            focusKey={focusKey}
            column={column}
            batch_g={evaluation?.mass_g ?? 0}
            sentence={sentence}
          />
        )}
        <div className="flex min-h-0 flex-col">
          <DeskHead
            draft={draft}
            answer={answer}
            ingredients={byId}
            methods={reference.methods}
            profiles={profiles}
            readings={reference.readings}
            settled={save.settled}
            onBringBack={() =>
              void save.bringBack().catch((error: unknown) => say(messageOf(error), { asks: true }))
            }
            onRebalance={sheets.rebalance}
            onPortion={(halves) => {
              change((before) =>
                halves
                  ? halvePortion(before, inHand)
                  : addPortion(before, PORTION_NAMES[before.portions.length - 1] ?? "another portion"),
              );
              setPortion(draft.portions.length);
            }}
            onScale={sheets.scale}
            onSettings={sheets.settings}
            onShowIn={sheets.showIn}
            change={change}
            save={save.state}
            settle={toSettle(part, evaluation, error, asked)}
          />
          <PortionTabs
            draft={draft}
            evaluation={evaluation}
            inHand={inHand}
            onChoose={setPortion}
            change={change}
          />
          <div
            ref={scroller}
            data-scroll
            className="-ml-9 min-h-0 flex-1 overflow-y-auto overflow-x-hidden pl-9 pb-2"
          >
            <LineTable
              draft={draft}
              portion={inHand}
              evaluation={evaluation}
              error={error}
              ingredients={byId}
              units={reference.units}
              change={change}
              focusKey={focusKey}
              setFocusKey={setFocusKey}
              table={table}
              onLastEnter={toEntry}
              onSubstitute={sheets.substitute}
              onRest={sheets.rest}
            />
            {isEmpty && (
              <p className="pt-3 text-body text-soft">
                Nothing here yet. Type a line below, or paste a whole recipe into it.
              </p>
            )}
            <QuickEntry
              ref={entry}
              ingredients={byId}
              onAdd={(lines) => change((before) => addRead(before, inHand, lines))}
              onUp={() =>
                [...(table.current?.querySelectorAll<HTMLInputElement>("[data-line] input") ?? [])]
                  .at(-1)
                  ?.select()
              }
            />
          </div>
          <PieceLine draft={draft} evaluation={evaluation} change={change} onSettings={sheets.settings} />
        </div>
        {layout.wide && <div />}
        <div
          className={
            layout.wide
              ? "min-h-0 overflow-y-auto overflow-x-hidden pt-6 print:overflow-visible"
              : "pb-6 pt-6"
          }
          aria-live="off"
        >
          {!layout.wide && part && (
            <div className="flex items-end gap-6 pb-8">
              <svg
                ref={drawing}
                role="img"
                aria-label={sentence}
                viewBox="0 0 360 310"
                className="w-80 shrink-0"
              >
                <Bowl
                  seed={`formula${answer.id}`}
                  cx={180}
                  rimY={56}
                  radius={150}
                  depth={190}
                  layers={layers}
                  saturation={part.dough?.saturation ?? null}
                  state={part.dough?.state ?? null}
                  zones={zones}
                  wanted={wanted}
                  focusKey={focusKey}
                />
              </svg>
              <p className="text-state">
                <span className="block text-figure font-[350] leading-none">
                  {part.dough?.saturation?.toFixed(2) ?? "–"}
                </span>
                {part.dough?.state}
              </p>
            </div>
          )}
          <DraftInHand value={draft}>
            <Readings
              questions={asked}
              width={layout.right}
              strip={layout.strip}
              capillaries={layout.wide}
              why={why}
            />
          </DraftInHand>
          {error && error.line === null && <p className="text-label text-rosy">{error.message}</p>}
          {evaluation?.missing
            .filter(
              (item) =>
                (item.ingredient !== null && item.reading !== "skin.scent_share") || item.reading === "lines",
            )
            .map((item) => (
              <p key={`${item.reading}${item.reason}`} className="text-label text-rosy">
                {item.reason}.
              </p>
            ))}
          {evaluation?.notes.map((note) => (
            <p key={note} className="text-label text-soft">
              {note}
            </p>
          ))}
        </div>
      </div>
      <footer className="no-print flex h-10 items-center justify-between pl-14 pr-9 text-caption text-soft">
        <p className="flex gap-6 whitespace-nowrap max-[1199px]:hidden">
          <Hint keys="↑ ↓" word="line" />
          <Hint keys="N" word="new line" />
          <Hint keys="Alt H" word="hold" />
          <Hint keys="Alt S" word="swap" />
          <Hint keys="Alt B" word="rebalance" />
          <Hint keys="Ctrl Z" word="undo" />
        </p>
        <p className="ml-auto flex gap-6 whitespace-nowrap italic max-[640px]:flex-wrap">
          {layout.wide && <span>One hair is {figure(hairGrams(evaluation?.mass_g ?? 0))} g.</span>}
          <span className="not-italic">
            <DrawingTools
              name={`${draft.name}, the bowl`}
              columns={["Ingredient", "g", "% of the batch", "mL in the bowl"]}
              rows={(evaluation?.lines ?? []).map((line) => [
                byId.get(line.ingredient)?.short_name ?? line.ingredient,
                grams(line.mass_g),
                line.pct.toFixed(1),
                line.heaped_ml === null ? "not known" : figure(line.heaped_ml),
              ])}
              svg={() => drawing.current}
            />
          </span>
          {(["ledger", "curves", "versions"] as const).map((page) => (
            <Link
              key={page}
              className="border-b border-ink not-italic text-ink"
              to={`/formulas/${answer.id}/${page}`}
              onClick={(event) => void leaveTo(event, `/formulas/${answer.id}/${page}`)}
            >
              {PAGE_WORDS[page]}
            </Link>
          ))}
          <Link className="border-b border-ink not-italic text-ink" to={`/bench?formula=${answer.id}`}>
            Batches
          </Link>
          <Link
            className="border-b border-ink not-italic text-ink"
            to={`/plan/${answer.id}`}
            onClick={(event) => void leaveTo(event, `/plan/${answer.id}`)}
          >
            Plan a batch
          </Link>
        </p>
      </footer>
      {sheets.sheet}
      {save.state.kind === "conflict" && (
        <ConflictDialog
          mine={draft}
          theirs={save.state.theirs}
          onMine={(theirs) => save.settle(theirs, true)}
          onTheirs={(theirs) => {
            save.settle(theirs, false);
            dispatch({ type: "replace", draft: toDraft(theirs.formula) });
          }}
        />
      )}
    </div>
  );
}

function Hint({ keys, word }: { keys: string; word: string }) {
  return (
    <span>
      <kbd className="border-b border-ink font-sans text-hint text-ink">{keys}</kbd> {word}
    </span>
  );
}

function partInHand(evaluation: Evaluation | null, inHand: number): Evaluation | null {
  if (!evaluation) return null;
  return evaluation.portions[inHand] ?? evaluation;
}

function toSettle(
  part: Evaluation | null,
  whole: Evaluation | null,
  error: { line: number | null } | null,
  asked: readonly Question[],
): string[] {
  const list: string[] = [];
  if (error && error.line !== null) list.push("an amount");
  if (whole?.missing.some((item) => item.reading === "lines")) list.push("a name");
  if (part && doughAnswer(part).out) list.push("dough");
  if (part?.drying.dries === false) list.push("drying");
  for (const reading of asked.flatMap((question) => question.readings))
    if (reading.out && reading.scale.wanted && reading.id !== "dough.saturation")
      list.push(reading.label.toLowerCase());
  return list.slice(0, 4);
}

function useDrawn(
  draft: Draft,
  inHand: number,
  evaluation: Evaluation | null,
  byId: ReadonlyMap<string, IngredientSummary>,
) {
  // What is typed into an amount changes nothing here until its readings have come.
  const structure = draft.portions
    .map((portion) => portion.lines.map((line) => `${line.key}:${line.ingredient}`).join())
    .join(";");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the structure stands for the draft
  return useMemo(() => {
    const offset = draft.portions.slice(0, inHand).reduce((sum, portion) => sum + portion.lines.length, 0);
    const lines = draft.portions[inHand]?.lines ?? [];
    const masses = new Map(evaluation?.lines.map((line) => [line.index - offset, line]));
    const indexOf = new Map(lines.map((line, index) => [line.key, index]));
    const rows: DrawnRow[] = [];
    const layers: BowlLayer[] = [];
    for (const line of groupLines(lines, byId).flatMap((group) => group.lines)) {
      const mass = masses.get(indexOf.get(line.key) ?? -1);
      const ingredient = line.ingredient ? byId.get(line.ingredient) : undefined;
      if (!mass || !ingredient) continue;
      const mark = markOf(ingredient);
      const wet = WET_MARKS.has(mark) || mark === "drop";
      rows.push({
        key: line.key,
        mass_g: mass.mass_g,
        wet,
        pinch: ["fragrance", "colorant", "decoration"].includes(ingredient.role),
      });
      if (!wet && mass.heaped_ml)
        layers.push({ key: line.key, name: ingredient.short_name, ml: mass.heaped_ml, mark });
    }
    return { rows, layers };
  }, [structure, inHand, evaluation, byId]);
}
