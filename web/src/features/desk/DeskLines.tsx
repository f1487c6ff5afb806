import { type RefObject, useCallback, useEffect, useRef } from "react";
import { addRead } from "../draft";
import { LineTable, PortionTabs, QuickEntry } from "../lines";
import { useDesk } from "./DeskContext";
import { DeskHead } from "./DeskHead";
import { PieceLine } from "./PieceLine";

/** The formula: its name, its portions, its lines, and the line where more is typed. */
export function DeskLines({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const desk = useDesk();
  const { draft, change, evaluation, inHand, entry, sheets, ingredients, isEmpty } = desk;
  const table = useRef<HTMLDivElement>(null);
  const toEntry = useCallback(() => entry.current?.focus(), [entry]);
  // A first visit to an empty formula starts where typing starts.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only on arrival
  useEffect(() => {
    if (isEmpty) toEntry();
  }, []);
  const toLastLine = () =>
    [...(table.current?.querySelectorAll<HTMLInputElement>("[data-line] input") ?? [])].at(-1)?.select();
  return (
    <div className="flex min-h-0 flex-col">
      <DeskHead />
      <PortionTabs
        draft={draft}
        evaluation={evaluation}
        inHand={inHand}
        onChoose={desk.choosePortion}
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
          error={desk.error}
          ingredients={ingredients}
          units={desk.reference.units}
          change={change}
          focusKey={desk.focusKey}
          setFocusKey={desk.setFocusKey}
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
          ingredients={ingredients}
          onAdd={(lines) => change((before) => addRead(before, inHand, lines))}
          onUp={toLastLine}
        />
      </div>
      <PieceLine draft={draft} evaluation={evaluation} change={change} onSettings={sheets.settings} />
    </div>
  );
}
