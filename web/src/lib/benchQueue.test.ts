// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from "vitest";
import type { Batch, Happening } from "../api";
import {
  canWait,
  dropTold,
  foretell,
  foretellAll,
  keepTold,
  pressOf,
  toldNow,
  waitingAt,
} from "./benchQueue";

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

const BEGUN = "2026-11-24T10:00:00Z";
const at = (id: number, created_at = BEGUN) => ({ id, created_at });

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
  it("keeps in order what waits, each under its own name, and lets nothing wait that the studio must work out", () => {
    const [one, two] = [toldNow(event("weighed"), 4, BEGUN), toldNow(event("done"), 4, BEGUN)];
    keepTold(7, two);
    keepTold(7, one);
    keepTold(8, toldNow(event("note"), 1, BEGUN));
    expect(waitingAt(at(7))).toEqual([one, two]);
    expect(waitingAt(at(7, "2026-11-25T10:00:00Z")).map((told) => told.why)).toEqual([
      expect.stringContaining("a studio that is no longer here"),
      expect.stringContaining("a studio that is no longer here"),
    ]);
    dropTold(7, one.id);
    expect(waitingAt(at(7))).toEqual([two]);
    expect([canWait(event("weighed")), canWait(event("rescued")), canWait(event("corrected"))]).toEqual([
      true,
      false,
      false,
    ]);
  });
  it("gives what a former version kept its names, once", () => {
    const former = { after: 4, events: [event("weighed"), event("pieces", { count: 12 })] };
    localStorage.setItem("rosy-kettle-bench-9", JSON.stringify(former));
    const first = waitingAt(at(9));
    expect(first.map((told) => [told.event.kind, told.after])).toEqual([
      ["weighed", 4],
      ["pieces", 5],
    ]);
    expect(waitingAt(at(9))).toEqual(first);
    for (const told of first) dropTold(9, told.id);
  });
  it("foretells what the studio has not answered for, and nothing that it has, holds or refuses", () => {
    const waits = toldNow(event("pieces", { count: 2 }), 4, BEGUN);
    const has = { ...toldNow(event("pieces", { count: 40 }), 3, BEGUN), id: "known" };
    const known = { ...batch, events: [{ seq: 4, kind: "pieces", id: "known" }] } as unknown as Batch;
    const refused = { ...toldNow(event("pieces", { count: 400 }), 4, BEGUN), why: "No." };
    const held = { ...toldNow(event("weighed"), 4, BEGUN), hold: true };
    const { state } = foretellAll(known, [waits, has, refused, held]);
    expect([state.pieces_done, state.current]).toEqual([5, 1]);
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
