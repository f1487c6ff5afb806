import type { TubTest } from "../../api";
import { fixed } from "../../lib/numbers";
import { signed } from "../../lib/units";

/** The section of the bath: everything drawn stands on one foot rule. */
export const SECTION = {
  width: 1060,
  height: 560,
  water: 196,
  floor: 500,
  rim: 24,
  cm: 17,
  half: 450,
  gap: 34,
};
export const MOST_CM = 10;

/** Height of the water's surface plus so many centimetres of foam, in drawing units. */
export const levelOfFoam = (height_cm: number) =>
  SECTION.water - SECTION.cm * Math.min(MOST_CM - 0.2, Math.max(0, height_cm));

/** Half width of the tub at a depth: nearly upright above, round below. */
export function halfWidth(y: number): number {
  const t = Math.min(1, Math.max(0, (SECTION.floor - y) / (SECTION.floor - SECTION.rim)));
  return SECTION.half * (0.42 + 0.58 * (1 - (1 - t) ** 2.6));
}

/** What the Desk said the foam would stand at, between the minutes it was told for. */
export function foretoldAt(test: TubTest, minutes: number): number | null {
  const said = test.foretold.heights;
  const after = said.findIndex((point) => point.minutes >= minutes);
  const [b, a] = [said[after], said[after - 1]];
  if (!b) return null;
  if (b.minutes === minutes || !a) return b.height_cm;
  return a.height_cm + ((b.height_cm - a.height_cm) * (minutes - a.minutes)) / (b.minutes - a.minutes);
}

/** Heights that count, the last of each minute. */
export function heightsOf(test: TubTest): { minutes: number; height_cm: number; seq: number }[] {
  const last = new Map(
    test.state.heights.filter((each) => !each.left_out).map((each) => [each.minutes, each] as const),
  );
  return [...last.values()].sort((a, b) => a.minutes - b.minutes);
}

/** The one height a test is told by: that at five minutes, else the nearest to it. */
export function tellingHeight(test: TubTest) {
  return heightsOf(test).sort((a, b) => Math.abs(a.minutes - 5) - Math.abs(b.minutes - 5))[0];
}

export function sectionSentence(test: TubTest): string {
  const seen = heightsOf(test);
  if (seen.length === 0) return `${test.name}: no foam measured yet.`;
  const told = seen
    .map((each) => `${signed(String(each.height_cm))} cm at ${signed(String(each.minutes))} min`)
    .join(", ");
  const said = foretoldAt(test, seen[0]?.minutes ?? 5);
  return `${test.name}: ${told}${said === null ? "" : `; the Desk said ${fixed(said, 1)} cm at ${seen[0]?.minutes} min`}.`;
}
