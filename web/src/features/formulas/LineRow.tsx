import { type KeyboardEvent, memo } from "react";
import type { FormulaLine, IngredientSummary, LineMass, Reference } from "../../api";
import { markOf } from "../../lib/grains";
import { figure, grams, percent } from "../../lib/numbers";
import { GrainKey, IngredientPicker, Menu, MenuItem } from "../../ui";
import type { DraftLine } from "./draft";

interface Props {
  line: DraftLine;
  mass: LineMass | undefined;
  error: string | null;
  ingredient: IngredientSummary | undefined;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  units: Reference["units"];
  focused: boolean;
  onFocus: () => void;
  onChange: (patch: Partial<FormulaLine>, field: string) => void;
  onStep: (by: number) => void;
  onMove: (by: number) => void;
  onDuplicate: () => void;
  onRemove: () => void;
}

/** One line: grain, name, amount as typed, unit, share. Its rule runs on into the drawing. */
export const LineRow = memo(function LineRow(props: Props) {
  const { line, mass, error, ingredient, ingredients, units, focused, onChange } = props;
  const name = ingredient?.short_name ?? (line.text || "Choose an ingredient");
  const under = error ?? (ingredient ? beside(line, mass) : "not known; choose what it is");
  const asks = error !== null || !ingredient;
  const onKeyDown = (event: KeyboardEvent) => rowKeys(event, props);
  return (
    <li
      data-line={line.key}
      onFocus={props.onFocus}
      className={`group relative grid min-h-9 grid-cols-[32px_minmax(0,1fr)_auto_auto_42px] items-center gap-x-2 border-ink ${focused ? "border-b-2 font-bold" : "border-b-[0.9px]"} hover:bg-lit`}
    >
      <GrainKey mark={markOf(ingredient)} seed={line.key} />
      <span className="min-w-0">
        <IngredientPicker
          ingredients={[...ingredients.values()]}
          first={line.suggestions}
          label={ingredient ? `Ingredient: ${name}` : `Not known: ${name}. Choose an ingredient`}
          onPick={(id) => onChange({ ingredient: id, suggestions: [], notes: [] }, "ingredient")}
          className={`block w-full truncate text-row leading-5 ${asks && !ingredient ? "text-rosy" : ""}`}
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
        className="written w-[68px] text-right text-[21px] leading-7"
        value={line.amount}
        maxLength={20}
        onChange={(event) => onChange({ amount: event.target.value }, "amount")}
        onFocus={(event) => event.target.select()}
        onKeyDown={onKeyDown}
      />
      <select
        aria-label={`Unit of ${name}`}
        className="written max-w-[54px] text-caption font-medium"
        value={line.unit}
        onChange={(event) => onChange({ unit: event.target.value }, "unit")}
      >
        {units.map((unit) => (
          <option key={unit.id} value={unit.id}>
            {unit.label}
          </option>
        ))}
      </select>
      <span className="text-right text-caption font-medium text-soft">
        {mass ? `${percent(mass.pct)}%` : "–"}
      </span>
      <span className="absolute -left-8 opacity-0 focus-within:opacity-100 group-hover:opacity-100">
        <Menu label={`Actions for ${name}`} trigger="···">
          <MenuItem hint="Alt ↑" onSelect={() => props.onMove(-1)}>
            Move up
          </MenuItem>
          <MenuItem hint="Alt ↓" onSelect={() => props.onMove(1)}>
            Move down
          </MenuItem>
          <MenuItem hint="Alt D" onSelect={props.onDuplicate}>
            Duplicate
          </MenuItem>
          <MenuItem hint="Alt H" onSelect={() => onChange({ locked: !line.locked }, "locked")}>
            {line.locked ? "Let go" : "Hold"}
          </MenuItem>
          <MenuItem hint="Alt Delete" onSelect={props.onRemove}>
            Take out
          </MenuItem>
        </Menu>
      </span>
    </li>
  );
});

/** What stands under a name: grams of another unit, and how sure they are. */
function beside(line: FormulaLine, mass: LineMass | undefined): string {
  const note = line.notes.find((text) => text.includes("?"));
  if (note) return note;
  if (!mass || line.unit === "g") return "";
  const spread = mass.mass_g > 0 ? Math.round((100 * (mass.high_g - mass.mass_g)) / mass.mass_g) : 0;
  return `${grams(mass.mass_g)} g${spread ? `, give or take ${figure(spread)} %; weigh it` : ""}`;
}

function rowKeys(event: KeyboardEvent, props: Props): void {
  const keys: Record<string, () => void> = event.altKey
    ? {
        ArrowUp: () => props.onMove(-1),
        ArrowDown: () => props.onMove(1),
        Delete: props.onRemove,
        Backspace: props.onRemove,
        d: props.onDuplicate,
        h: () => props.onChange({ locked: !props.line.locked }, "locked"),
      }
    : { ArrowUp: () => props.onStep(-1), ArrowDown: () => props.onStep(1), Enter: () => props.onStep(1) };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}
