import { benchFigure } from "./numbers";
import { toShown, unitShown } from "./units";

const OFF_BY = 2;

/** A figure that is more than twice, or less than half, of what is meant: asked once before it is kept. */
export interface Doubt {
  /** "72 oz? 0.434 was meant; grams?" */
  question: string;
  /** What it would be in grams, where that is nearer to what is meant. */
  instead: { label: string; value: number } | null;
}

const isOff = (value: number, meant: number) => value > OFF_BY * meant || value < meant / OFF_BY;

const farness = (value: number, meant: number) => (value > 0 ? Math.abs(Math.log(value / meant)) : Infinity);

/** Whether a figure, in the unit that is kept, is doubtful beside what is meant; null where it is not. */
export function doubtOf(value: number, meant: number | null | undefined, unit: string): Doubt | null {
  if (meant === null || meant === undefined || !(meant > 0) || !isOff(value, meant)) return null;
  const typed = toShown(value, unit);
  const shown = unitShown(unit);
  const aim = unit === "g" ? benchFigure(meant) : String(Number(toShown(meant, unit).toPrecision(3)));
  const inGrams = unit === "g" && shown !== "g" && farness(typed, meant) < farness(value, meant);
  return {
    question: `${Number(typed.toPrecision(6))} ${shown}? ${aim} was meant${inGrams ? "; grams?" : "."}`,
    instead: inGrams ? { label: `${Number(typed.toPrecision(6))} g`, value: typed } : null,
  };
}

/**
 * Asks once in a form: the question the first time a doubtful figure is handed in, nothing once the same figure is handed in
 * again.
 */
export class AskedOnce {
  private asked: number | null = null;

  about(value: number, meant: number | null | undefined, unit: string): string {
    const doubt = doubtOf(value, meant, unit);
    if (doubt === null || this.asked === value) return "";
    this.asked = value;
    return `${doubt.question} Keep it again if it is right.`;
  }
}
