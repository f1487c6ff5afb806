import { scaleLinear } from "d3-scale";
import { area, line as lineThrough } from "d3-shape";
import { type Ref, useId } from "react";
import { roundMarks } from "../lib/stripMap";
import { fromShown, signed, toShown, unitShown } from "../lib/units";

export interface PlotLine {
  name: string;
  points: readonly (readonly [number, number])[];
  /** wet: verdigris, filled below; ink: plain; thin: a fine second line; dashed: what is not sure. */
  style: "wet" | "ink" | "thin" | "dashed";
  /** Where its name stands; lines that end together are named where they begin. */
  named?: "start" | "end";
}

export interface PlotBand {
  name: string;
  from: number;
  to: number;
}

interface Axis {
  min: number;
  max: number;
  label: string;
  /** The unit its numbers are in, where the maker may read another. */
  unit?: string;
}

interface Props {
  ref?: Ref<SVGSVGElement>;
  /** One sentence made of the same numbers. */
  text: string;
  x: Axis;
  y: Axis;
  lines: readonly PlotLine[];
  /** Wanted stretch of the y axis: the lit lane. */
  lane?: PlotBand | undefined;
  /** Stretches of the x axis, bracketed below. */
  spans?: readonly PlotBand[] | undefined;
  /** Named levels on the y axis. */
  levels?: readonly { name: string; at: number }[] | undefined;
  /** Named places on the x axis. */
  posts?: readonly { name: string; at: number }[] | undefined;
}

const W = 620;
const H = 300;
const LEFT = 44;
const RIGHT = 92;
const TOP = 18;
const BOTTOM = 46;

