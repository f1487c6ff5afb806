import { useRef, useState } from "react";
import { Link } from "react-router";
import { messageOf, type Tray, type TrayHappening, type TrayTask, useTrayHappens } from "../../api";
import { fixed } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { DrawingTools, useNotice } from "../../ui";
import { MoveTask } from "./MoveTask";
import { ShelfDrawing } from "./ShelfDrawing";
import { hours, verdict } from "./shelf";
import { WeighInList } from "./WeighInList";
import { WeighSheet } from "./WeighSheet";

const TARGET = "min-h-12 border-b border-ink px-2 text-row disabled:border-soft disabled:text-soft";

/** A tray: its shelf, what the weigh-ins say, and what there is to do with it. */
export function TrayShelf({ tray, places }: { tray: Tray; places: readonly string[] }) {
  const [weighing, setWeighing] = useState(false);
  const [moving, setMoving] = useState<TrayTask | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const happen = useTrayHappens();
  const say = useNotice();
  const act = async (event: TrayHappening, undo?: TrayHappening) => {
    try {
      const after = await happen.mutateAsync({ tray, event });
      if (undo)
        say("Done.", {
          action: {
            label: "Take it back",
            run: () =>
              happen
                .mutateAsync({ tray: after, event: undo })
                .catch((error: unknown) => say(messageOf(error), { asks: true })),
          },
        });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const { reading } = tray;
  const asked = reading.questions.filter((question) => question.asked && question.passed === null);
  const onKey = (key: string) => {
    if (tray.wrapped_at) return;
    const task = reading.tasks.find((each) => !each.done_at && each.kind !== "wrap");
    if (key === "Enter") setWeighing(true);
    else if (key === "t" && task)
      void act({ kind: "done", task: task.kind }, { kind: "undone", task: task.kind });
    else if (key === "w") void act({ kind: "wrapped" }, { kind: "opened" });
  };
  return (
    <section
      aria-label={tray.name}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a shelf is walked to by arrow keys, and weighed from there
      tabIndex={0}
      data-tray={tray.id}
      className="pt-4"
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget || event.ctrlKey || event.altKey || event.metaKey) return;
        onKey(event.key.length === 1 ? event.key.toLowerCase() : event.key);
      }}
    >
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="text-state font-[350]">
          {tray.batch_id === null ? (
            tray.name
          ) : (
            <Link className="hover:underline hover:underline-offset-4" to={`/batches/${tray.batch_id}`}>
              {tray.name}
            </Link>
          )}{" "}
          <Link className="no-print text-label underline underline-offset-4" to={`/clinic?tray=${tray.id}`}>
            What went wrong?
          </Link>{" "}
          <span className="text-label text-soft">
            {tray.pieces} {tray.pieces === 1 ? "piece" : "pieces"} in{" "}
            {places.length > 1 && !tray.wrapped_at ? (
              <select
                aria-label={`Where ${tray.name} stands`}
                className="written text-label text-ink"
                value={tray.place}
                onChange={(event) => void act({ kind: "put", place: event.target.value })}
              >
                {places.map((place) => (
                  <option key={place}>{place}</option>
                ))}
              </select>
            ) : (
              `"${tray.place}"`
            )}
          </span>
        </h2>
        <DrawingTools
          name={`${tray.name}, drying`}
          columns={["", "h since it was set out"]}
          rows={[
            ["age", fixed(reading.age_h, 1)],
            ["dry from", reading.low_h?.toFixed(1) ?? "not known"],
            ["most likely", reading.likely_h?.toFixed(1) ?? "not known"],
            ["by", reading.high_h?.toFixed(1) ?? "not known"],
            ...reading.tasks.map((task) => [task.title, fixed(task.due_h, 1)]),
          ]}
          svg={() => drawing.current}
        />
      </div>
      <ShelfDrawing
        tray={tray}
        ref={drawing}
        onMoveTask={
          tray.wrapped_at
            ? undefined
            : (task, dueH) => {
                const to = new Date(new Date(tray.set_out_at).getTime() + dueH * 3_600_000).toISOString();
                void act(
                  { kind: "moved", task: task.kind, to },
                  { kind: "moved", task: task.kind, to: task.due_at },
                );
              }
        }
      />
      <p className="text-row" role="status">
        {inUnits(reading.message)}{" "}
        {!tray.wrapped_at && reading.wrap_by_h !== null && (
          <span className="text-soft">Wrap by {hours(reading.wrap_by_h)}: lying open costs fizz.</span>
        )}
      </p>
      {!tray.wrapped_at && (
        <ul className="text-label text-soft">
          {reading.advice.map((advice) => (
            <li key={advice.code}>{inUnits(advice.message)}</li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-1">
        {!tray.wrapped_at && (
          <button type="button" className={`${TARGET} font-semibold`} onClick={() => setWeighing(true)}>
            Weigh
          </button>
        )}
        {reading.tasks
          .filter((task) => task.kind !== "wrap")
          .map((task) => (
            <Task
              key={task.kind}
              task={task}
              wrapped={tray.wrapped_at !== null}
              act={act}
              onMove={() => setMoving(task)}
            />
          ))}
        {asked.map((question) => (
          <span key={question.id} className="flex items-center gap-3 text-row">
            {question.text}?
            <button
              type="button"
              className={TARGET}
              onClick={() => void act({ kind: "checked", check: question.id, passed: true })}
            >
              Yes
            </button>
            <button
              type="button"
              className={TARGET}
              onClick={() => void act({ kind: "checked", check: question.id, passed: false })}
            >
              Not yet
            </button>
          </span>
        ))}
        <button
          type="button"
          className={`${TARGET} ml-auto ${verdict(tray).word === "wrap it" ? "font-bold text-rosy" : ""}`}
          onClick={() =>
            void (tray.wrapped_at ? act({ kind: "opened" }) : act({ kind: "wrapped" }, { kind: "opened" }))
          }
        >
          {tray.wrapped_at ? "Open them again" : "Wrapped"}
        </button>
      </div>
      <WeighInList tray={tray} act={act} />
      {weighing && <WeighSheet tray={tray} onClose={() => setWeighing(false)} />}
      {moving && (
        <MoveTask
          task={moving}
          onClose={() => setMoving(null)}
          onMove={(to) => {
            setMoving(null);
            void act({ kind: "moved", task: moving.kind, to });
          }}
        />
      )}
    </section>
  );
}

function Task({
  task,
  wrapped,
  act,
  onMove,
}: {
  task: TrayTask;
  wrapped: boolean;
  act: (event: TrayHappening, undo?: TrayHappening) => Promise<void>;
  onMove: () => void;
}) {
  if (task.done_at)
    return <span className="flex min-h-12 items-center text-row text-soft line-through">{task.title}</span>;
  return (
    <span className="flex items-center gap-2">
      <button
        type="button"
        className={`${TARGET} ${task.late ? "font-bold text-rosy" : ""}`}
        disabled={wrapped}
        onClick={() => void act({ kind: "done", task: task.kind }, { kind: "undone", task: task.kind })}
      >
        {task.title}
      </button>
      <button
        type="button"
        className="min-h-12 px-1 text-caption text-soft underline underline-offset-4"
        disabled={wrapped}
        onClick={onMove}
      >
        {task.late ? `due at ${hours(task.due_h)}` : `at ${hours(task.due_h)}`}
      </button>
    </span>
  );
}
