import { useCallback, useEffect, useRef, useState } from "react";
import {
  ApiError,
  type FormulaAnswer,
  type FormulaFile,
  getFormula,
  putFormula,
  restoreFormula,
} from "../../api";
import { type Draft, toFile } from "./draft";

export type SaveState =
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "offline"; message: string }
  | { kind: "refused"; message: string }
  | { kind: "gone" }
  | { kind: "conflict"; theirs: FormulaAnswer };

const PAUSE_MS = 250;
const RETRY_MS = 2000;
const KEEP_AFTER_MS = 30;
const SETTLE_ATTEMPTS = 40;
const SETTLE_PAUSE_MS = 50;

/** Work not yet acknowledged by the server, kept in the browser until it is. */
interface Unsaved {
  revision: number;
  formula: FormulaFile;
}
const unsavedKey = (id: number) => `rosy-kettle-unsaved-${id}`;

export function unsavedWork(id: number): Unsaved | null {
  const text = localStorage.getItem(unsavedKey(id));
  if (!text) return null;
  try {
    return JSON.parse(text) as Unsaved;
  } catch {
    localStorage.removeItem(unsavedKey(id));
    return null;
  }
}

export function dropUnsavedWork(id: number): void {
  localStorage.removeItem(unsavedKey(id));
}

/** Saves every change a moment after it is made; one request at a time, never over another tab's work. */
export function useAutosave(id: number, startRevision: number, draft: Draft, startDirty: boolean) {
  const [state, setState] = useState<SaveState>({ kind: "saved" });
  const [revision, setRevision] = useState(startRevision);
  const revisionRef = useRef(startRevision);
  const latest = useRef(draft);
  const savedDraft = useRef<Draft | null>(startDirty ? null : draft);
  const busy = useRef(false);
  const timer = useRef(0);
  const blocked = useRef(false);

  const flush = useCallback(async () => {
    if (busy.current || blocked.current || latest.current === savedDraft.current) return;
    busy.current = true;
    const sent = latest.current;
    try {
      const answer = await putFormula(id, revisionRef.current, toFile(sent));
      revisionRef.current = answer.revision;
      setRevision(answer.revision);
      savedDraft.current = sent;
      if (latest.current === sent) {
        dropUnsavedWork(id);
        setState({ kind: "saved" });
      } else timer.current = window.setTimeout(() => void flush(), 0);
    } catch (error) {
      const refusal = error instanceof ApiError ? error : null;
      if (refusal?.status === 409) {
        blocked.current = true;
        setState({ kind: "conflict", theirs: await getFormula(id) });
      } else if (refusal?.status === 404) {
        blocked.current = true;
        setState({ kind: "gone" });
      } else if (refusal && refusal.status >= 400 && refusal.status < 500) {
        setState({ kind: "refused", message: refusal.message });
      } else {
        setState({ kind: "offline", message: refusal?.message ?? "" });
        timer.current = window.setTimeout(() => void flush(), RETRY_MS);
      }
    } finally {
      busy.current = false;
    }
  }, [id]);

  useEffect(() => {
    latest.current = draft;
    if (draft === savedDraft.current || blocked.current) return;
    setState((before) => (before.kind === "offline" ? before : { kind: "saving" }));
    // After the next paint: the reading comes first, and a crash can cost one frame of typing at most.
    const keeping = setTimeout(() => {
      const work: Unsaved = { revision: revisionRef.current, formula: toFile(draft) };
      if (latest.current !== savedDraft.current) localStorage.setItem(unsavedKey(id), JSON.stringify(work));
    }, KEEP_AFTER_MS);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => void flush(), PAUSE_MS);
    return () => {
      clearTimeout(keeping);
      clearTimeout(timer.current);
    };
  }, [draft, flush, id]);

  // Leaving the page must not wait for the pause.
  useEffect(() => () => void flush(), [flush]);

  /** After a conflict: go on from the server's revision with the draft now in hand. */
  const settle = useCallback(
    (theirs: FormulaAnswer, keepMine: boolean) => {
      revisionRef.current = theirs.revision;
      setRevision(theirs.revision);
      blocked.current = false;
      savedDraft.current = null;
      setState({ kind: "saving" });
      if (keepMine) void flush();
      else dropUnsavedWork(id);
    },
    [flush, id],
  );

  /** After it was put aside elsewhere: bring it back, then save what is in hand. */
  const bringBack = useCallback(async () => {
    const theirs = await restoreFormula(id);
    settle(theirs, true);
  }, [id, settle]);

  /** Waits until what is in hand is on the server, for what reads it there; false when it did not get there. */
  const settled = useCallback(async () => {
    for (let attempt = 0; attempt < SETTLE_ATTEMPTS; attempt++) {
      await flush();
      if (blocked.current) return false;
      if (latest.current === savedDraft.current) return true;
      await new Promise((resolve) => setTimeout(resolve, SETTLE_PAUSE_MS));
    }
    return false;
  }, [flush]);
  return { state, revision, settle, flush, settled, bringBack };
}
