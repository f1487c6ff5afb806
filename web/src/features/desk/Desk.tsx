import { useMemo, useRef } from "react";
import { bowlSentence } from "../../ui";
import { addRead, toDraft, useDroppedFile } from "../draft";
import { wantedBand } from "../readings";
import { ConflictDialog } from "./ConflictDialog";
import { DeskContext, useDesk } from "./DeskContext";
import { DeskDrawing } from "./DeskDrawing";
import { DeskFoot } from "./DeskFoot";
import { DeskLines } from "./DeskLines";
import { DeskReadings } from "./DeskReadings";
import { NarrowBowl } from "./NarrowBowl";
import { useDeskLayout, useHurry } from "./useDeskLayout";
import { type DeskProps, useDeskState } from "./useDeskState";
import { useDrawn } from "./useDrawn";
import { useMarks } from "./useMarks";

/** The Desk: the formula on the left, the bowl in the middle, the questions on the right. */
export function Desk(props: DeskProps) {
  const desk = useDeskState(props);
  const { draft, save } = desk;
  const dropped = useDroppedFile(
    (lines) => desk.change((before) => addRead(before, desk.inHand, lines)),
    desk.leaveTo,
  );
  return (
    <DeskContext value={desk}>
      <div className="flex min-h-0 flex-1 flex-col" {...dropped}>
        <Stage />
        {desk.sheets.sheet}
        {save.state.kind === "conflict" && (
          <ConflictDialog
            mine={draft}
            theirs={save.state.theirs}
            onMine={(theirs) => save.settle(theirs, true)}
            onTheirs={(theirs) => {
              save.settle(theirs, false);
              desk.replace(toDraft(theirs.formula));
            }}
          />
        )}
      </div>
    </DeskContext>
  );
}

/** Lines, drawing and readings, joined by hairs from row to bowl to question. */
function Stage() {
  const { answer, draft, evaluation, part, inHand, asked, error, ingredients, reference, focusKey } =
    useDesk();
  const stage = useRef<HTMLDivElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const readings = useRef<HTMLDivElement>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const layout = useDeskLayout();
  useHurry(stage, draft);
  const { rows, layers } = useDrawn(draft, inHand, evaluation, ingredients);
  const moved = `${rows.map((row) => row.key).join()}|${layout.wide}|${asked.length > 0}|${error?.message}`;
  const marks = useMarks(stage, scroller, readings, moved);
  const band = part ? wantedBand(part) : undefined;
  const wanted = useMemo<[number | null, number | null]>(
    () => [band?.low ?? null, band?.high ?? null],
    [band?.low, band?.high],
  );
  const highest = reference.readings.find((reading) => reading.id === "dough.saturation")?.scale_high;
  const column = useMemo<[number, number]>(
    () => [56 + layout.left, marks.width - 36 - layout.right],
    [layout.left, layout.right, marks.width],
  );
  const dough = part?.dough;
  const bowl = {
    seed: `formula${answer.id}`,
    layers,
    saturation: dough?.saturation ?? null,
    state: dough?.state ?? null,
    zones: reference.states,
    highest: highest ?? Number.POSITIVE_INFINITY,
    wanted,
    focusKey,
    sentence: part
      ? bowlSentence(dough?.saturation ?? null, dough?.state ?? null, dough?.wanted.states ?? [])
      : "The bowl is empty.",
  };
  return (
    <>
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
            {...bowl}
            marks={marks}
            rows={rows}
            questions={asked}
            column={column}
            batch_g={evaluation?.mass_g ?? 0}
          />
        )}
        <DeskLines scroller={scroller} />
        {layout.wide && <div />}
        <DeskReadings layout={layout} column={readings}>
          {!layout.wide && part && <NarrowBowl drawing={drawing} {...bowl} />}
        </DeskReadings>
      </div>
      <DeskFoot wide={layout.wide} drawing={drawing} />
    </>
  );
}
