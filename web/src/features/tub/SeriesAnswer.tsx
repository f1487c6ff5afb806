import { scaleLinear } from "d3-scale";
import type { Series } from "../../api";
import { r } from "../../lib/hairs";
import { inUnits } from "../../lib/units";

const W = 620;
const H = 62;
const Y = 34;

/** The answer in one word, its sentence, and the interval it rests on. */
export function SeriesAnswer({
  series,
  judgement,
}: {
  series: Series;
  judgement: NonNullable<Series["judgement"]>;
}) {
  const { difference, low, high } = judgement;
  const worth = series.claim.worth ?? 0;
  const reach = 1.15 * Math.max(0.1, ...[difference, low, high, worth].map((each) => Math.abs(each ?? 0)));
  const at = scaleLinear([-reach, reach], [10, W - 10]);
  return (
    <section aria-label="Answer" className="pt-4">
      <p className="text-title leading-tight">{judgement.answer}</p>
      <p className="max-w-[900px] text-reading">{inUnits(judgement.message)}</p>
      {difference !== null && (
        <svg
          viewBox={`0 0 ${W} ${H}`}
          width={W}
          className="mt-2 block max-w-full"
          role="img"
          aria-label={inUnits(judgement.message)}
        >
          <rect x={at(worth)} y="4" width={W - 10 - at(worth)} height={Y - 4} fill="var(--lit)" />
          {low !== null && high !== null && (
            <rect
              x={r(at(low))}
              y={Y - 16}
              width={Math.max(1, at(high) - at(low))}
              height="16"
              fill="var(--vtint)"
              stroke="var(--verd)"
              strokeDasharray="2 3"
            />
          )}
          <path d={`M10 ${Y}H${W - 10}`} stroke="var(--ink)" />
          <path d={`M${r(at(0))} 4V${Y + 5}`} stroke="var(--ink)" strokeDasharray="9 3 2 3" />
          <path d={`M${r(at(difference))} ${Y - 22}V${Y + 5}`} stroke="var(--ink)" strokeWidth="2.6" />
          <text x={at(0)} y={H - 8} textAnchor="middle" fontSize="14" fill="var(--soft)">
            no difference
          </text>
          {worth > 0 && at(worth) - at(0) > 90 && (
            <text x={at(worth)} y={H - 8} textAnchor="middle" fontSize="14" fill="var(--soft)">
              worth it
            </text>
          )}
        </svg>
      )}
    </section>
  );
}
