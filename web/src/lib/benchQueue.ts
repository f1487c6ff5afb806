import type { Batch, Happening } from "../api";
import { BATCH_EVENTS } from "../api/eventKinds";
import { eventId } from "./askingKey";

/**
 * What happened at the bench and the studio has not answered for yet: each event kept under a name of its own, so that two
 * pages never write over each other's, and told in the order in which they were made.
 */
const PREFIX = (batch: number) => `rosy-kettle-bench-${batch}`;
const KEY = (batch: number, id: string) => `${PREFIX(batch)}-${id}`;

export interface Told {
  id: string;
  /** Place in the order in which they were made. */
  nth: number;
  made_at: string;
  /** When its batch was begun: another studio may have another batch of the same number. */
  begun: string;
  /** What its maker had seen. */
  after: number;
  event: Happening;
  /** It no longer followed: the studio is to hold it for both sides to see. */
  hold?: boolean;
  /** The studio refuses it, and why: shown until somebody sets it aside. */
  why?: string;
}

let last = 0;
/** A number above all before it, on this page and, by the clock, on the pages before. */
const nextPlace = () => {
  last = Math.max(last + 1, Date.now() * 100);
  return last;
};

export const toldNow = (event: Happening, after: number, begun: string): Told => ({
  begun,
  id: eventId(),
  nth: nextPlace(),
  made_at: new Date().toISOString(),
  after,
  event,
});

/** Where the browser keeps nothing (a private window, a full disk), the page does while it stands. */
const here = new Map<string, Told>();

export function keepTold(batch: number, told: Told): void {
  here.set(KEY(batch, told.id), told);
  try {
    localStorage.setItem(KEY(batch, told.id), JSON.stringify(told));
  } catch {
    // kept by the page alone
  }
}

export function dropTold(batch: number, id: string): void {
  here.delete(KEY(batch, id));
  localStorage.removeItem(KEY(batch, id));
}

export type BatchHere = Pick<Batch, "id" | "created_at">;
const OF_ANOTHER = "It belongs to a batch of the same number in a studio that is no longer here.";

/** All that waits of a batch, in order; what a former version kept gets its names now. */
export function waitingAt({ id: batch, created_at: begun }: BatchHere): Told[] {
  const found = new Map<string, Told>();
  for (const [key, told] of here) if (key.startsWith(`${PREFIX(batch)}-`)) found.set(told.id, told);
  for (const key of Object.keys(localStorage)) {
    if (key === PREFIX(batch)) for (const told of former(batch, begun)) found.set(told.id, told);
    else if (key.startsWith(`${PREFIX(batch)}-`)) {
      const told = read<Told>(key);
      if (told?.id && told.event) found.set(told.id, told);
    }
  }
  return [...found.values()]
    .sort((one, other) => one.nth - other.nth)
    .map((told) => (told.begun === begun ? told : { ...told, why: OF_ANOTHER }));
}

function former(batch: number, begun: string): Told[] {
  const waiting = read<{ after: number; events: Happening[] }>(PREFIX(batch));
  const told = (waiting?.events ?? []).map((event, place) =>
    toldNow(event, (waiting?.after ?? 0) + place, begun),
  );
  for (const each of told) keepTold(batch, each);
  localStorage.removeItem(PREFIX(batch));
  return told;
}

function read<Kept>(key: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as Kept | null;
  } catch {
    return null;
  }
}

/** What counts each time it is pressed, however quickly; of one piece on the scale a second press is the same. */
const COUNTED = new Set(["pieces"]);

/** Which press an event is: a step ends once, whichever way; of anything else only the same with the same figures is the same. */
export function pressOf(event: Happening): string | null {
  if (COUNTED.has(event.kind)) return null;
  const ends = BATCH_EVENTS[event.kind]?.endsStep || event.kind === "rescued";
  return ends && "step" in event ? `ends ${event.step}` : JSON.stringify(event);
}

export const canWait = (event: Happening): boolean => BATCH_EVENTS[event.kind]?.waits ?? false;

/** The batch as it will stand once the studio has heard of what waits; only what the bench shows next is moved. */
export function foretellAll(batch: Batch, waiting: readonly Told[]): Batch {
  const known = new Set(batch.events.map((each) => each.id));
  const coming = waiting.filter((told) => !told.why && !told.hold && !known.has(told.id));
  return coming.reduce((stood, told) => foretell(stood, told.event), batch);
}

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
  if (BATCH_EVENTS[event.kind]?.endsStep && state.current !== null) {
    const done = event.kind === "skipped" ? "skipped" : "done";
    moved.status = state.status.map((status, index) => (index === state.current ? done : status));
    const next = moved.status.findIndex((status, index) => status === "open" && index > (state.current ?? 0));
    const first = moved.status.indexOf("open");
    moved.current = next >= 0 ? next : first >= 0 ? first : null;
  }
  return { ...batch, state: moved };
}