/** Lines that are quantities, on one ruled paper; wet where the reading is wet. */
export function Plot({ ref, text, x, y, lines, lane, spans = [], levels = [], posts = [] }: Props) {
  const pattern = useId();
  const px = scaleLinear([x.min, x.max], [LEFT, W - RIGHT]);
  const py = scaleLinear([y.min, y.max], [H - BOTTOM, TOP]).clamp(true);
  const along = (point: readonly [number, number]) => px(point[0]);
  const up = (point: readonly [number, number]) => py(point[1]);
  const path = lineThrough<readonly [number, number]>(along, up);
  const below = area<readonly [number, number]>(along, H - BOTTOM, up);
  const names = placed(
    lines
      .filter((line) => line.named !== "start")
      .map((line) => ({ name: line.name, y: py(line.points.at(-1)?.[1] ?? 0) })),
  );
  const startNames = placed(
    lines
      .filter((line) => line.named === "start")
      .map((line) => ({ name: line.name, y: py(line.points[0]?.[1] ?? 0) - 6 })),
  );
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={text}
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
      fontSize="13"
    >
      <defs>
        <pattern id={pattern} width="8" height="4" patternUnits="userSpaceOnUse">
          <rect width="8" height="4" fill="var(--vtint)" />
          <path d="M0 2.5h8" stroke="var(--vline)" strokeWidth=".8" />
        </pattern>
      </defs>
      <rect x={LEFT} y={TOP} width={W - LEFT - RIGHT} height={H - TOP - BOTTOM} fill="var(--shade)" />
      {lane && (
        <rect
          x={LEFT}
          width={W - LEFT - RIGHT}
          y={py(lane.to)}
          height={Math.max(1, py(lane.from) - py(lane.to))}
          fill="var(--lit)"
        />
      )}
      {lines
        .filter((line) => line.style === "wet" && line.points.length > 1)
        .map((line) => (
          <path
            key={`${line.name}fill`}
            d={below(line.points) ?? ""}
            fill={`url(#${pattern})`}
            opacity=".75"
          />
        ))}
      {levels.map((level) => (
        <g key={level.name}>
          <path d={`M${LEFT} ${py(level.at)}H${W - RIGHT}`} stroke="var(--ink)" strokeWidth=".6" />
          <text x={LEFT + 5} y={py(level.at) - 4} fill="var(--ink)" fontSize="12.5">
            {level.name}
          </text>
        </g>
      ))}
      {posts.map((post) => (
        <g key={post.name}>
          <path
            d={`M${px(post.at)} ${TOP}V${H - BOTTOM}`}
            stroke="var(--ink)"
            strokeWidth=".9"
            strokeDasharray="2 3"
          />
          <text x={px(post.at)} y={TOP - 6} fill="var(--ink)" textAnchor="middle">
            {post.name}
          </text>
        </g>
      ))}
      {lines.map((line) => (
        <path
          key={line.name}
          d={path(line.points) ?? ""}
          fill="none"
          stroke={line.style === "wet" ? "var(--verd)" : "var(--ink)"}
          strokeWidth={line.style === "wet" ? 2.6 : line.style === "ink" ? 2 : 1.2}
          strokeDasharray={line.style === "dashed" ? "5 4" : undefined}
        />
      ))}
      {names.map((name) => (
        <text key={name.name} x={W - RIGHT + 6} y={name.y + 4} fill="var(--ink)">
          {name.name}
        </text>
      ))}
      {startNames.map((name) => (
        <text key={name.name} x={LEFT + 6} y={name.y} fill="var(--ink)">
          {name.name}
        </text>
      ))}
      <Axes x={x} y={y} px={px} py={py} />
      {spans.map((span) => (
        <g key={span.name}>
          <path
            d={`M${px(span.from)} ${H - BOTTOM + 22}v6H${px(span.to)}v-6`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <text
            x={(px(span.from) + px(span.to)) / 2}
            y={H - 4}
            textAnchor="middle"
            fontWeight="700"
            fill="var(--ink)"
          >
            {span.name}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Names at the ends of their lines, moved apart where they would meet. */
function placed(names: { name: string; y: number }[]): { name: string; y: number }[] {
  const sorted = [...names].sort((a, b) => a.y - b.y);
  for (let index = 1; index < sorted.length; index++) {
    const before = sorted[index - 1];
    const here = sorted[index];
    if (before && here && here.y - before.y < 15) here.y = before.y + 15;
  }
  return sorted;
}

function Axes({
  x,
  y,
  px,
  py,
}: {
  x: Props["x"];
  y: Props["y"];
  px: (value: number) => number;
  py: (value: number) => number;
}) {
  return (
    <g stroke="none" fill="var(--soft)">
      <path
        d={`M${LEFT} ${H - BOTTOM}H${W - RIGHT}M${LEFT} ${TOP}V${H - BOTTOM}`}
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      {(x.label ? marksOf(x) : []).map(({ value, shown }) => (
        <g key={value}>
          <path d={`M${px(value)} ${H - BOTTOM}v5`} stroke="var(--ink)" strokeWidth=".9" />
          <text x={px(value)} y={H - BOTTOM + 18} textAnchor="middle">
            {shown}
          </text>
        </g>
      ))}
      {marksOf(y).map(({ value, shown }) => (
        <g key={value}>
          <path d={`M${LEFT} ${py(value)}h-5`} stroke="var(--ink)" strokeWidth=".9" />
          <text x={LEFT - 8} y={py(value) + 4} textAnchor="end">
            {shown}
          </text>
        </g>
      ))}
      <text x={W - RIGHT + 16} y={H - BOTTOM + 18} fill="var(--ink)">
        {unitShown(x.label)}
      </text>
      <text x={2} y={TOP - 6} fill="var(--ink)">
        {unitShown(y.label)}
      </text>
    </g>
  );
}

/** Round marks in the unit that is read, and where they stand. */
const marksOf = ({ min, max, unit = "" }: Axis): { value: number; shown: string }[] =>
  roundMarks(toShown(min, unit), toShown(max, unit), 6).map((mark) => ({
    value: fromShown(mark, unit),
    shown: signed(String(mark)),
  }));
