import { grainPath, type Mark } from "../lib/grains";
import { seeded } from "../lib/seed";

const WET: Partial<Record<Mark, string>> = {
  wave: "M0 5q4-4 8 0t8 0 8 0 8 0M0 9q4-4 8 0t8 0 8 0 8 0M0 13q4-4 8 0t8 0 8 0 8 0",
  lens: "M0 4h32M0 13h32M4 8.5a3 2 0 1 0 6 0 3 2 0 1 0-6 0M14 8.5a3 2 0 1 0 6 0 3 2 0 1 0-6 0M24 8.5a3 2 0 1 0 6 0 3 2 0 1 0-6 0",
  level: "M0 4h32M0 8.5h32M0 13h32",
  brick: "M0 4h32M0 8.5h32M0 13h32M8 4v4.5M22 4v4.5M15 8.5v4.5M29 8.5v4.5",
  double: "M0 6q4-4 8 0t8 0 8 0 8 0M0 8q4-4 8 0t8 0 8 0 8 0M0 13h32",
  mist: "M4 5h2M12 4h2M20 6h2M27 4h2M8 9h2M16 10h2M24 9h2M5 13h2M13 13h2M21 13h2M29 12h2",
};

/** The mark of an ingredient: the same grain or lining as in the bowl. */
export function GrainKey({ mark, seed }: { mark: Mark; seed: string }) {
  const wet = WET[mark];
  if (mark === "drop")
    return (
      <svg width="32" height="16" viewBox="0 0 32 16" aria-hidden="true" className="shrink-0">
        <path
          d="M5 4q3 4.5 0 6.5q-3-2 0-6.5zM12 6q3 4.5 0 6.5q-3-2 0-6.5zM19 4q3 4.5 0 6.5q-3-2 0-6.5zM26 6q3 4.5 0 6.5q-3-2 0-6.5z"
          fill="var(--lit)"
          stroke="var(--ink)"
          strokeWidth=".9"
        />
      </svg>
    );
  if (wet)
    return (
      <svg width="32" height="16" viewBox="0 0 32 16" aria-hidden="true" className="shrink-0">
        {mark !== "mist" && <rect y="2" width="32" height="13" fill="var(--vtint)" />}
        <path d={wet} fill={mark === "lens" ? "var(--lit)" : "none"} stroke="var(--vline)" strokeWidth="1" />
      </svg>
    );
  const random = seeded(seed);
  const grains = [5, 13, 21, 28].map((x, index) =>
    grainPath(mark, { x, y: index % 2 ? 10.5 : 5.5 }, random()),
  );
  return (
    <svg width="32" height="16" viewBox="0 0 32 16" aria-hidden="true" className="shrink-0">
      <path
        d={grains.join("")}
        fill="var(--grain)"
        stroke="var(--grainline)"
        strokeWidth=".9"
        strokeLinecap="round"
      />
    </svg>
  );
}
