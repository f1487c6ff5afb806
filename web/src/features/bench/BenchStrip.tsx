/** The scale as wicking paper: the last grams are drawn wide, the tolerance is the lane. */
interface Props {
  value: number | null;
  target: number;
  tolerance: number;
}

const W = 620;
const TOP = 10;
const H = 46;
const NEAR = 5; // tolerances before the target from which the paper is drawn wide

export function BenchStrip({ value, target, tolerance }: Props) {
  const near = Math.max(target * 0.5, target - NEAR * tolerance);
  const end = target + 4 * tolerance;
  const px = (grams: number) => {
    const bounded = Math.min(Math.max(grams, 0), end);
    return bounded <= near
      ? (bounded / near) * (W * 0.5)
      : W * 0.5 + ((bounded - near) / (end - near)) * W * 0.5;
  };
  const low = px(target - tolerance);
  const high = px(target + tolerance);
  const at = value === null ? 0 : px(value);
  const out = value !== null && Math.abs(value - target) > tolerance;
  const ticks = [0, 0.25, 0.5, 0.75].map((share) => share * near);
  return (
    <svg viewBox={`0 0 ${W} 92`} className="block w-full" aria-hidden="true">
      <rect x="0" y={TOP} width={W} height={H} fill="var(--shade)" />
      <rect x={low} y={TOP} width={high - low} height={H} fill="var(--lit)" />
      {value !== null && (
        <>
          <rect x="0" y={TOP} width={at} height={H} fill="var(--vtint)" />
          {[0, 1, 2, 3].map((line) => (
            <path
              key={line}
              d={`M0 ${TOP + 9 + line * 10}H${at}`}
              stroke="var(--vline)"
              strokeWidth="1.1"
              className="[transition:none]"
            />
          ))}
          {out && (
            <>
              <rect
                x={at < low ? at : high}
                y={TOP}
                width={at < low ? low - at : Math.max(0, at - high)}
                height={H}
                fill="var(--ctint)"
              />
              <path
                d={`M${at} ${TOP + H / 2}H${px(target)}M${px(target)} ${TOP + H / 2}l${at < px(target) ? -8 : 8} -5m0 10l${at < px(target) ? 8 : -8} -5`}
                stroke="var(--rosy)"
                strokeWidth="1.8"
                fill="none"
              />
            </>
          )}
          <path
            d={`M${at} ${TOP - 3}q4 ${H / 2 + 3} 0 ${H + 6}`}
            stroke={out ? "var(--rosy)" : "var(--verd)"}
            strokeWidth="3.6"
            fill="none"
          />
        </>
      )}
      <path
        d={`M${low} 0V${TOP + H}M${high} 0V${TOP + H}M0 ${TOP + H}H${W}`}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path d={`M${px(target)} ${TOP + 6}V${TOP + H - 6}`} stroke="var(--ink)" strokeWidth="2.4" />
      <g fontSize="20" fill="var(--ink)">
        {ticks.map((grams) => (
          <text key={grams} x={px(grams)} y="82" textAnchor={grams === 0 ? "start" : "middle"}>
            {Math.round(grams)}
          </text>
        ))}
        <text x={px(target)} y="86" textAnchor="middle" fontSize="30" fontWeight="700">
          {target.toFixed(1)}
        </text>
      </g>
    </svg>
  );
}
