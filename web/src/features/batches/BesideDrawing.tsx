import type { BatchComparison } from "../../api";
import { levelOf, profile } from "../../lib/bowl";
import { r } from "../../lib/hairs";
import { figure, percent } from "../../lib/numbers";

const W = 1060;
const BOWL = { half: 150, height: 150, top: 26 };
const ROW = 24;
const MOST = 8;
const LEFT = 390; // where the hairs leave the first bowl's figures
const RIGHT = 670;

/** Two half bowls on one dip strip; the lines that differ run on as hairs between them, as thick as they differ. */
export function BesideDrawing({
  comparison,
  numbers,
}: {
  comparison: BatchComparison;
  numbers: readonly [number, number];
}) {
  const dough = comparison.readings.find((reading) => reading.reading === "dough.saturation");
  const differing = comparison.lines
    .filter((line) => Math.abs(line.second_pct - line.first_pct) >= 0.05)
    .sort((a, b) => Math.abs(b.second_pct - b.first_pct) - Math.abs(a.second_pct - a.first_pct))
    .slice(0, MOST);
  const height = Math.max(BOWL.top + BOWL.height + 40, BOWL.top + differing.length * ROW + 20);
  const largest = Math.max(...differing.map((line) => Math.abs(line.second_pct - line.first_pct)), 0.05);
  const deciding = comparison.differences[0]?.ingredient;
  const said = (value: number | null | undefined) =>
    value === null || value === undefined ? "not known" : figure(value);
  return (
    <svg
      viewBox={`0 0 ${W} ${height}`}
      className="block w-full max-w-[1060px] pt-4"
      role="img"
      aria-label={`Dough of batch ${numbers[0]}: S ${said(dough?.first)}; of batch ${numbers[1]}: S ${said(dough?.second)}. ${differing.length} lines differ.`}
    >
      <Half saturation={dough?.first ?? null} at={20 + BOWL.half} side={-1} label={`batch ${numbers[0]}`} />
      <Half
        saturation={dough?.second ?? null}
        at={W - 20 - BOWL.half}
        side={1}
        label={`batch ${numbers[1]}`}
      />
      {differing.length === 0 && (
        <text x={W / 2} y={BOWL.top + 60} textAnchor="middle" className="fill-[var(--soft)] text-row italic">
          no line differs
        </text>
      )}
      {differing.map((line, index) => {
        const y = BOWL.top + 18 + index * ROW;
        const more = Math.abs(line.second_pct - line.first_pct) / largest;
        const decides = line.ingredient === deciding;
        const tip = line.second_pct > line.first_pct ? -4 : 4;
        return (
          <g key={line.ingredient}>
            <text
              x={LEFT - 64}
              y={y + 4}
              textAnchor="end"
              className={`text-body ${decides ? "fill-[var(--rosy)] font-bold" : "fill-[var(--ink)]"}`}
            >
              {line.name}
            </text>
            <text x={LEFT - 8} y={y + 4} textAnchor="end" className="fill-[var(--ink)] text-body">
              {percent(line.first_pct)}
            </text>
            <path
              d={`M${LEFT} ${y}C${LEFT + 90} ${y} ${RIGHT - 90} ${r(y + tip)} ${RIGHT} ${r(y + tip)}`}
              fill="none"
              stroke={decides ? "var(--rosy)" : "var(--ink)"}
              strokeWidth={r(0.9 + 4 * more)}
            />
            <text x={RIGHT + 8} y={y + 4} className="fill-[var(--ink)] text-body">
              {percent(line.second_pct)} %
            </text>
          </g>
        );
      })}
    </svg>
  );
}

function Half({
  saturation,
  at,
  side,
  label,
}: {
  saturation: number | null;
  at: number;
  side: 1 | -1;
  label: string;
}) {
  const foot = BOWL.top + BOWL.height;
  const outline = (top: number) => {
    const points = [`${at} ${r(foot - BOWL.height * top)}`];
    for (let step = 0; step <= 30; step++) {
      const t = top * (1 - step / 30) ** 2; // closer together near the floor, where it is flat
      points.push(`${r(at + side * BOWL.half * profile(t))} ${r(foot - BOWL.height * t)}`);
    }
    return `M${points.join("L")}`;
  };
  const level = saturation === null ? 0 : levelOf(saturation);
  const y = r(foot - BOWL.height * level);
  return (
    <g>
      {level > 0 && <path d={`${outline(level)}Z`} fill="var(--vtint)" />}
      <path d={outline(1)} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d={`M${at} ${BOWL.top - 6}V${foot + 6}`} stroke="var(--ink)" strokeWidth="2.4" />
      {saturation === null && (
        <text
          x={at + side * (BOWL.half / 2.2)}
          y={BOWL.top + 50}
          textAnchor="middle"
          className="fill-[var(--soft)] text-caption italic"
        >
          several doughs
        </text>
      )}
      {saturation !== null && (
        <>
          <path d={`M${at} ${y}h${-side * 16}`} stroke="var(--rosy)" strokeWidth="2.2" />
          <text
            x={at - side * 20}
            y={Number(y) + 6}
            textAnchor={side < 0 ? "start" : "end"}
            className="fill-[var(--ink)] text-reading"
          >
            S {figure(saturation)}
          </text>
        </>
      )}
      <text
        x={at + side * (BOWL.half / 2)}
        y={foot + 24}
        textAnchor="middle"
        className="fill-[var(--soft)] text-caption italic"
      >
        {label}
      </text>
    </g>
  );
}
