/** Hairs: one hair is a fixed number of grams, falling in a parabola from its row into the bowl. */
export interface Point {
  x: number;
  y: number;
}

const STEPS_G = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 5000, 20000, 100000];
const MOST_HAIRS = 110;

/** Grams per hair: 10 g at the Desk unless the batch is so small or large that it would lie. */
export function hairGrams(batchG: number): number {
  if (batchG > 0 && batchG < 60) return 1;
  return STEPS_G.find((step) => step >= 10 && batchG / step <= MOST_HAIRS) ?? 100000;
}

/** The part of the falling curve from share a to share b of its run, as path data. */
export function fall(from: Point, to: Point, a: number, b: number): string {
  // y = y0 + dy t² is a quadratic Bézier whose first tangent is level.
  const at = (t: number): Point => ({
    x: from.x + (to.x - from.x) * t,
    y: from.y + (to.y - from.y) * t * t,
  });
  const start = at(a);
  const end = at(b);
  const control = { x: (start.x + end.x) / 2, y: from.y + (to.y - from.y) * a * b };
  return `M${r(start.x)} ${r(start.y)}Q${r(control.x)} ${r(control.y)} ${r(end.x)} ${r(end.y)}`;
}

/** One decimal is finer than a pixel and keeps paths short. */
export function r(value: number): string {
  return (Math.round(value * 10) / 10).toString();
}
