import { type PointerEvent, useState } from "react";
import type { TrayTask } from "../../api";

const LEAST_DRAG = 6; // drawing units; less is a tap that slipped

/** A plumb line pulled along the hours: where it hangs meanwhile, and what to do when it is let go. */
export function useTaskDrag(move: ((task: TrayTask, dueH: number) => void) | undefined) {
  const [pulled, setPulled] = useState<{ kind: string; x: number; from: number } | null>(null);
  const xOf = (event: PointerEvent<SVGElement>) => {
    const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM();
    return matrix ? new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse()).x : null;
  };
  const handlers = (task: TrayTask, hourAt: (x: number) => number) =>
    move && !task.done_at
      ? {
          onPointerDown: (event: PointerEvent<SVGElement>) => {
            const x = xOf(event);
            if (x === null) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setPulled({ kind: task.kind, x, from: x });
          },
          onPointerMove: (event: PointerEvent<SVGElement>) => {
            const x = xOf(event);
            if (x !== null && pulled?.kind === task.kind) setPulled({ ...pulled, x });
          },
          onPointerUp: () => {
            if (pulled && Math.abs(pulled.x - pulled.from) > LEAST_DRAG)
              move(task, Math.max(0, hourAt(pulled.x)));
            setPulled(null);
          },
          onPointerCancel: () => setPulled(null),
        }
      : {};
  return { pulled, handlers };
}
