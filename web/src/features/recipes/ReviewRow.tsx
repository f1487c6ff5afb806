import type { IngredientSummary, RecipeLine, Reference } from "../../api";
import { markOf } from "../../lib/grains";
import { asksForHand } from "../../lib/notes";
import { GrainKey, IngredientPicker } from "../../ui";
import { type ReviewLine, sureness } from "./review";

interface Props {
  line: ReviewLine;
  heading: string;
  ingredient: IngredientSummary | undefined;
  ingredients: readonly IngredientSummary[];
  units: Reference["units"];
  onChange: (patch: Partial<RecipeLine>) => void;
  onDrop: () => void;
}

/** A line as read, beside the words it was read from. */
export function ReviewRow({ line, heading, ingredient, ingredients, units, onChange, onDrop }: Props) {
  const asks = sureness(line) === "asks";
  const name = ingredient?.short_name ?? "Not understood";
  // What was put right is not asked again; an amount that is still missing is.
  const notes = line.changed ? (Number(line.amount) === 0 ? line.notes.filter(asksForHand) : []) : line.notes;
  return (
    <li>
      {heading && <p className="pt-2 text-label italic text-soft">{heading}</p>}
      <div
        className={`grid grid-cols-[minmax(0,1fr)_32px_minmax(0,1.2fr)_76px_56px_24px] items-center gap-x-3 border-b-[0.9px] py-1 ${asks ? "border-rosy" : "border-ink"}`}
      >
        <span className="truncate text-label text-soft" title={line.text}>
          {line.text}
        </span>
        <GrainKey mark={markOf(ingredient)} seed={line.key} />
        <span className="min-w-0">
          <IngredientPicker
            ingredients={ingredients}
            first={line.suggestions}
            label={ingredient ? `Read as ${name}. Change` : `"${line.text}" is not understood. Choose`}
            onPick={(id) => onChange({ ingredient: id })}
            className={`written block max-w-full truncate text-row ${ingredient ? "" : "font-bold text-rosy"}`}
          >
            {name}
          </IngredientPicker>
          {notes.length > 0 && (
            <span className={`block text-hint leading-4 ${asks ? "text-rosy" : "text-soft"}`}>
              {notes.join("; ")}
            </span>
          )}
          {(line.ingredient === null || !line.changed) && line.suggestions.length > 0 && (
            <span className="flex flex-wrap gap-x-4 text-label">
              {line.suggestions.map((id) => {
                const item = ingredients.find((candidate) => candidate.id === id);
                return item ? (
                  <button
                    key={id}
                    type="button"
                    className="border-b border-ink"
                    onClick={() => onChange({ ingredient: id })}
                  >
                    {line.ingredient === null
                      ? `${item.short_name}?`
                      : `Yes, ${item.short_name.toLowerCase()}`}
                  </button>
                ) : null;
              })}
            </span>
          )}
          {line.changed && line.unknown_name && line.ingredient && (
            <span className="block text-hint text-soft">
              the reader will know "{line.unknown_name}" from now on
            </span>
          )}
        </span>
        <input
          aria-label={`Amount, ${line.text}`}
          className="written w-full text-right text-amount"
          value={line.amount}
          maxLength={20}
          inputMode="decimal"
          onChange={(event) => onChange({ amount: event.target.value })}
        />
        <select
          aria-label={`Unit, ${line.text}`}
          className="written text-caption"
          value={line.unit}
          onChange={(event) => onChange({ unit: event.target.value })}
        >
          {units.map((unit) => (
            <option key={unit.id} value={unit.id}>
              {unit.label}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="min-h-6 text-soft hover:text-ink"
          aria-label={`Leave out ${line.text}`}
          onClick={onDrop}
        >
          <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
            <path d="M2 2l8 8M10 2l-8 8" stroke="currentColor" strokeWidth="1.3" />
          </svg>
        </button>
      </div>
    </li>
  );
}
