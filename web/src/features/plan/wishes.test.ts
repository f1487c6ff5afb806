import { describe, expect, it } from "vitest";
import { newPlan, newWish, OWN_MASS, refusal, toAsk } from "./wishes";

const plan = () => newPlan(21, 40);

describe("what is typed on the Plan", () => {
  it("is asked as numbers, with a decimal comma too", () => {
    const draft = {
      ...plan(),
      bowl: "1500,5",
      wishes: [{ ...newWish("12"), shape: OWN_MASS, mass: "57,5" }],
    };
    const ask = toAsk(draft);
    expect(ask.capacity_g).toBe(1500.5);
    expect(ask.wishes[0]).toMatchObject({ pieces: 12, tool: null, piece_mass_g: 57.5 });
    expect(ask.ready_by).toBeNull();
  });

  it("leaves the first tool open where a mass is given", () => {
    const ask = toAsk({ ...plan(), by: "mass", batch: "2000", wishes: [newWish("5"), newWish("3")] });
    expect(ask.mass_g).toBe(2000);
    expect(ask.wishes.map((wish) => wish.pieces)).toEqual([null, 3]);
  });

  it("sends a moment with its offset", () => {
    const ask = toAsk({ ...plan(), when: "ready", moment: "2026-11-28T09:00" });
    expect(new Date(ask.ready_by ?? "").getTime()).toBe(new Date("2026-11-28T09:00").getTime());
    expect(ask.start_at).toBeNull();
  });

  it.each([
    [{ wishes: [newWish("0")] }, "Pieces must be a whole number"],
    [{ wishes: [{ ...newWish(), shape: OWN_MASS, mass: "-3" }] }, "The mass of a piece"],
    [{ by: "mass" as const, batch: "" }, "The batch must be"],
    [{ bowl: "big" }, "What the bowl holds"],
    [{ humidity: "140" }, "Humidity lies between"],
    [{ room: "" }, "The room needs"],
    [{ when: "ready" as const }, "Say the day"],
  ])("is refused in one sentence: %#", (patch, sentence) => {
    expect(refusal({ ...plan(), ...patch })).toContain(sentence);
  });

  it("is not refused when it can be meant", () => {
    expect(refusal(plan())).toBeNull();
  });
});

describe("the run sheet as PDF", () => {
  it("carries the chosen ways into the plan that is asked", () => {
    expect(toAsk({ ...plan(), schools: { acid: "powders" } }).schools).toEqual({ acid: "powders" });
  });
});
