import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { made } from "../lib/askingKey";
import {
  type BatchHere,
  canWait,
  dropTold,
  foretellAll,
  keepTold,
  type Told,
  toldNow,
  waitingAt,
} from "../lib/benchQueue";
import { batchKey, useHappen } from "./bench";
import { ApiError, messageOf } from "./client";
import { BATCH_EVENTS } from "./eventKinds";
import { isPassing, retryMs } from "./retry";
import type { Batch, Happening } from "./types";

const CONFLICT = 409;
const MUST_ASK =
  "This the studio must work out, and it does not answer yet; what was done before waits on this tablet.";

/**
 * What happens at the bench, with or without a network: an event is kept on this tablet before it is told, and until the studio
 * has answered for it by its name. `batch` is the batch as it will stand then.
 */
export function useBenchEvents(known: Batch) {
  const { id: batchId, created_at } = known;
  const here = useMemo(() => ({ id: batchId, created_at }), [batchId, created_at]);
  const happen = useHappen(known.id);
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<Told[]>(() => waitingAt(here));
  /** How often in a row it could not be told; 0 while the studio answers. */
  const [failed, setFailed] = useState(0);
  const telling = useRef<Promise<void> | null>(null);
  const look = useCallback(() => setWaiting(waitingAt(here)), [here]);
  const newest = useCallback(
    () => queries.getQueryData<Batch>(batchKey(known.id))?.state.seq ?? 0,
    [known.id, queries],
  );

  const tellOne = useCallback(
    async (told: Told): Promise<void> => {
      const { id, made_at, after, hold = false } = told;
      const event = { ...told.event, id, made_at } as Happening;
      try {
        const batch = await happen.mutateAsync({ after, event, hold });
        // What follows was made knowing of this one, before it is dropped: a page may end between the two.
        const seen = seenBy(batch, told);
        for (const next of waitingAt(here))
          if (next.id !== id && next.after < seen) keepTold(here.id, { ...next, after: seen });
        dropTold(here.id, id);
      } catch (error) {
        if (isPassing(error)) throw error;
        const moved = (error as ApiError).status === CONFLICT && !hold;
        keepTold(here.id, moved ? { ...told, hold: true } : { ...told, why: messageOf(error) });
      }
    },
    [happen.mutateAsync, here],
  );

  const tellAll = useCallback(async () => {
    const first = () => waitingAt(here).find((told) => told.why === undefined);
    try {
      for (let told = first(); told; told = first()) await tellOne(told);
      setFailed(0);
    } catch {
      setFailed((times) => times + 1); // the next try is made later
    } finally {
      look();
    }
  }, [here, look, tellOne]);

  const tell = useCallback((): Promise<void> => {
    telling.current ??= tellAll().finally(() => {
      telling.current = null;
    });
    return telling.current;
  }, [tellAll]);

  const toTell = waiting.some((told) => told.why === undefined);
  useEffect(() => {
    if (!toTell) return;
    if (failed === 0) {
      void tell(); // left by a page before this one
      return;
    }
    const timer = setTimeout(() => void tell(), retryMs(failed));
    const now = () => void tell();
    window.addEventListener("online", now);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", now);
    };
  }, [toTell, failed, tell]);

  /** Tells the studio, or keeps what it cannot be told now; throws where it refuses, or has to be asked and does not answer. */
  const act = async (event: Happening): Promise<void> => {
    const before = waitingAt(here).filter((told) => told.why === undefined);
    if (!canWait(event)) {
      if (before.length > 0) throw new ApiError(MUST_ASK, 0, "offline", {});
      await happen.mutateAsync({ after: Math.max(newest(), known.state.seq), event: named(event) });
      return;
    }
    const told = toldNow(
      event,
      Math.max(newest(), known.state.seq, before.at(-1)?.after ?? 0),
      known.created_at,
    );
    keepTold(here.id, told);
    look();
    // One that is on its way may have looked for the next before this one was there.
    await tell();
    if (failed === 0 && stands(here, told.id)) await tell();
    const refused = waitingAt(here).find((each) => each.id === told.id)?.why;
    if (refused === undefined) return;
    dropTold(known.id, told.id);
    look();
    throw new ApiError(refused, 422, "refused", {});
  };
  const setAside = (id: string) => {
    dropTold(here.id, id);
    look();
  };
  return {
    batch: foretellAll(known, waiting),
    /** What waits because the studio does not answer. */
    waiting: failed > 0 ? waiting.filter((told) => told.why === undefined).length : 0,
    /** What the studio refused after it had waited. */
    refused: waiting.filter((told) => told.why !== undefined),
    act,
    setAside,
    busy: happen.isPending,
  };
}

/**
 * What the maker had seen once an event of hers is in: up to the event itself where it followed; where others came between that
 * stand by themselves or were held against it, no more than before.
 */
function seenBy(batch: Batch, { id, after, event }: Told): number {
  const entry = batch.events.find((each) => each.id === id);
  if (!entry || entry.kind !== event.kind) return after;
  const direct = entry.seq === after + 1;
  return direct || !BATCH_EVENTS[event.kind]?.always ? entry.seq : after;
}

const named = (event: Happening): Happening => {
  return made(event) as Happening;
};

const stands = (batch: BatchHere, id: string) => {
  const told = waitingAt(batch).find((each) => each.id === id);
  return told !== undefined && told.why === undefined;
};
