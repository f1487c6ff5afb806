import { type ReactNode, type RefObject, useCallback, useRef } from "react";
import type { Lever } from "../../api";
import { inUnits } from "../../lib/units";
import { useNotice } from "../../ui";
import { takeLever } from "../draft";
import { DraftInHand, Readings, type StripReading, Why } from "../readings";
import { useDesk } from "./DeskContext";
import type { useDeskLayout } from "./useDeskLayout";

interface Props {
  layout: ReturnType<typeof useDeskLayout>;
  column: RefObject<HTMLDivElement | null>;
  /** Stands above the questions where the page is narrow. */
  children: ReactNode;
}

/** The questions with their answers, and under them what could not be answered. */
export function DeskReadings({ layout, column, children }: Props) {
  const { draft, asked, error, evaluation } = useDesk();
  const why = useWhy();
  return (
    <div
      ref={column}
      className={
        layout.wide ? "min-h-0 overflow-y-auto overflow-x-hidden pt-6 print:overflow-visible" : "pb-6 pt-6"
      }
      aria-live="off"
    >
      {children}
      <DraftInHand value={draft}>
        <Readings
          questions={asked}
          width={layout.right}
          strip={layout.strip}
          capillaries={layout.wide}
          why={why}
        />
      </DraftInHand>
      {error && error.line === null && <p className="text-label text-rosy">{inUnits(error.message)}</p>}
      {evaluation?.missing
        .filter(
          (item) =>
            (item.ingredient !== null && item.reading !== "skin.scent_share") || item.reading === "lines",
        )
        .map((item) => (
          <p key={`${item.reading}${item.reason}`} className="text-label text-rosy">
            {inUnits(item.reason)}.
          </p>
        ))}
      {evaluation?.notes.map((note) => (
        <p key={note} className="text-label text-soft">
          {note}
        </p>
      ))}
    </div>
  );
}

/** Draws why a reading is what it is; stays the same function while one portion is in hand, so that strips at rest are not drawn again. */
function useWhy() {
  const { answer, change, inHand, undo, leaveTo } = useDesk();
  const say = useNotice();
  const onTake = (lever: Lever) => {
    change((before) => takeLever(before, inHand, { ...lever, position: lever.position ?? null }));
    say(`${lever.message}.`, { action: { label: "Take it back", run: undo } });
  };
  const onCurve = (curve: string) => void leaveTo(`/formulas/${answer.id}/curves#${curve}`);
  const latest = useRef({ onTake, onCurve });
  latest.current = { onTake, onCurve };
  return useCallback(
    (reading: StripReading) => (
      <Why
        reading={reading}
        portion={inHand}
        onTake={(lever) => latest.current.onTake(lever)}
        onCurve={(curve) => latest.current.onCurve(curve)}
      />
    ),
    [inHand],
  );
}
