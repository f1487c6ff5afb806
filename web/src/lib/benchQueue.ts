import type { Batch, Happening } from "../api";

/** What happened at the bench while the network was away: kept on the tablet, in order, until the studio has it. */
const KEY = (batch: number) => `rosy-kettle-bench-${batch}`;
const FINISHING = new Set(["weighed", "done", "skipped", "conditions"]);
/** What can be done without the studio: nothing that it would have to work out. */
const WITHOUT_STUDIO = new Set([...FINISHING, "pieces", "sampled", "note", "back", "felt"]);

/** Events in order, and the sequence number the first of them was made after: by it the studio tells an event anew from a repeat. */
export interface Waiting {
  readonly after: number;
  readonly events: readonly Happening[];
}
export const NOTHING: Waiting = { after: 0, events: [] };

export function waitingAt(batch: number): Waiting {
  try {
    return (JSON.parse(localStorage.getItem(KEY(batch)) ?? "null") as Waiting | null) ?? NOTHING;
  } catch {
    return NOTHING;
  }
}

export function keepWaiting(batch: number, waiting: Waiting): void {
  if (waiting.events.length === 0) localStorage.removeItem(KEY(batch));
  else localStorage.setItem(KEY(batch), JSON.stringify(waiting));
}

/** What counts each time it is pressed, however quickly; of one piece on the scale a second press is the same. */
const COUNTED = new Set(["pieces"]);

/** Which press an event is: a step ends once, whichever way; of anything else only the same with the same figures is the same. */
export function pressOf(event: Happening): string | null {
  if (COUNTED.has(event.kind)) return null;
  const ends = FINISHING.has(event.kind) || event.kind === "rescued";
  return ends && "step" in event ? `ends ${event.step}` : JSON.stringify(event);
}

export const canWait = (event: Happening): boolean => WITHOUT_STUDIO.has(event.kind);

/** The batch as it will stand once the studio has heard of the event; only what the bench shows next is moved. */
export function foretell(batch: Batch, event: Happening): Batch {
  const { state } = batch;
  const said = event as Record<string, unknown>;
  const moved = { ...state, seq: state.seq + 1 };
  if (event.kind === "pieces") moved.pieces_done = Math.max(0, state.pieces_done + Number(said.count ?? 0));
  if (event.kind === "sampled") moved.samples_g = [...state.samples_g, Number(said.mass_g)];
  if (event.kind === "back") {
    const at = state.steps.findIndex((step) => step.key === said.step);
    if (at >= 0) {
      moved.current = at;
      moved.status = state.status.map((status, index) => (index === at ? "open" : status));
    }
  }
  if (FINISHING.has(event.kind) && state.current !== null) {
    const done = event.kind === "skipped" ? "skipped" : "done";
    moved.status = state.status.map((status, index) => (index === state.current ? done : status));
    const next = moved.status.findIndex((status, index) => status === "open" && index > (state.current ?? 0));
    const first = moved.status.indexOf("open");
    moved.current = next >= 0 ? next : first >= 0 ? first : null;
  }
  return { ...batch, state: moved };
}

/** Whether the studio has an event already, its answer lost on the way: the same kind stands at its place. */
export const stands = (batch: Batch, after: number, event: Happening): boolean =>
  batch.events.some((each) => each.seq === after + 1 && each.kind === event.kind);
