import type { FormulaFile, FormulaLine, FormulaPortion, RecipeLine } from "../../api";
import { readAmount } from "../../lib/amounts";
import { G_PER_OZ } from "../../lib/units";

/** The formula being worked on: plain functions on it, and its undo history. */
export type DraftLine = FormulaLine & { key: string };
export type DraftPortion = Omit<FormulaPortion, "lines"> & { lines: DraftLine[] };
export type Draft = Omit<FormulaFile, "portions"> & { portions: DraftPortion[] };

let counter = 0;
const nextKey = (): string => `line${++counter}`;

export function newLine(patch: Partial<FormulaLine> = {}): DraftLine {
  return {
    ingredient: null,
    amount: "0",
    unit: "g",
    text: "",
    phase: "",
    notes: [],
    suggestions: [],
    locked: false,
    min_g: null,
    max_g: null,
    poured_g: null,
    ...patch,
    key: nextKey(),
  };
}

const emptyPortion = (name: string) => ({ name, lines: [], share_pct: null, mass_g: null, split: null });

export function toDraft(formula: FormulaFile): Draft {
  const portions = formula.portions.length ? formula.portions : [emptyPortion("body")];
  return {
    ...formula,
    portions: portions.map((portion) => ({ ...portion, lines: portion.lines.map((line) => newLine(line)) })),
  };
}

export function toFile(draft: Draft): FormulaFile {
  return {
    ...draft,
    portions: draft.portions.map((portion) => ({
      ...portion,
      lines: portion.lines.map(({ key: _key, ...line }) => line),
    })),
  };
}

const mapLines = (draft: Draft, change: (lines: DraftLine[], portion: number) => DraftLine[]): Draft => ({
  ...draft,
  portions: draft.portions.map((portion, index) => ({ ...portion, lines: change(portion.lines, index) })),
});

export function patchLine(draft: Draft, key: string, patch: Partial<FormulaLine>): Draft {
  return mapLines(draft, (lines) => lines.map((line) => (line.key === key ? { ...line, ...patch } : line)));
}

export function addLines(draft: Draft, portion: number, added: readonly DraftLine[]): Draft {
  return mapLines(draft, (lines, index) => (index === portion ? [...lines, ...added] : lines));
}

/** Lines as read, each to the portion its table names, there already or new; the rest to the one in hand. */
export function addRead(draft: Draft, inHand: number, read: readonly RecipeLine[]): Draft {
  return read.reduce((after, line) => {
    const named = line.portion.trim().toLowerCase();
    const at = after.portions.findIndex((portion) => portion.name.toLowerCase() === named);
    if (!named || at >= 0) return addLines(after, named ? at : inHand, [asRead(line)]);
    const grown = addPortion(after, line.portion.trim());
    return addLines(grown, grown.portions.length - 1, [asRead(line)]);
  }, draft);
}

function asRead({ ingredient, amount, unit, text, phase, notes, suggestions }: RecipeLine): DraftLine {
  return newLine({ ingredient, amount, unit, text, phase, notes, suggestions });
}

export function removeLine(draft: Draft, key: string): Draft {
  return mapLines(draft, (lines) => lines.filter((line) => line.key !== key));
}

export function duplicateLine(draft: Draft, key: string): Draft {
  return mapLines(draft, (lines) =>
    lines.flatMap((line) => (line.key === key ? [line, { ...line, key: nextKey() }] : [line])),
  );
}

export function patchPortion(
  draft: Draft,
  index: number,
  patch: Partial<Pick<Draft["portions"][number], "name" | "share_pct" | "mass_g" | "split">>,
): Draft {
  return {
    ...draft,
    portions: draft.portions.map((each, at) => (at === index ? { ...each, ...patch } : each)),
  };
}

export function addPortion(draft: Draft, name: string): Draft {
  return { ...draft, portions: [...draft.portions, emptyPortion(name)] };
}

/** Two halves of the same lines, to be made unequal by hand: the second begins as a copy. */
export function halvePortion(draft: Draft, index: number): Draft {
  const whole = draft.portions[index];
  if (!whole) return draft;
  const half = whole.lines.map((line) => {
    const amount = readAmount(line.amount);
    return amount === null ? line : { ...line, amount: trimmed(amount / 2, 4) };
  });
  const second = half.map((line) => ({ ...line, key: nextKey() }));
  const halves = [
    { ...whole, name: "first half", lines: half },
    { ...whole, name: "second half", lines: second },
  ];
  return { ...draft, portions: draft.portions.flatMap((each, at) => (at === index ? halves : [each])) };
}

