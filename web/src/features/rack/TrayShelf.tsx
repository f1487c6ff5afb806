import { useRef, useState } from "react";
import { Link } from "react-router";
import type { Tray, TrayTask } from "../../api";
import { fixed } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { DrawingTools } from "../../ui";
import { MoveTask } from "./MoveTask";
import { ShelfDrawing } from "./ShelfDrawing";
import { hours, WEIGH_AGAIN } from "./shelf";
import { TrayDeeds } from "./TrayDeeds";
import { type TrayAct, useTrayAct } from "./useTrayAct";
import { WeighInList } from "./WeighInList";
import { WeighSheet } from "./WeighSheet";

/** A tray: its shelf, what the weigh-ins say, and what there is to do with it. */
export function TrayShelf({ tray, places }: { tray: Tray; places: readonly string[] }) {
  const [weighing, setWeighing] = useState(false);
  const [moving, setMoving] = useState<TrayTask | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const act = useTrayAct(tray);
  const { reading } = tray;
  const onKey = (key: string) => {
    if (tray.wrapped_at) return;
    const task = reading.tasks.find(
      (each) => !each.done_at && each.kind !== "wrap" && each.kind !== WEIGH_AGAIN,
    );
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
        <Title tray={tray} places={places} act={act} />
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
      <TrayDeeds tray={tray} act={act} onWeigh={() => setWeighing(true)} onMove={setMoving} />
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

function Title({ tray, places, act }: { tray: Tray; places: readonly string[]; act: TrayAct }) {
  return (
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
  );
}
