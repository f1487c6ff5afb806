import { memo, useId } from "react";
import { seeded } from "../lib/seed";
import { outBy, roundMarks, type StripScale, stripScale } from "../lib/stripMap";

export interface StripProps extends StripScale {
  id: string;
  /** One sentence made of the same numbers. */
  text: string;
  value?: number | null | undefined;
  /** Range of the value: stippled. */
  band?: readonly [number, number] | null | undefined;
  /** Wet between two posts instead of from the start. */
  span?: readonly [number, number] | null | undefined;
  open?: boolean;
  width?: number;
  format?: (value: number) => string;
}

const PRINT_Y = 1; // room above the paper for fronts that reach over it

/** Filter paper that has wicked up to its value; everything wanted lies between the same two posts. */
export const Strip = memo(function Strip(props: StripProps) {
  const { id, min, max, wanted, value, band, span, text, open = false, format = String } = props;
  const width = props.width ?? 172;
  const height = open ? 22 : 12;
  const posts = { width, xa: width * 0.31, xb: width * 0.79 };
  const at = stripScale({ min, max, wanted }, posts);
  const start = at(min);
  const end = at(max);
  const out = value == null ? 0 : outBy(value, wanted);
  const laned = wanted !== undefined;
  const pattern = useId();
  return (
    <svg
      role="img"
      aria-label={text}
      width={width + 8}
      height={height + (open ? 24 : 6)}
      viewBox={`0 -${PRINT_Y} ${width + 8} ${height + (open ? 24 : 6)}`}
      className="block overflow-visible"
    >
      <defs>
        <pattern id={`${pattern}l`} width="8" height="4" patternUnits="userSpaceOnUse">
          <rect width="8" height="4" fill="var(--vtint)" />
          <path d="M0 2.5h8" stroke="var(--vline)" strokeWidth=".8" />
        </pattern>
      </defs>
      {start > 0 && <path d={`M0 ${height / 2}H${start}`} stroke="var(--ink)" strokeWidth=".6" />}
      <path d={tornPaper(id, start, end, height)} fill="var(--shade)" />
      {laned && (
        <rect x={posts.xa} width={posts.xb - posts.xa} y={-PRINT_Y} height={height + 6} fill="var(--lit)" />
      )}
      <Wet
        value={value}
        band={band}
        span={span}
        at={at}
        start={start}
        height={height}
        fill={`url(#${pattern}l)`}
        seed={id}
      />
      {out !== 0 && value != null && wanted && (
        <Gap out={out} value={value} wanted={wanted} at={at} height={height} posts={posts} />
      )}
      <path d={`M${start} ${height + 0.5}H${end}`} stroke="var(--ink)" strokeWidth=".9" />
      <path d={ticks(min, max, at, height)} stroke="var(--ink)" strokeWidth=".6" />
      {laned && <Bounds wanted={wanted} posts={posts} height={height} out={out} format={format} />}
      {value != null && <Front x={at(value)} height={height} out={out !== 0} />}
      {open && <Numerals min={min} max={max} wanted={wanted} at={at} height={height} format={format} />}
    </svg>
  );
});

function tornPaper(id: string, start: number, end: number, height: number): string {
  const random = seeded(id);
  const teeth = Math.max(3, Math.round(height / 2.6));
  let edge = "";
  for (let tooth = 0; tooth <= teeth; tooth++) edge += `L${end + random() * 2.8} ${(height * tooth) / teeth}`;
  return `M${start} 0${edge}L${start} ${height}Z`;
}

function ticks(min: number, max: number, at: (v: number) => number, height: number): string {
  const long = new Set(roundMarks(min, max, 5));
  return roundMarks(min, max, 24)
    .map((value) => `M${at(value).toFixed(1)} ${height + 0.5}v${long.has(value) ? 4 : 2.4}`)
    .join("");
}

type At = (value: number) => number;

function Wet({
  value,
  band,
  span,
  at,
  start,
  height,
  fill,
  seed,
}: Pick<StripProps, "value" | "band" | "span"> & {
  at: At;
  start: number;
  height: number;
  fill: string;
  seed: string;
}) {
  if (span)
    return (
      <g>
        <rect x={at(span[0])} width={Math.max(1, at(span[1]) - at(span[0]))} height={height} fill={fill} />
        <path
          d={`M${at(span[0])} -1v${height + 2}M${at(span[1])} -1v${height + 2}`}
          stroke="var(--ink)"
          strokeWidth="2"
        />
      </g>
    );
  if (value == null) return null;
  const x = at(value);
  if (!band) return <rect x={start} width={Math.max(0, x - start)} height={height} fill={fill} />;
  const low = Math.min(x, at(band[0]));
  return (
    <g>
      <rect x={start} width={Math.max(0, low - start)} height={height} fill={fill} />
      <rect x={low} width={Math.max(0, x - low)} height={height} fill={fill} opacity=".5" />
      <path
        d={stipple(seed, low, at(band[1]), height)}
        stroke="var(--verd)"
        strokeWidth="1.1"
        strokeLinecap="round"
      />
    </g>
  );
}

