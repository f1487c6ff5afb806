import { useLayoutEffect, useRef, useState } from "react";
import { ApiError, type Evaluation, evaluate } from "../../api";
import { type Draft, toFile } from "../draft";

export interface Judgement {
  /** The last readings that could be given; they stay while new ones are on their way. */
  evaluation: Evaluation | null;
  /** Why the newest state cannot be judged, and on which line (counted from 0). */
  error: { message: string; line: number | null } | null;
}

/** Readings for every change: the newest request supersedes all before it. */
export function useEvaluation(draft: Draft): Judgement {
  const [judgement, setJudgement] = useState<Judgement>({ evaluation: null, error: null });
  const abort = useRef<AbortController | null>(null);
  // Before the paint: the request is on its way while the browser draws what was typed.
  useLayoutEffect(() => {
    abort.current?.abort();
    const controller = new AbortController();
    abort.current = controller;
    evaluate(toFile(draft), controller.signal)
      .then((evaluation) => {
        if (!controller.signal.aborted) setJudgement({ evaluation, error: null });
      })
      .catch((error: unknown) => {
        if (controller.signal.aborted) return;
        const line =
          error instanceof ApiError && typeof error.details.line === "number" ? error.details.line - 1 : null;
        const message = error instanceof Error ? error.message : "The readings did not come.";
        setJudgement((before) => ({ evaluation: before.evaluation, error: { message, line } }));
      });
    return () => controller.abort();
  }, [draft]);
  return judgement;
}
