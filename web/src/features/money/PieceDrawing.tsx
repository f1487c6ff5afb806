import { useRef } from "react";
import type { Money } from "../../api";
import { roundMarks } from "../../lib/stripMap";
import { signed } from "../../lib/units";
import { DrawingTools } from "../../ui";

const LEFT = 210;
const RIGHT = 90;
const WIDTH = 1180;
const ROW = 30;
const MOST_HAIRS = 220;
/** What one hair stands for, the smallest that keeps a row readable [money]. */
const STEPS = [0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 50, 100, 1000, 10_000];

/** One piece's price as hairs, each the same sum: what goes away in which part, and what is left. */
export function PieceDrawing({ money, name }: { money: Money; name: string }) {
  const svg = useRef<SVGSVGElement>(null);
  const written = money.written;
  if (!written) return null;
  const price = Number(money.price);
  const whole = Number(written.whole);
  const rows = partsOf(money).filter((row) => row.to !== row.from);
  const end = Math.max(price, whole, 0.01) * 1.08;
  const step = STEPS.find((each) => end / each <= MOST_HAIRS) ?? end / MOST_HAIRS;
  const px = (value: number) => LEFT + (value / end) * (WIDTH - LEFT - RIGHT);
  const height = ROW * rows.length + 34;
  const says = `A piece costs ${signed(written.whole)} ${money.currency}${written.margin === null ? ", no price is said" : `; of ${signed(money.price)} ${signed(written.margin)} are ${Number(written.margin) < 0 ? "missing" : "left"}`}.`;
  return (
    <figure className="pt-4">
      <svg
        ref={svg}
        role="img"
        aria-label={says}
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="block w-full"
        fontSize="15"
      >
        {rows.map((row, index) => (
          <g key={row.name}>
            <text x="0" y={ROW * index + 20} fill="var(--ink)">
              {row.name}
            </text>
            <path
              d={hairs(px, row.from, row.to, step, ROW * index)}
              stroke={
                row.kind === "loss" ? "var(--rosy)" : row.kind === "left" ? "var(--verd)" : "var(--ink)"
              }
              strokeWidth={row.kind === "ingredient" ? 1.6 : 1}
            />
            <path
              d={`M${px(row.from)} ${ROW * index + 26.5}H${Math.max(px(row.to), px(row.from) + 1)}`}
              stroke="var(--ink)"
              strokeWidth=".9"
            />
            <text
              x={px(Math.max(row.to, row.from)) + 8}
              y={ROW * index + 20}
              fill={row.kind === "loss" ? "var(--rosy)" : "var(--ink)"}
            >
              {row.shown}
            </text>
          </g>
        ))}
        {price > 0 && (
          <path
            d={`M${px(price)} 0V${ROW * rows.length}`}
            stroke="var(--ink)"
            strokeDasharray="2 3"
            strokeWidth="1.2"
          />
        )}
        <path d={`M${LEFT} ${height - 26}H${px(end)}`} stroke="var(--ink)" strokeWidth="1.2" />
        {roundMarks(0, end, 8).map((mark) => (
          <g key={mark}>
            <path d={`M${px(mark)} ${height - 26}v5`} stroke="var(--ink)" />
            <text x={px(mark)} y={height - 6} textAnchor="middle" fontSize="13" fill="var(--soft)">
              {signed(String(mark))}
            </text>
          </g>
        ))}
        <text x={WIDTH} y={height - 6} textAnchor="end" fontSize="13" fill="var(--ink)">
          {money.currency}
        </text>
      </svg>
      <figcaption className="flex justify-between text-caption text-soft">
        <span className="italic">
          One hair is {signed(String(step))} {money.currency}.
        </span>
        <DrawingTools
          name={`Money of ${name}`}
          columns={["Part of a piece", money.currency]}
          rows={rows.map((row) => [row.name, row.shown])}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}

interface Part {
  name: string;
  from: number;
  to: number;
  shown: string;
  kind: "ingredient" | "other" | "left" | "loss";
}

/** The parts of a piece, one beginning where the one before ends. */
function partsOf(money: Money): Part[] {
  const written = money.written;
  if (!written) return [];
  let at = 0;
  const part = (name: string, value: number, kind: Part["kind"], shown = value.toFixed(3)): Part => {
    const from = at;
    at += value;
    return { name, from, to: at, shown: signed(shown), kind };
  };
  const ingredients = Number(written.ingredients);
  const dear = money.dearest.map((each) =>
    part(each.name, (ingredients * each.share_pct) / 100, "ingredient"),
  );
  const rest = ingredients - at;
  const parts = [
    ...dear,
    ...(rest > 5e-4 ? [part("all other ingredients", rest, "ingredient")] : []),
    part("packaging", Number(written.packaging), "other", written.packaging),
    part("work", Number(written.labour), "other", written.labour),
    part("overhead", Number(written.overhead), "other", written.overhead),
  ];
  if (written.margin === null) return parts;
  const margin = Number(written.margin);
  const name = margin < 0 ? "missing" : "left";
  return [...parts, part(name, margin, margin < 0 ? "loss" : "left", written.margin)];
}

function hairs(px: (value: number) => number, from: number, to: number, step: number, y: number): string {
  const [low, high] = from <= to ? [from, to] : [to, from];
  const count = Math.round((high - low) / step);
  let path = "";
  for (let hair = 0; hair < count; hair++) path += `M${px(low + (hair + 0.5) * step).toFixed(1)} ${y + 6}v18`;
  return path || `M${px(low).toFixed(1)} ${y + 18}v6`;
}