/** Dots thinning from low to high: where the true value may lie. */
function stipple(seed: string, low: number, high: number, height: number): string {
  const random = seeded(`${seed}stipple`);
  let path = "";
  const count = Math.min(160, Math.round((high - low) * height * 0.09));
  for (let dot = 0; dot < count; dot++) {
    const along = 1 - Math.sqrt(1 - random() * 0.98);
    path += `M${(low + along * (high - low)).toFixed(1)} ${(1 + random() * (height - 2)).toFixed(1)}h.1`;
  }
  return path;
}

function Front({ x, height, out }: { x: number; height: number; out: boolean }) {
  return (
    <path
      className="eased"
      d={`M0 -2q2.4 ${(height + 4) / 2} 0 ${height + 4}`}
      transform={`translate(${x} 0)`}
      fill="none"
      stroke={out ? "var(--rosy)" : "var(--ink)"}
      strokeWidth={out ? 2.6 : 2.2}
    />
  );
}

function Gap({
  out,
  value,
  wanted,
  at,
  height,
  posts,
}: {
  out: number;
  value: number;
  wanted: NonNullable<StripScale["wanted"]>;
  at: At;
  height: number;
  posts: { xa: number; xb: number };
}) {
  const post = out < 0 ? at(wanted.low ?? 0) : at(wanted.high ?? posts.xb);
  const front = at(value);
  const [left, right] = front < post ? [front, post] : [post, front];
  const y = height / 2;
  return (
    <g>
      <rect x={left} width={right - left} height={height} fill="var(--ctint)" />
      {right - left > 12 && (
        <path
          d={`M${left + 3} ${y}H${right - 3}M${left + 6} ${y - 2.5}l-3 2.5 3 2.5M${right - 6} ${y - 2.5}l3 2.5-3 2.5`}
          fill="none"
          stroke="var(--rosy)"
          strokeWidth="1.3"
        />
      )}
    </g>
  );
}

function Bounds({
  wanted,
  posts,
  height,
  out,
  format,
}: {
  wanted: NonNullable<StripScale["wanted"]>;
  posts: { xa: number; xb: number };
  height: number;
  out: number;
  format: (value: number) => string;
}) {
  const post = (x: number) => <path d={`M${x} -2V${height + 6}`} stroke="var(--ink)" strokeWidth="1.1" />;
  const y = height / 2 + 4.2;
  return (
    <g fontSize="12.5" fill="var(--ink)">
      {wanted.low !== undefined && post(posts.xa)}
      {(wanted.high !== undefined || wanted.low !== undefined) && post(posts.xb)}
      {wanted.low !== undefined && out >= 0 && height < 20 && (
        <text x={posts.xa - 4} y={y} textAnchor="end" fontWeight="700">
          {format(wanted.low)}
        </text>
      )}
      {wanted.high !== undefined && out <= 0 && height < 20 && (
        <text x={posts.xb + 4} y={y} fontWeight="700">
          {format(wanted.high)}
        </text>
      )}
    </g>
  );
}

function Numerals({
  min,
  max,
  wanted,
  at,
  height,
  format,
}: StripScale & { at: At; height: number; format: (value: number) => string }) {
  const ends = [wanted?.low, wanted?.high].filter((v): v is number => v !== undefined);
  const marks = roundMarks(min, max, 6).filter((v) => ends.every((end) => Math.abs(at(end) - at(v)) > 32));
  const right = at(max) - 12;
  return (
    <g fontSize="13" fill="var(--soft)" textAnchor="middle">
      {marks.map((v) => (
        <text
          key={v}
          x={at(v)}
          y={height + 18}
          textAnchor={at(v) < 12 ? "start" : at(v) > right ? "end" : "middle"}
        >
          {format(v)}
        </text>
      ))}
      {ends.map((v) => (
        <text key={`end${v}`} x={at(v)} y={height + 18} fontWeight="700" fill="var(--ink)">
          {format(v)}
        </text>
      ))}
    </g>
  );
}
