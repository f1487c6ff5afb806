import { type KeyboardEvent, memo, useCallback, useState } from "react";
import type { FormulaLine, IngredientSummary, LineMass, Reference } from "../../api";
import { markOf } from "../../lib/grains";
import { asksForHand } from "../../lib/notes";
import { figure, percent, sayMass } from "../../lib/numbers";
import { GrainKey, IngredientPicker, Menu, MenuItem } from "../../ui";
import type { DraftLine } from "../draft";

/** What a row can ask for; the same object for all rows and all renders. */
export interface RowActions {
  focus: (key: string) => void;
  change: (key: string, patch: Partial<FormulaLine>, field: string) => void;
  step: (key: string, by: number) => void;
  move: (key: string, by: number) => void;
  duplicate: (key: string) => void;
  remove: (key: string) => void;
  /** Under the next heading, so that it is weighed and worked with that. */
  regroup: (key: string) => void;
  substitute: (key: string) => void;
  rest: (key: string) => void;
}

interface Props {
  line: DraftLine;
  mass: LineMass | undefined;
  error: string | null;
  ingredient: IngredientSummary | undefined;
  ingredients: readonly IngredientSummary[];
  units: Reference["units"];
  focused: boolean;
  actions: RowActions;
}

/** One line: grain, name, amount as typed, unit, share. Its rule runs on into the drawing. */
export const LineRow = memo(function LineRow(props: Props) {
  const { line, mass, error, ingredient, ingredients, units, focused, actions } = props;
  const [pointed, setPointed] = useState(false);
  const onChange = (patch: Partial<FormulaLine>, field: string) => actions.change(line.key, patch, field);
  const onPick = useCallback(
    (id: string) => actions.change(line.key, { ingredient: id, suggestions: [], notes: [] }, "ingredient"),
    [actions, line.key],
  );
  const onUnit = useCallback(
    (unit: string) => actions.change(line.key, { unit }, "unit"),
    [actions, line.key],
  );
  const name = ingredient?.short_name ?? (line.text || "Choose an ingredient");
  const under = error ?? (ingredient ? beside(line, mass) : "not known; choose what it is");
  const asks = error !== null || !ingredient;
  const onKeyDown = (event: KeyboardEvent) => rowKeys(event, props);
  return (
    <li
      data-line={line.key}
      onFocus={() => actions.focus(line.key)}
      onPointerEnter={() => setPointed(true)}
      onPointerLeave={() => setPointed(false)}
      className={`relative grid min-h-9 grid-cols-[32px_minmax(0,1fr)_auto_auto_42px] items-center gap-x-2 border-ink ${focused ? "border-b-2 font-bold" : "border-b-[0.9px]"} hover:bg-lit`}
    >
      <GrainKey mark={markOf(ingredient)} seed={line.key} />
      <span className="min-w-0 pb-0.5">
        <IngredientPicker
          ingredients={ingredients}
          first={line.suggestions}
          label={ingredient ? `Ingredient: ${name}` : `Not known: ${name}. Choose an ingredient`}
          onPick={onPick}
          className={`block w-full truncate text-row leading-6 ${asks && !ingredient ? "text-rosy" : ""}`}
        >
          {line.locked && <span className="text-caption italic text-soft">held </span>}
          {name}
        </IngredientPicker>
        {under && (
          <span className={`block text-hint font-medium leading-[14px] ${asks ? "text-rosy" : "text-soft"}`}>
            {under}
          </span>
        )}
      </span>
      <input
        aria-label={`Amount of ${name}`}
        aria-invalid={error ? true : undefined}
        inputMode="decimal"
        className="written w-[68px] text-right text-amount leading-7"
        value={line.amount}
        maxLength={20}
        onChange={(event) => onChange({ amount: event.target.value }, "amount")}
        onFocus={(event) => event.target.select()}
        onKeyDown={onKeyDown}
      />
      <UnitChoice name={name} unit={line.unit} units={units} onChange={onUnit} />
      <span className="text-right text-caption font-medium text-soft">
        {mass ? `${percent(mass.pct)}%` : "–"}
      </span>
      {(focused || pointed) && (
        <RowMenu name={name} line={line} mass={mass} actions={actions} onChange={onChange} />
      )}
    </li>
  );
});

