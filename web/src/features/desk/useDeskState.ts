import { useCallback, useMemo, useReducer, useRef, useState } from "react";
import { useNavigate } from "react-router";
import type { Evaluation, FormulaAnswer, IngredientSummary, Profile, Reference } from "../../api";
import { addPortion, type Draft, halvePortion, history, useAutosave } from "../draft";
import { bandsOf, withBands } from "../profiles";
import { doughAnswer, questions as makeQuestions, type Question, wantedBand } from "../readings";
import { useDeskKeys } from "./useDeskKeys";
import { type Judgement, useEvaluation } from "./useEvaluation";
import { useSheets } from "./useSheets";

export interface DeskProps {
  answer: FormulaAnswer;
  start: Draft;
  startDirty: boolean;
  reference: Reference;
  ingredients: readonly IngredientSummary[];
  profiles: readonly Profile[];
}

export type DeskState = ReturnType<typeof useDeskState>;

const PORTION_NAMES = ["second colour", "topping", "drizzle", "embed"];

/** The formula in hand with undo and autosave, its readings in the order they are asked, and the sheets over it. */
export function useDeskState({ answer, start, startDirty, reference, ingredients, profiles }: DeskProps) {
  const [state, dispatch] = useReducer(history, { past: [], present: start, future: [], field: "", at: 0 });
  const draft = state.present;
  const change = useCallback(
    (alter: (draft: Draft) => Draft, field = "") =>
      dispatch({ type: "change", change: alter, field, at: Date.now() }),
    [],
  );
  const undo = () => dispatch({ type: "undo" });
  const replace = (theirs: Draft) => dispatch({ type: "replace", draft: theirs });
  const { evaluation, error } = useEvaluation(draft);
  const save = useAutosave(answer.id, answer.revision, draft, startDirty);
  const byId = useMemo(() => new Map(ingredients.map((item) => [item.id, item])), [ingredients]);
  const registry = useMemo(() => new Map(reference.readings.map((item) => [item.id, item])), [reference]);
  const [portion, choosePortion] = useState(0);
  const inHand = Math.min(portion, draft.portions.length - 1);
  const [focusKey, setFocusKey] = useState<string>();
  const entry = useRef<HTMLInputElement>(null);
  const part = evaluation && (evaluation.portions[inHand] ?? evaluation);
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
  const sheets = useSheets({
    id: answer.id,
    draft,
    evaluation,
    bands,
    dough: doughWanted(part),
    registry,
    ingredients: byId,
    change,
    flush: save.settled,
  });
  useDeskKeys({ undo, redo: () => dispatch({ type: "redo" }), rebalance: sheets.rebalance, entry });
  const navigate = useNavigate();
  /** The other pages read the studio, so what is in hand must be there first. */
  const leaveTo = async (path: string) => {
    await save.settled();
    await navigate(path);
  };
  const addPortionOf = (halves: boolean) => {
    change((before) =>
      halves
        ? halvePortion(before, inHand)
        : addPortion(before, PORTION_NAMES[before.portions.length - 1] ?? "another portion"),
    );
    choosePortion(draft.portions.length);
  };
  return {
    answer,
    reference,
    profiles,
    registry,
    ingredients: byId,
    draft,
    change,
    undo,
    replace,
    evaluation,
    error,
    part,
    asked,
    save,
    inHand,
    choosePortion,
    addPortion: addPortionOf,
    focusKey,
    setFocusKey,
    entry,
    sheets,
    leaveTo,
    settle: toSettle(part, evaluation, error, asked),
    isEmpty: draft.portions.every((each) => each.lines.length === 0),
  };
}

function doughWanted(part: Evaluation | null) {
  const dough = part && wantedBand(part);
  return dough ? { reading: "dough.saturation", low: dough.low ?? null, high: dough.high ?? null } : null;
}

/** Every dough there is something in: all portions, not the one in hand alone. */
function doughsOf(part: Evaluation | null, whole: Evaluation | null): Evaluation[] {
  const several = (whole?.portions ?? []) as Evaluation[];
  return (several.length > 1 ? several : part ? [part] : []).filter((each) => (each.mass_g ?? 0) > 0);
}

function toSettle(
  part: Evaluation | null,
  whole: Evaluation | null,
  error: Judgement["error"],
  asked: readonly Question[],
): string[] {
  const list: string[] = [];
  if (error && error.line !== null) list.push("an amount");
  if (whole?.missing.some((item) => item.reading === "lines")) list.push("a name");
  const doughs = doughsOf(part, whole);
  if (doughs.some((each) => doughAnswer(each).out)) list.push("dough");
  if (doughs.some((each) => each.drying.dries === false)) list.push("drying");
  for (const reading of asked.flatMap((question) => question.readings))
    if (reading.out && reading.scale.wanted && reading.id !== "dough.saturation")
      list.push(reading.label.toLowerCase());
  return list.slice(0, 4);
}
