import { useEffect, useState } from "react";

export interface Answered<T> {
  /** The last answer; it stays while a newer one is on its way. */
  answer: T | null;
  /** Why the newest question got none. */
  error: unknown;
  busy: boolean;
}

/**
 * Asks the server anew whenever the question changes; a newer question supersedes an older one. `ask` is null where there is
 * nothing to ask, and must keep its identity while the question stays the same.
 */
export function useAnswer<T>(ask: ((signal: AbortSignal) => Promise<T>) | null, waitMs = 0): Answered<T> {
  const [state, setState] = useState<Answered<T>>({ answer: null, error: null, busy: ask !== null });
  useEffect(() => {
    if (!ask) {
      setState((before) => (before.busy || before.error ? { ...before, busy: false, error: null } : before));
      return;
    }
    const controller = new AbortController();
    const begin = () =>
      ask(controller.signal)
        .then((answer) => {
          if (!controller.signal.aborted) setState({ answer, error: null, busy: false });
        })
        .catch((error: unknown) => {
          if (!controller.signal.aborted) setState((before) => ({ ...before, error, busy: false }));
        });
    setState((before) => ({ ...before, busy: true }));
    const timer = waitMs > 0 ? setTimeout(begin, waitMs) : undefined;
    if (timer === undefined) void begin();
    return () => {
      clearTimeout(timer);
      controller.abort();
    };
  }, [ask, waitMs]);
  return state;
}
