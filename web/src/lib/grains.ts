import type { Point } from "./hairs";
import { r } from "./hairs";
import { seeded } from "./seed";

/** Grains: seeded positions in the unit bowl, kept for good, and the mark of each powder. */
export type Mark =
  | "prism"
  | "needle"
  | "ring"
  | "shard"
  | "plate"
  | "crystal"
  | "cube"
  | "dot"
  | "diamond"
  | "star"
  | "wave"
  | "lens"
  | "level"
  | "brick"
  | "double"
  | "drop"
  | "mist";

const BY_ROLE: Record<string, Mark> = {
  base: "prism",
  acid: "crystal",
  starch: "ring",
  clay: "plate",
  milk: "dot",
  salt: "cube",
  additive: "dot",
  preservative: "dot",
  colorant: "diamond",
  decoration: "star",
  butter: "brick",
  wax: "brick",
  oil: "lens",
  humectant: "level",
  emulsifier: "double",
  binder: "mist",
  fragrance: "drop",
};

/** What runs off a spoon, sooner or later: drawn as a liquid. */
export const flows = (form: string): boolean => form === "liquid" || form === "paste";

export function markOf(ingredient: { id: string; role: string; form: string } | undefined): Mark {
  if (!ingredient) return "dot";
  if (ingredient.id === "cream-of-tartar") return "shard";
  if (ingredient.role === "surfactant") return flows(ingredient.form) ? "wave" : "needle";
  return BY_ROLE[ingredient.role] ?? "dot";
}

/** Seeded blue noise over a box, by dart throwing on a grid. */
export function scatter(seed: string, width: number, height: number, radius: number): Point[] {
  const random = seeded(seed);
  const cell = radius / Math.SQRT2;
  const columns = Math.ceil(width / cell);
  const rows = Math.ceil(height / cell);
  const grid: (Point | undefined)[] = new Array(columns * rows);
  const points: Point[] = [];
  const clear = (point: Point): boolean => {
    const cx = Math.floor(point.x / cell);
    const cy = Math.floor(point.y / cell);
    for (let y = Math.max(0, cy - 2); y <= Math.min(rows - 1, cy + 2); y++)
      for (let x = Math.max(0, cx - 2); x <= Math.min(columns - 1, cx + 2); x++) {
        const other = grid[y * columns + x];
        if (other && (other.x - point.x) ** 2 + (other.y - point.y) ** 2 < radius * radius) return false;
      }
    return true;
  };
  for (let tries = 0; tries < columns * rows * 6; tries++) {
    const point = { x: random() * width, y: random() * height };
    if (!clear(point)) continue;
    grid[Math.floor(point.y / cell) * columns + Math.floor(point.x / cell)] = point;
    points.push(point);
  }
  return points;
}

/** Path data of one grain; `turn` is its seeded lean, 0 to 1. */
export function grainPath(mark: Mark, { x, y }: Point, turn: number, size = 1): string {
  const lean = (turn - 0.5) * Math.PI;
  const cos = Math.cos(lean) * size;
  const sin = Math.sin(lean) * size;
  const at = (dx: number, dy: number) => `${r(x + dx * cos - dy * sin)} ${r(y + dx * sin + dy * cos)}`;
  switch (mark) {
    case "prism":
      return `M${at(-3.6, -1)}L${at(2.4, -1.8)}L${at(3.6, 1)}L${at(-2.4, 1.8)}Z`;
    case "needle":
      return `M${at(-4.6, 0.4)}Q${at(0, -1)} ${at(4.6, 0.4)}`;
    case "ring":
      return `M${r(x - 2.7 * size)} ${r(y)}a${2.7 * size} ${2.7 * size} 0 1 0 ${5.4 * size} 0a${2.7 * size} ${2.7 * size} 0 1 0 ${-5.4 * size} 0M${r(x)} ${r(y)}h.1`;
    case "shard":
      return `M${at(-3, 2)}L${at(0.6, -2.6)}L${at(3, 2)}Z`;
    case "plate":
      return `M${at(-3.4, -1.2)}L${at(3.4, -1.2)}M${at(-2.4, 1.2)}L${at(4, 1.2)}`;
    case "crystal":
      return `M${at(-3, 0)}L${at(0, -2.6)}L${at(3, 0)}L${at(0, 2.6)}Z`;
    case "cube":
      return `M${at(-2.2, -2.2)}L${at(2.2, -2.2)}L${at(2.2, 2.2)}L${at(-2.2, 2.2)}Z`;
    case "diamond":
      return `M${at(-1.9, 0)}L${at(0, -1.9)}L${at(1.9, 0)}L${at(0, 1.9)}Z`;
    case "star":
      return `M${at(-2.6, 0)}L${at(2.6, 0)}M${at(0, -2.6)}L${at(0, 2.6)}`;
    default:
      return `M${r(x)} ${r(y)}h.1`;
  }
}
