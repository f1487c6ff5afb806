import { type ScaleLinear, scaleLinear } from "d3-scale";

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

/** Where a value falls on the strip; beyond its ends it stops at the end. */
export function stripScale({ min, max, wanted }: StripScale, posts: Posts): ScaleLinear<number, number> {
  const [values, places] = nodes(min, max, wanted ?? {}, posts);
  return scaleLinear(values, places).clamp(true);
}

/** Values and places between which the strip is linear, by which ends are wanted. */
function nodes(
  min: number,
  max: number,
  { low, high }: Wanted,
  { width, xa, xb }: Posts,
): [number[], number[]] {
  if (low !== undefined && high !== undefined) {
    // A band that begins where the scale does leaves nothing before the first post.
    const [values, places] = [low > min ? [min] : [], low > min ? [0] : []];
    return [
      [...values, low, high, max],
      [...places, xa, xb, width],
    ];
  }
  if (low !== undefined)
    return [
      [min, low, max],
      [0, xa, xb],
    ];
  if (high !== undefined)
    return [
      [min, high, max],
      [xa, xb, width],
    ];
  return [
    [min, max],
    [0, width],
  ];
}

/** How far a value lies outside what is wanted: below counts negative, inside is 0. */
export function outBy(value: number, wanted: Wanted | undefined): number {
  if (wanted?.low !== undefined && value < wanted.low) return value - wanted.low;
  if (wanted?.high !== undefined && value > wanted.high) return value - wanted.high;
  return 0;
}

/** Round values for the ruler under a drawing, in steps of ones, twos and fives. */
export const roundMarks = (min: number, max: number, about: number): number[] =>
  scaleLinear([min, max], [0, 1]).ticks(about);
