import { type Dispatch, memo, type RefObject, useMemo, useRef } from "react";
import type { Evaluation, IngredientSummary, LineMass, Reference } from "../../api";
import { useOffers } from "../../ui";
import {
  type Draft,
  type DraftLine,
  duplicateLine,
  groupLines,
  HEADINGS,
  type LineGroup,
  patchLine,
  removeLine,
  swapLines,
} from "../draft";
import { LineRow, type RowActions } from "./LineRow";

const NO_LINES: DraftLine[] = [];

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
  onSubstitute: (key: string) => void;
  onRest: (key: string) => void;
}

/** The lines of one portion, under their headings, with one rule each. */
export const LineTable = memo(function LineTable(props: Props) {
  const { draft, portion, evaluation, error, ingredients, table } = props;
  const lines = draft.portions[portion]?.lines ?? NO_LINES;
  const groups = useMemo(() => groupLines(lines, ingredients), [lines, ingredients]);
  const masses = useMassByKey(draft, evaluation);
  const all = useMemo(() => [...ingredients.values()], [ingredients]);
  const badKey = error?.line == null ? null : draft.portions.flatMap((p) => p.lines)[error.line]?.key;
  const actions = useRowActions(props, groups);
  useOffers(
    "lines",
    lines.flatMap((line) => {
      const item = line.ingredient ? ingredients.get(line.ingredient) : undefined;
      const name = item?.short_name.toLowerCase();
      return name ? [{ words: `Swap ${name}`, run: () => actions.substitute(line.key) }] : [];
    }),
  );
  return (
    <div ref={table}>
      {groups.map((group) => (
        <section key={group.label} aria-label={group.label}>
          <h3 className="pt-2 text-label italic text-soft">{group.label}</h3>
          <ul>
            {group.lines.map((line) => (
              <LineRow
                key={line.key}
                line={line}
                mass={masses.get(line.key)}
                error={badKey === line.key ? (error?.message ?? null) : null}
                ingredient={line.ingredient ? ingredients.get(line.ingredient) : undefined}
                ingredients={all}
                units={props.units}
                focused={props.focusKey === line.key}
                actions={actions}
              />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
});

/** The same functions for every render, so that a row redraws only when its own line changes. */
function useRowActions(props: Props, groups: readonly LineGroup[]): RowActions {
  const latest = useRef({ props, groups });
  latest.current = { props, groups };
  return useMemo<RowActions>(() => {
    const shown = () => latest.current.groups.flatMap((group) => group.lines);
    const focusAt = (index: number) => {
      const { table, onLastEnter } = latest.current.props;
      const next = shown()[index];
      if (next) table.current?.querySelector<HTMLInputElement>(`[data-line="${next.key}"] input`)?.select();
      else if (index >= shown().length) onLastEnter();
    };
    const indexOf = (key: string) => shown().findIndex((line) => line.key === key);
    return {
      focus: (key) => latest.current.props.setFocusKey(key),
      change: (key, patch, field) =>
        latest.current.props.change((before) => patchLine(before, key, patch), `${key}.${field}`),
      step: (key, by) => focusAt(indexOf(key) + by),
      move: (key, by) => {
        const group = latest.current.groups.find((each) => each.lines.some((line) => line.key === key));
        const at = group?.lines.findIndex((line) => line.key === key) ?? -1;
        const other = group?.lines[at + by];
        if (other) latest.current.props.change((before) => swapLines(before, key, other.key));
      },
      regroup: (key) => {
        const lines = shown();
        const under = latest.current.groups.find((each) => each.lines.some((line) => line.key === key));
        const headings = [...new Set([...latest.current.groups.map((each) => each.label), ...HEADINGS])];
        const at = headings.indexOf(under?.label ?? "");
        const phase = headings[(at + 1) % headings.length] ?? "";
        latest.current.props.change((before) => patchLine(before, key, { phase }), `${key}.phase`);
        requestAnimationFrame(() => focusAt(shown().findIndex((line) => line.key === key) % lines.length));
      },
      substitute: (key) => latest.current.props.onSubstitute(key),
      rest: (key) => latest.current.props.onRest(key),
      duplicate: (key) => latest.current.props.change((before) => duplicateLine(before, key)),
      remove: (key) => {
        const index = indexOf(key);
        latest.current.props.change((before) => removeLine(before, key));
        requestAnimationFrame(() => focusAt(Math.min(index, shown().length - 1)));
      },
    };
  }, []);
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
