import { useState } from "react";
import type { TrayTask } from "../../api";
import { Button, Dialog } from "../../ui";

interface Props {
  task: TrayTask;
  onMove: (to: string) => void;
  onClose: () => void;
}

const LATER_H = [1, 6, 12, 24];

/** Puts a task off, or brings it forward. */
export function MoveTask({ task, onMove, onClose }: Props) {
  const [when, setWhen] = useState(localTime(new Date(task.due_at)));
  const inHours = (h: number) => onMove(new Date(Date.now() + h * 3_600_000).toISOString());
  return (
    <Dialog open onOpenChange={onClose} title={task.title} lead="When shall it be? The calendar follows.">
      <div className="mt-4 flex flex-wrap gap-4">
        {LATER_H.map((h) => (
          <Button key={h} className="min-h-12 px-3" onClick={() => inHours(h)}>
            In {h} h
          </Button>
        ))}
      </div>
      <form
        className="mt-5 flex items-end gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          const to = new Date(when);
          if (!Number.isNaN(to.getTime())) onMove(to.toISOString());
        }}
      >
        <label className="text-caption italic text-soft">
          Or on{" "}
          <input
            type="datetime-local"
            className="written text-row not-italic text-ink"
            value={when}
            onChange={(event) => setWhen(event.target.value)}
          />
        </label>
        <Button primary type="submit" hint="Enter">
          Move it
        </Button>
      </form>
    </Dialog>
  );
}

/** A moment as the field shows it, by the clock on the wall. */
function localTime(moment: Date): string {
  const two = (value: number) => String(value).padStart(2, "0");
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}T${two(moment.getHours())}:${two(moment.getMinutes())}`;
}
