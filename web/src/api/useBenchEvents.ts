import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { canWait, foretell, keepWaiting, NOTHING, stands, type Waiting, waitingAt } from "../lib/benchQueue";
import { batchKey, useHappen } from "./bench";
import { ApiError, api, client } from "./client";
import type { Batch, Happening } from "./types";

const RETRY_MS = 3_000;
const MUST_ASK =
  "This the studio must work out, and it does not answer yet; what was done before waits on this tablet.";
const offline = (error: unknown) => error instanceof ApiError && error.code === "offline";

/**
 * What happens at the bench, with or without a network: what the studio cannot be told now waits on this tablet and is told in
 * order once it answers again. `batch` is the batch as it will stand then.
 */
export function useBenchEvents(known: Batch, onLost: (events: readonly Happening[]) => void) {
  const happen = useHappen(known.id);
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<Waiting>(() => waitingAt(known.id));
  const queue = useRef(waiting);
  const lost = useRef(onLost);
  lost.current = onLost;
  const put = useCallback(
    (next: Waiting) => {
      queue.current = next;
      keepWaiting(known.id, next);
      setWaiting(next);
    },
    [known.id],
  );
  const batch = waiting.events.slice(Math.max(0, known.state.seq - waiting.after)).reduce(foretell, known);
  const telling = useRef(false);

  const tell = useCallback(async () => {
    if (telling.current || queue.current.events.length === 0) return;
    telling.current = true;
    try {
      for (let first = queue.current.events[0]; first; first = queue.current.events[0]) {
        const { after } = queue.current;
        if (!(await toldOrThere(happen.mutateAsync, known.id, after, first))) {
          // Somebody else moved the batch on: what waited is shown and not forced upon it.
          lost.current(queue.current.events);
          return put(NOTHING);
        }
        put({ after: after + 1, events: queue.current.events.slice(1) });
      }
    } catch (error) {
      if (!offline(error)) throw error; // still away: the next look tries again
    } finally {
      telling.current = false;
      await queries.invalidateQueries({ queryKey: batchKey(known.id) });
    }
  }, [known.id, happen.mutateAsync, put, queries]);

  useEffect(() => {
    if (waiting.events.length === 0) return;
    const timer = setInterval(() => void tell(), RETRY_MS);
    window.addEventListener("online", tell);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", tell);
    };
  }, [waiting.events.length, tell]);

  /** Tells the studio, or keeps what it cannot be told now; throws where it has to be asked and does not answer. */
  const act = async (event: Happening): Promise<void> => {
    const { after, events } = queue.current;
    if (events.length > 0 && !canWait(event)) throw new ApiError(MUST_ASK, 0, "offline", {});
    if (events.length > 0) return put({ after, events: [...events, event] });
    // What is known by now, not what was drawn last: the answer before this one may not be drawn yet.
    const seen = queries.getQueryData<Batch>(batchKey(known.id))?.state.seq ?? known.state.seq;
    try {
      await happen.mutateAsync({ after: seen, event });
    } catch (error) {
      if (!(offline(error) && canWait(event))) throw error;
      put({ after: seen, events: [event] });
    }
  };
  return { batch, waiting: waiting.events.length, act, busy: happen.isPending };
}

/** Whether the studio has the event, told now or before (its answer lost on the way); throws while the studio is away. */
async function toldOrThere(
  tell: (said: { after: number; event: Happening }) => Promise<unknown>,
  id: number,
  after: number,
  event: Happening,
): Promise<boolean> {
  try {
    await tell({ after, event });
    return true;
  } catch (error) {
    if (offline(error)) throw error;
    const there = await api(client.GET("/api/batches/{batch_id}", { params: { path: { batch_id: id } } }));
    return stands(there as Batch, after, event);
  }
}
