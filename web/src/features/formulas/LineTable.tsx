import { type Dispatch, type RefObject, useMemo } from "react";
import type { Evaluation, IngredientSummary, LineMass, Reference } from "../../api";
import { type Draft, type DraftLine, duplicateLine, patchLine, removeLine, swapLines } from "./draft";
import { groupLines } from "./groups";
import { LineRow } from "./LineRow";

interface Props {
  draft: Draft;
  portion: number;
  evaluation: Evaluation | null;
  error: { message: string; line: number | null } | null;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  units: Reference["units"];
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  focusKey: string | undefined;
  setFocusKey: Dispatch<string | undefined>;
  table: RefObject<HTMLDivElement | null>;
  onLastEnter: () => void;
}

/** The lines of one portion, under their headings, with one rule each. */
export function LineTable(props: Props) {
  const { draft, portion, evaluation, error, ingredients, change, table, onLastEnter } = props;
  const lines = draft.portions[portion]?.lines ?? [];
  const groups = useMemo(() => groupLines(lines, ingredients), [lines, ingredients]);
  const shown = groups.flatMap((group) => group.lines);
  const masses = useMassByKey(draft, evaluation);
  const badKey =
    error?.line == null ? null : (draft.portions.flatMap((p) => p.lines)[error.line]?.key ?? null);

  const focusRow = (index: number) => {
    const next = shown[index];
    if (next) table.current?.querySelector<HTMLInputElement>(`[data-line="${next.key}"] input`)?.select();
    else if (index >= shown.length) onLastEnter();
  };
  const move = (line: DraftLine, by: number) => {
    const group = groups.find((candidate) => candidate.lines.includes(line));
    const other = group?.lines[group.lines.indexOf(line) + by];
    if (other) change((before) => swapLines(before, line.key, other.key));
  };

  return (
    <div ref={table}>
      {groups.map((group) => (
        <section key={group.label} aria-label={group.label}>
          <h3 className="pt-2 text-label italic text-soft">{group.label}</h3>
          <ul>
            {group.lines.map((line) => {
              const index = shown.indexOf(line);
              return (
                <LineRow
                  key={line.key}
                  line={line}
                  mass={masses.get(line.key)}
                  error={badKey === line.key ? (error?.message ?? null) : null}
                  ingredient={line.ingredient ? ingredients.get(line.ingredient) : undefined}
                  ingredients={ingredients}
                  units={props.units}
                  focused={props.focusKey === line.key}
                  onFocus={() => props.setFocusKey(line.key)}
                  onChange={(patch, field) =>
                    change((before) => patchLine(before, line.key, patch), `${line.key}.${field}`)
                  }
                  onStep={(by) => focusRow(index + by)}
                  onMove={(by) => move(line, by)}
                  onDuplicate={() => change((before) => duplicateLine(before, line.key))}
                  onRemove={() => {
                    change((before) => removeLine(before, line.key));
                    requestAnimationFrame(() => focusRow(Math.min(index, shown.length - 2)));
                  }}
                />
              );
            })}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** The evaluation counts lines over all portions; the table knows them by key. */
function useMassByKey(draft: Draft, evaluation: Evaluation | null): Map<string, LineMass> {
  return useMemo(() => {
    const keys = draft.portions.flatMap((portion) => portion.lines.map((line) => line.key));
    const masses = new Map<string, LineMass>();
    for (const line of evaluation?.lines ?? []) {
      const key = keys[line.index];
      if (key) masses.set(key, line);
    }
    return masses;
  }, [draft, evaluation]);
}
