import type { PlanAsk, WishAsk } from "../../api";
import { massUnit, readTyped, temperatureUnit, typedOf } from "../../lib/units";
import { zoneHere } from "../../lib/zone";

/** What is typed on the Plan, before it is asked. */
export interface WishDraft {
  key: number;
  pieces: string;
  shape: string;
  mass: string;
  fill: "level" | "rounded" | "domed";
  sheet: string;
  layers: string;
  cut: "thread" | "knife";
}

export interface PlanDraft {
  wishes: WishDraft[];
  by: "pieces" | "mass";
  batch: string;
  bowl: string;
  humidity: string;
  room: string;
  when: "now" | "start" | "ready";
  moment: string;
  /** Option by school, where it is not made as usual. */
  schools: Record<string, string>;
}

export const AS_WRITTEN = "as-written";
export const OWN_MASS = "own-mass";

let counter = 0;
export const newWish = (pieces = "10"): WishDraft => ({
  key: ++counter,
  pieces,
  shape: AS_WRITTEN,
  mass: "",
  fill: "level",
  sheet: "6",
  layers: "2",
  cut: "thread",
});

export const newPlan = (room: number, humidity: number, pieces?: string): PlanDraft => ({
  wishes: [newWish(pieces)],
  by: "pieces",
  batch: massUnit() === "g" ? "1000" : "36",
  bowl: "",
  humidity: String(humidity),
  room: typedOf(room, "°C"),
  when: "now",
  moment: "",
  schools: {},
});

const read = (typed: string, unit = ""): number | null => {
  const number = readTyped(typed, unit);
  return Number.isNaN(number) ? null : number;
};

/** The first thing that cannot be meant, in one sentence; null when the plan can be asked. */
export function refusal(plan: PlanDraft): string | null {
  for (const [index, wish] of plan.wishes.entries()) {
    const asked = !(plan.by === "mass" && index === 0);
    const pieces = Number(wish.pieces);
    if (asked && !(Number.isInteger(pieces) && pieces >= 1 && pieces <= 100_000))
      return "Pieces must be a whole number from 1 to 100 000.";
    if (wish.shape === OWN_MASS && wish.mass.trim() && !((read(wish.mass, "g") ?? 0) > 0))
      return `The mass of a piece must be a number above 0 ${massUnit()}.`;
    if (!((read(wish.sheet) ?? 0) > 0)) return "The thickness of a sheet must be a number above 0 mm.";
    if (!(Number.isInteger(Number(wish.layers)) && Number(wish.layers) > 0))
      return "Layers are a whole number, at least 1.";
  }
  if (plan.by === "mass" && !((read(plan.batch, "g") ?? 0) > 0))
    return `The batch must be a number above 0 ${massUnit()}.`;
  if (plan.bowl.trim() && !((read(plan.bowl, "g") ?? 0) > 0))
    return `What the bowl holds must be a number above 0 ${massUnit()}, or empty.`;
  const humidity = read(plan.humidity);
  if (humidity === null || humidity < 0 || humidity > 100) return "Humidity lies between 0 and 100 %.";
  if (read(plan.room, "°C") === null) return `The room needs a temperature in ${temperatureUnit()}.`;
  if (plan.when !== "now" && !plan.moment) return "Say the day and the hour.";
  return null;
}

export function toAsk(plan: PlanDraft): PlanAsk {
  const moment = plan.moment ? new Date(plan.moment).toISOString() : null;
  return {
    wishes: plan.wishes.map((wish, index) => toWish(wish, plan.by === "mass" && index === 0)),
    mass_g: plan.by === "mass" ? read(plan.batch, "g") : null,
    capacity_g: read(plan.bowl, "g"),
    room_c: read(plan.room, "°C"),
    humidity_pct: read(plan.humidity),
    start_at: plan.when === "start" ? moment : null,
    ready_by: plan.when === "ready" ? moment : null,
    zone: zoneHere(),
    schools: plan.schools,
  };
}

function toWish(wish: WishDraft, open: boolean): WishAsk {
  const own = wish.shape === OWN_MASS;
  return {
    pieces: open ? null : Number(wish.pieces),
    tool: own || wish.shape === AS_WRITTEN ? null : wish.shape,
    piece_mass_g: own ? read(wish.mass, "g") : null,
    scoop_fill: wish.fill,
    sheet_mm: read(wish.sheet) ?? undefined,
    layers: Number(wish.layers),
    cut: wish.cut,
  };
}
