import type { Tray, TrayTask } from "../../api";
import { hours, verdict, WEIGH_AGAIN } from "./shelf";
import type { TrayAct } from "./useTrayAct";

const TARGET = "min-h-12 border-b border-ink px-2 text-row disabled:border-soft disabled:text-soft";

interface Props {
  tray: Tray;
  act: TrayAct;
  onWeigh: () => void;
  onMove: (task: TrayTask) => void;
}

/** What there is to do with a tray: weigh it, its tasks, the checks that are due, wrap it. */
export function TrayDeeds({ tray, act, onWeigh, onMove }: Props) {
  const { reading } = tray;
  const asked = reading.questions.filter((question) => question.asked && question.passed === null);
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 pt-1">
      {!tray.wrapped_at && (
        <button type="button" className={`${TARGET} font-semibold`} onClick={onWeigh}>
          Weigh
        </button>
      )}
      {reading.tasks
        .filter((task) => task.kind !== "wrap")
        .map((task) => (
          <Task
            key={task.kind}
            task={task}
            onWeigh={task.kind === WEIGH_AGAIN ? onWeigh : undefined}
            wrapped={tray.wrapped_at !== null}
            act={act}
            onMove={() => onMove(task)}
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
  );
}

function Task({
  task,
  onWeigh,
  wrapped,
  act,
  onMove,
}: {
  task: TrayTask;
  /** Where the task is a weighing: it is done by weighing, not by saying so. */
  onWeigh?: (() => void) | undefined;
  wrapped: boolean;
  act: TrayAct;
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
        onClick={
          onWeigh ?? (() => void act({ kind: "done", task: task.kind }, { kind: "undone", task: task.kind }))
        }
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
