import type { Ref } from "react";
import type { Series, SeriesVariant } from "../../api";
import { r } from "../../lib/hairs";
import { fixed } from "../../lib/numbers";
import { seeded } from "../../lib/seed";

const H = 330;
const FLOOR = 250;
const TOP = 26;
const LEFT = 64;
const EACH = 160;
const INSET = 18;
/** Minutes after which the reading of a claim is taken, where it is one of foam. */
const MINUTE: Record<string, number> = {
  foam_1_min_cm: 1,
  foam_height_cm: 5,
  foam_10_min_cm: 10,
  foam_20_min_cm: 20,
};

/** One bath a variant, all on one rule: foam filled to the mean, every bath a stroke, the Desk's word dashed. */
export function SeriesDrawing({ series, ref }: { series: Series; ref?: Ref<SVGSVGElement> }) {
  const id = series.claim.reading;
  const seen = series.tests.map((test) => test.figures[id]).filter((value) => typeof value === "number");
  const most = 1.15 * Math.max(1, ...seen, ...series.variants.map((each) => saidOf(each, id) ?? 0));
  const y = (value: number) => FLOOR - ((FLOOR - TOP) * value) / most;
  const width = LEFT + series.variants.length * EACH + 20;
  const step = most > 8 ? 2 : 1;
  const marks = Array.from({ length: Math.floor(most / step) + 1 }, (_, index) => index * step);
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={seriesSentence(series)}
      viewBox={`0 0 ${width} ${H}`}
      className="block w-full"
      style={{ maxWidth: width * 1.25 }}
    >
      <rect x={LEFT} y={TOP} width={width - LEFT - 20} height={FLOOR - TOP} fill="var(--shade)" />
      {series.variants.map((variant, index) => (
        <Bath key={variant.letter} series={series} variant={variant} x={LEFT + index * EACH} y={y} />
      ))}
      <g fill="var(--soft)" fontSize="14">
        {marks.map((value) => (
          <g key={value}>
            <path d={`M${LEFT} ${r(y(value))}h-6`} stroke="var(--ink)" />
            <text x={LEFT - 10} y={y(value) + 5} textAnchor="end">
              {value}
            </text>
          </g>
        ))}
        <text x={LEFT - 10} y={TOP - 10} textAnchor="end" fill="var(--ink)">
          {series.reading.unit}
        </text>
      </g>
      <path d={`M${LEFT} ${TOP}V${FLOOR}H${width - 20}`} fill="none" stroke="var(--ink)" strokeWidth="1.4" />
    </svg>
  );
}

function Bath({
  series,
  variant,
  x,
  y,
}: {
  series: Series;
  variant: SeriesVariant;
  x: number;
  y: (value: number) => number;
}) {
  const id = series.claim.reading;
  const figures = variant.figures[id];
  const said = saidOf(variant, id);
  const [from, to] = [x + INSET, x + EACH - INSET];
  const own = series.tests.filter((test) => test.variant === variant.letter);
  const chance = seeded(`${series.id}${variant.letter}`);
  const bubbles = figures
    ? Array.from({ length: 90 }, () => {
        const up = chance();
        return {
          cx: from + 5 + chance() * (to - from - 10),
          cy: FLOOR - 4 - up * Math.max(0, FLOOR - y(figures.mean) - 8),
          size: 1.3 + up * 3.2 * chance(),
        };
      })
    : [];
  return (
    <g>
      {figures && (
        <rect
          x={from}
          y={y(figures.mean)}
          width={to - from}
          height={FLOOR - y(figures.mean)}
          fill="var(--lit)"
        />
      )}
      <g fill="none" stroke="var(--ink)" strokeWidth=".6">
        {bubbles.map((each, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: seeded bubbles keep their order
          <circle key={index} cx={r(each.cx)} cy={r(each.cy)} r={r(each.size)} />
        ))}
      </g>
      {own.map((test, index) => {
        const value = test.figures[id];
        return typeof value === "number" ? (
          <path
            key={test.code}
            d={`M${r(from + 8 + ((to - from - 16) * (index + 0.5)) / own.length - 7)} ${r(y(value))}h14`}
            stroke="var(--ink)"
            strokeWidth="1.1"
          />
        ) : null;
      })}
      {figures && <path d={`M${from} ${r(y(figures.mean))}H${to}`} stroke="var(--ink)" strokeWidth="2.8" />}
      {said !== null && (
        <path
          d={`M${from - 8} ${r(y(said))}H${to + 8}`}
          stroke="var(--ink)"
          strokeWidth="1.6"
          strokeDasharray="6 4"
        />
      )}
      <text x={(from + to) / 2} y={FLOOR + 30} textAnchor="middle" fontSize="24" fill="var(--ink)">
        {variant.letter}
        {figures ? ` ${fixed(figures.mean, 1)}` : ""}
      </text>
      <text x={(from + to) / 2} y={FLOOR + 52} textAnchor="middle" fontSize="14" fill="var(--soft)">
        {figures ? `${figures.n} baths` : "code closed"}
        {figures && typeof figures.spread === "number" ? ` ± ${fixed(figures.spread, 2)}` : ""}
      </text>
    </g>
  );
}

/** What the Desk said of a reading of foam, between the minutes it was told for. */
export function saidOf(variant: SeriesVariant, reading: string): number | null {
  if (reading === "gone_after_min") return variant.foretold.gone_after_min;
  const minute = MINUTE[reading] ?? 0;
  const told = variant.foretold.heights;
  return told.find((point) => point.minutes === minute)?.height_cm ?? null;
}

function seriesSentence(series: Series): string {
  const told = series.variants.map((variant) => {
    const figures = variant.figures[series.claim.reading];
    return figures
      ? `${variant.letter} ${fixed(figures.mean, 1)} ${series.reading.unit} in ${figures.n} baths`
      : `${variant.letter} not opened`;
  });
  return `${series.reading.label}: ${told.join(", ")}.`;
}