const UnitChoice = memo(function UnitChoice({
  name,
  unit,
  units,
  onChange,
}: {
  name: string;
  unit: string;
  units: Reference["units"];
  onChange: (unit: string) => void;
}) {
  return (
    <select
      aria-label={`Unit of ${name}`}
      className="written max-w-[54px] text-caption font-medium"
      value={unit}
      onChange={(event) => onChange(event.target.value)}
    >
      {units.map((each) => (
        <option key={each.id} value={each.id}>
          {each.label}
        </option>
      ))}
    </select>
  );
});

function RowMenu({
  name,
  line,
  mass,
  actions,
  onChange,
}: {
  name: string;
  line: DraftLine;
  mass: LineMass | undefined;
  actions: RowActions;
  onChange: (patch: Partial<FormulaLine>, field: string) => void;
}) {
  return (
    <span className="absolute -left-8">
      <Menu label={`Actions for ${name}`} trigger="···">
        <MenuItem hint="Alt ↑" onSelect={() => actions.move(line.key, -1)}>
          Move up
        </MenuItem>
        <MenuItem hint="Alt ↓" onSelect={() => actions.move(line.key, 1)}>
          Move down
        </MenuItem>
        <MenuItem hint="Alt D" onSelect={() => actions.duplicate(line.key)}>
          Duplicate
        </MenuItem>
        <MenuItem hint="Alt H" onSelect={() => onChange({ locked: !line.locked }, "locked")}>
          {line.locked ? "Let go" : "Hold"}
        </MenuItem>
        {(line.min_g !== null || line.max_g !== null) && (
          <MenuItem onSelect={() => onChange({ min_g: null, max_g: null }, "limits")}>
            Clear its limits
          </MenuItem>
        )}
        {mass && line.unit !== "g" && (
          <MenuItem hint="Alt G" onSelect={() => onChange(asGrams(mass), "grams")}>
            Take it as {sayMass(mass.mass_g)}
          </MenuItem>
        )}
        <MenuItem hint="Alt P" onSelect={() => actions.regroup(line.key)}>
          Under the next heading
        </MenuItem>
        <MenuItem hint="Alt S" onSelect={() => actions.substitute(line.key)}>
          Something else in its place…
        </MenuItem>
        <MenuItem onSelect={() => actions.rest(line.key)}>Make it the rest to 100 %</MenuItem>
        <MenuItem hint="Alt Delete" onSelect={() => actions.remove(line.key)}>
          Take out
        </MenuItem>
      </Menu>
    </span>
  );
}

/** The weighed value of a cup or a spoon, in its place. */
const asGrams = (mass: LineMass) => ({ amount: String(Number(mass.mass_g.toFixed(1))), unit: "g" });

/** What stands under a name: grams of another unit, and how sure they are. */
function beside(line: FormulaLine, mass: LineMass | undefined): string {
  const note = line.notes.find(asksForHand);
  if (note && (note.includes("?") || Number(line.amount) === 0)) return note;
  const bound = boundWords(line);
  if (!mass || line.unit === "g") return bound;
  const spread = mass.mass_g > 0 ? Math.round((100 * (mass.high_g - mass.mass_g)) / mass.mass_g) : 0;
  return `${sayMass(mass.mass_g)}${spread ? ` ± ${figure(spread)} %, weigh it` : ""}${bound && `; ${bound}`}`;
}

/** What rebalancing may not go beyond. */
function boundWords({ min_g, max_g }: FormulaLine): string {
  if (min_g === null && max_g === null) return "";
  if (min_g !== null && max_g !== null && min_g > max_g)
    return `limits contradict: at least ${figure(min_g)}, at most ${sayMass(max_g)}`;
  if (min_g === null) return `at most ${sayMass(max_g ?? 0)}`;
  return max_g === null ? `at least ${sayMass(min_g)}` : `${figure(min_g)} to ${sayMass(max_g)}`;
}

function rowKeys(event: KeyboardEvent, { line, mass, actions }: Props): void {
  const { key } = line;
  const keys: Record<string, () => void> = event.altKey
    ? {
        ArrowUp: () => actions.move(key, -1),
        ArrowDown: () => actions.move(key, 1),
        Delete: () => actions.remove(key),
        Backspace: () => actions.remove(key),
        d: () => actions.duplicate(key),
        g: () => mass && actions.change(key, asGrams(mass), "grams"),
        p: () => actions.regroup(key),
        s: () => actions.substitute(key),
        h: () => actions.change(key, { locked: !line.locked }, "locked"),
      }
    : {
        ArrowUp: () => actions.step(key, -1),
        ArrowDown: () => actions.step(key, 1),
        Enter: () => actions.step(key, 1),
      };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}
