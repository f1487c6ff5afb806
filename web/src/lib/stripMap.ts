/** The map of a strip: all wanted bands fall between the same two posts. */
export interface Wanted {
  low?: number | undefined;
  high?: number | undefined;
}

export interface StripScale {
  min: number;
  max: number;
  wanted?: Wanted | undefined;
}

export interface Posts {
  width: number;
  xa: number;
  xb: number;
}

type Node = readonly [value: number, x: number];

/** Nodes of the piecewise linear map, by which ends are wanted. */
export function nodes({ min, max, wanted }: StripScale, { width, xa, xb }: Posts): Node[] {
  const { low, high } = wanted ?? {};
  if (low !== undefined && high !== undefined)
    return [
      [min, 0],
      [low, xa],
      [high, xb],
      [max, width],
    ];
  if (low !== undefined)
    return [
      [min, 0],
      [low, xa],
      [max, xb],
    ];
  if (high !== undefined)
    return [
      [min, xa],
      [high, xb],
      [max, width],
    ];
  return [
    [min, 0],
    [max, width],
  ];
}

/** Where a value falls on the strip; beyond its ends it stops at the end. */
export function place(value: number, map: readonly Node[]): number {
  const first = map[0];
  const last = map[map.length - 1];
  if (!first || !last) return 0;
  if (value <= first[0]) return first[1];
  for (let index = 1; index < map.length; index++) {
    const [v0, x0] = map[index - 1] as Node;
    const [v1, x1] = map[index] as Node;
    if (value <= v1) return v1 === v0 ? x1 : x0 + ((value - v0) / (v1 - v0)) * (x1 - x0);
  }
  return last[1];
}

/** How far a value lies outside what is wanted: below counts negative, inside is 0. */
export function outBy(value: number, wanted: Wanted | undefined): number {
  if (wanted?.low !== undefined && value < wanted.low) return value - wanted.low;
  if (wanted?.high !== undefined && value > wanted.high) return value - wanted.high;
  return 0;
}

/** Round steps for the ruler under a strip. */
export function rulerStep(min: number, max: number, most = 12): number {
  const rough = (max - min) / most;
  const power = 10 ** Math.floor(Math.log10(rough));
  const mantissa = rough / power;
  return power * (mantissa <= 1 ? 1 : mantissa <= 2 ? 2 : mantissa <= 5 ? 5 : 10);
}
