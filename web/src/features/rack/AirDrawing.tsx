import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import { useAir, useReference } from "../../api";
import { seeded } from "../../lib/seed";

const W = 1188;
const H = 46;
const DAY_MS = 86_400_000;

/** A thin line of the humidity of a week; damp hours are stippled. */
export function AirDrawing({ place }: { place: string }) {
  const air = useAir(place);
  const edge = useReference().data?.very_damp_pct;
  const rows = air.data?.items ?? [];
  if (rows.length < 2 || edge === undefined) return null;
  const end = new Date(rows[rows.length - 1]?.at ?? 0).getTime();
  const x = scaleTime([end - 7 * DAY_MS, end], [0, W - 60]);
  const y = scaleLinear([20, 90], [H - 4, 4]).clamp(true);
  const points = rows.map((row) => [x(new Date(row.at)), y(row.humidity_pct)] as const);
  const chance = seeded(`air ${place}`);
  const damp = rows.flatMap((row, index) => {
    const [at, level] = points[index] ?? [0, 0];
    if (row.humidity_pct < edge) return [];
    return Array.from(
      { length: 9 },
      () => `M${(at + chance() * 10 - 5).toFixed(1)} ${(level + chance() * (H - 4 - level)).toFixed(1)}h.1`,
    );
  });
  const [most, least] = [
    Math.max(...rows.map((row) => row.humidity_pct)),
    Math.min(...rows.map((row) => row.humidity_pct)),
  ];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
      role="img"
      aria-label={`Humidity in ${place} over a week: ${least.toFixed(0)} to ${most.toFixed(0)} %, ${damp.length > 0 ? `some of it above ${edge} %` : `never above ${edge} %`}.`}
    >
      <path d={`M0 ${y(edge)}H${W - 60}`} stroke="var(--ink)" strokeWidth=".7" strokeDasharray="2 5" />
      <path d={damp.join("")} stroke="var(--verd)" strokeWidth="1.5" strokeLinecap="round" />
      <path
        d={line()(points.map(([a, b]) => [a, b])) ?? ""}
        fill="none"
        stroke="var(--verd)"
        strokeWidth="1.4"
      />
      <text x={W - 54} y={y(edge) + 4} fontSize="13" fill="var(--soft)">
        {edge} %
      </text>
    </svg>
  );
}