/** Take a portion out; the last one left only loses its lines. */
export function removePortion(draft: Draft, index: number): Draft {
  if (draft.portions.length < 2) return draft;
  return { ...draft, portions: draft.portions.filter((_, at) => at !== index) };
}

/** Put lines in grams by their place among all lines; the others stay as typed. */
export function setGrams(draft: Draft, byPosition: ReadonlyMap<number, number>): Draft {
  let position = -1;
  return mapLines(draft, (lines) =>
    lines.map((line) => {
      position += 1;
      const grams = byPosition.get(position);
      return grams === undefined ? line : { ...line, amount: trimmed(grams), unit: "g" };
    }),
  );
}

/** Take a lever: the line at its place in grams, or a new line in the portion in hand. */
export function takeLever(
  draft: Draft,
  portion: number,
  lever: { ingredient: string; position: number | null; after_g: number },
): Draft {
  if (lever.position !== null) return setGrams(draft, new Map([[lever.position, lever.after_g]]));
  const line = newLine({ ingredient: lever.ingredient, amount: trimmed(lever.after_g), unit: "g" });
  return addLines(draft, portion, [line]);
}

/** Multiply every weighed, measured or counted amount; shares and parts stay, the batch they share grows. */
export function scaleBy(draft: Draft, factor: number): Draft {
  const scaled = mapLines(draft, (lines) =>
    lines.map((line) => {
      const amount = readAmount(line.amount);
      if (line.unit === "pct" || line.unit === "part" || amount === null) return line;
      return { ...line, amount: trimmed(amount * factor, line.unit === "g" ? 2 : 4) };
    }),
  );
  return { ...scaled, batch_g: draft.batch_g * factor };
}

/** Show every known line in one unit; grams come from the evaluation, by place. */
export function inUnit(
  draft: Draft,
  unit: "g" | "oz" | "pct" | "part",
  gramsOf: ReadonlyMap<number, number>,
  batch_g: number,
): Draft {
  const heaviest = Math.max(...gramsOf.values(), 1);
  const per = { g: 1, oz: G_PER_OZ, pct: batch_g / 100, part: heaviest / 10 }[unit];
  let position = -1;
  const lines = mapLines(draft, (all) =>
    all.map((line) => {
      position += 1;
      const grams = gramsOf.get(position);
      if (grams === undefined || line.unit === unit) return line;
      return { ...line, amount: trimmed(grams / per, 4), unit };
    }),
  );
  return unit === "pct" || unit === "part" ? { ...lines, batch_g } : lines;
}

const trimmed = (value: number, digits = 2): string => String(Number(value.toFixed(digits)));

/** Swap a line with another one of its portion. */
export function swapLines(draft: Draft, key: string, other: string): Draft {
  return mapLines(draft, (lines) => {
    const a = lines.findIndex((line) => line.key === key);
    const b = lines.findIndex((line) => line.key === other);
    if (a < 0 || b < 0) return lines;
    const next = [...lines];
    [next[a], next[b]] = [lines[b] as DraftLine, lines[a] as DraftLine];
    return next;
  });
}

/** Undo history. Typing in one field is one step, however many keys it took. */
export interface History {
  past: Draft[];
  present: Draft;
  future: Draft[];
  field: string;
  at: number;
}

export type HistoryAction =
  | { type: "change"; change: (draft: Draft) => Draft; field: string; at: number }
  | { type: "undo" }
  | { type: "redo" }
  | { type: "replace"; draft: Draft };

const MOST_STEPS = 300;
const ONE_STEP_MS = 1500;

export function history(state: History, action: HistoryAction): History {
  switch (action.type) {
    case "change": {
      const present = action.change(state.present);
      if (present === state.present) return state;
      const goesOn =
        action.field !== "" && action.field === state.field && action.at - state.at < ONE_STEP_MS;
      const past = goesOn ? state.past : [...state.past, state.present].slice(-MOST_STEPS);
      return { past, present, future: [], field: action.field, at: action.at };
    }
    case "undo": {
      const before = state.past.at(-1);
      if (!before) return state;
      return {
        past: state.past.slice(0, -1),
        present: before,
        future: [state.present, ...state.future],
        field: "",
        at: 0,
      };
    }
    case "redo": {
      const [next, ...rest] = state.future;
      if (!next) return state;
      return { past: [...state.past, state.present], present: next, future: rest, field: "", at: 0 };
    }
    case "replace":
      return { past: [], present: action.draft, future: [], field: "", at: 0 };
  }
}
