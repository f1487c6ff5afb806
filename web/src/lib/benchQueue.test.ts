// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from "vitest";
import type { Batch, Happening } from "../api";
import { canWait, foretell, keepWaiting, NOTHING, pressOf, stands, waitingAt } from "./benchQueue";

const batch = {
  state: {
    seq: 4,
    current: 1,
    status: ["done", "open", "open", "done", "open"],
    steps: ["a", "b", "c", "d", "e"].map((key) => ({ key })),
    pieces_done: 3,
    samples_g: [],
  },
  events: [{ seq: 4, kind: "weighed" }],
} as unknown as Batch;
const event = (kind: string, more: object = {}) => ({ kind, ...more }) as Happening;

beforeEach(() => localStorage.clear());

describe("a bench without its network", () => {
  it("goes on to the next open step, as the studio would", () => {
    expect(foretell(batch, event("weighed")).state).toMatchObject({ seq: 5, current: 2 });
    const further = foretell(foretell(batch, event("done")), event("skipped"));
    expect(further.state).toMatchObject({
      seq: 6,
      current: 4,
      status: ["done", "done", "skipped", "done", "open"],
    });
    expect(foretell(further, event("done")).state.current).toBeNull();
  });
  it("goes back and counts pieces", () => {
    expect(foretell(batch, event("back", { step: "a" })).state).toMatchObject({
      current: 0,
      status: ["open", "open", "open", "done", "open"],
    });
    expect(foretell(batch, event("pieces", { count: -5 })).state.pieces_done).toBe(0);
  });
  it("keeps in order what waits, and lets nothing wait that the studio must work out", () => {
    keepWaiting(7, { after: 4, events: [event("weighed"), event("done")] });
    expect(waitingAt(7)).toEqual({ after: 4, events: [{ kind: "weighed" }, { kind: "done" }] });
    keepWaiting(7, NOTHING);
    expect(waitingAt(7)).toBe(NOTHING);
    expect([canWait(event("weighed")), canWait(event("rescued")), canWait(event("corrected"))]).toEqual([
      true,
      false,
      false,
    ]);
  });
  it("knows an event again whose answer was lost", () => {
    expect([
      stands(batch, 3, event("weighed")),
      stands(batch, 3, event("done")),
      stands(batch, 4, event("weighed")),
    ]).toEqual([true, false, false]);
  });
});

describe("a press", () => {
  const named = (kind: string, more: object = {}) => pressOf({ kind, ...more } as unknown as Happening);
  it("ends a step once, whichever way", () => {
    expect(named("weighed", { step: "a" })).toBe(named("skipped", { step: "a" }));
    expect(named("weighed", { step: "a" })).toBe(named("rescued", { step: "a" }));
    expect(named("done", { step: "a" })).not.toBe(named("done", { step: "b" }));
  });
  it("counts each piece, and a piece on the scale once", () => {
    expect(named("pieces")).toBeNull();
    expect(named("sampled", { mass_g: 84 })).toBe(named("sampled", { mass_g: 84 }));
  });
  it("with another figure is another press", () => {
    for (const [kind, figure] of Object.entries({
      temperature: "value_c",
      sampled: "mass_g",
      corrected: "mass_g",
    }))
      expect(named(kind, { step: "a", [figure]: 31 })).not.toBe(named(kind, { step: "a", [figure]: 32 }));
  });
});
