import { scaleLinear, scaleLog } from "d3-scale";
import type { LearntFactor } from "../../api";
import { r } from "../../lib/hairs";
import { figure, fixed } from "../../lib/numbers";
import { seeded } from "../../lib/seed";

const W = 420;
const H = 46;
const Y = 30;
const LABEL = 54; // the widest figure that is written under a post
const FURTHEST = 3;
const STROKES = 5;
const MOST_TALLY = 25;

/** One factor: the default's band is the lane, its post is 1; wet from the default to yours, stippled as far as it may lie. */
export function FactorStrip({ factor }: { factor: LearntFactor }) {
  const at = scaleOf(factor);
  const [from, to] = [at(factor.default), at(factor.yours)].sort((a, b) => a - b) as [number, number];
  const chance = seeded(factor.id);
  const dots = Array.from({ length: 70 }, () => {
    const x = at(factor.low) + chance() * (at(factor.high) - at(factor.low));
    return `M${r(x)} ${r(Y - 13 + chance() * 11)}h.01`;
  });
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      className="block max-w-full"
      role="img"
      aria-label={`${factor.message} The default was trusted from ${said(factor, factor.default_low)} to ${said(factor, factor.default_high)}.`}
    >
      <rect
        x={at(factor.default_low)}
        width={Math.max(1, at(factor.default_high) - at(factor.default_low))}
        y="2"
        height={Y - 2}
        fill="var(--lit)"
      />
      <rect x={from} width={Math.max(1, to - from)} y={Y - 14} height="14" fill="var(--vtint)" />
      <path d={dots.join("")} stroke="var(--verd)" strokeWidth="1.6" strokeLinecap="round" />
      <path d={`M0 ${Y}H${W}`} stroke="var(--ink)" strokeWidth="1" />
      <path
        d={`M${r(at(factor.default))} 2V${Y + 4}`}
        stroke="var(--ink)"
        strokeWidth="1.1"
        strokeDasharray="9 3 2 3"
      />
      <path d={`M${r(at(factor.yours))} ${Y - 20}V${Y + 4}`} stroke="var(--ink)" strokeWidth="2.4" />
      <text x={at(factor.default)} y={H - 1} textAnchor="middle" fontSize="13" fill="var(--soft)">
        {said(factor, factor.default)}
      </text>
      {Math.abs(at(factor.yours) - at(factor.default)) > LABEL && (
        <text
          x={Math.min(W - LABEL / 2, Math.max(LABEL / 2, at(factor.yours)))}
          y={H - 1}
          textAnchor="middle"
          fontSize="14"
          fontWeight="600"
          fill="var(--ink)"
        >
          {said(factor, factor.yours)}
        </text>
      )}
    </svg>
  );
}

const said = (factor: LearntFactor, value: number) =>
  factor.unit === "×" ? `× ${fixed(value, 2)}` : `${figure(value)} ${factor.unit}`;

function scaleOf(factor: LearntFactor) {
  if (factor.unit === "×")
    return scaleLog()
      .domain([1 / FURTHEST, FURTHEST])
      .range([0, W])
      .clamp(true);
  const reach =
    1.2 * Math.max(...[factor.low, factor.high, factor.default_low].map((x) => Math.abs(x - factor.default)));
  return scaleLinear()
    .domain([factor.default - reach, factor.default + reach])
    .range([0, W])
    .clamp(true);
}

/** How many observations it rests on, as a hand keeps count; more than a hand would keep only the sentence says. */
export function Tally({ n }: { n: number }) {
  if (n > MOST_TALLY) return null;
  const strokes = Array.from({ length: n }, (_, index) => {
    const group = Math.floor(index / STROKES);
    const inGroup = index % STROKES;
    const x = 4 + group * 30;
    return inGroup === STROKES - 1 ? `M${x - 3} 18L${x + 19} 5` : `M${x + inGroup * 5} 4V19`;
  });
  return (
    <svg
      width={Math.max(24, Math.ceil(n / STROKES) * 30)}
      height="23"
      role="img"
      aria-label={`${n} observations`}
    >
      <path d={strokes.join("")} stroke="var(--ink)" strokeWidth="1.4" fill="none" />
    </svg>
  );
}
