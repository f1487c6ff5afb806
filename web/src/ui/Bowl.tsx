import { memo, type ReactNode, useId, useMemo } from "react";
import { heightOf, levelOf, profile, RIM_SATURATION, SURFACE, strata } from "../lib/bowl";
import { grainPath, type Mark, scatter } from "../lib/grains";
import { r } from "../lib/hairs";
import { figure } from "../lib/numbers";
import { seeded } from "../lib/seed";

/** One powder in the bowl, from the floor up. */
export interface BowlLayer {
  key: string;
  name: string;
  ml: number;
  mark: Mark;
}

export interface BowlZone {
  state: string;
  saturation_from: number;
}

interface Props {
  /** Seed of the grains: the same bowl never shimmers. */
  seed: string;
  cx: number;
  rimY: number;
  radius: number;
  depth: number;
  layers: readonly BowlLayer[];
  saturation: number | null;
  state: string | null;
  zones: readonly BowlZone[];
  wanted?: readonly [number | null, number | null];
  focusKey?: string | undefined;
  /** Drawn between the back wall and the dough: the pour. */
  children?: ReactNode;
}

const WALL = 12;
const GRAIN_RADIUS = 7; // between neighbours
const SECTION_STEPS = 40;

/** One sentence about the bowl, from its own numbers. */
export function bowlSentence(
  saturation: number | null,
  state: string | null,
  wantedStates: readonly string[],
): string {
  if (state === null) return "The bowl is empty.";
  const fill =
    saturation === null
      ? "There is no powder to drink the liquid"
      : `Liquid fills ${figure(saturation)} of what the powders can drink`;
  return `${fill}: ${state}; wanted is ${wantedStates.join(" or ")}.`;
}

/** The mixing bowl in section: powders as strata, the wet level, the dip strip. */
export const Bowl = memo(function Bowl(props: Props) {
  const { cx, rimY, radius, depth, children } = props;
  const inner = useMemo(() => section(cx, rimY, radius, depth), [cx, rimY, radius, depth]);
  const clip = useId();
  return (
    <g>
      <clipPath id={clip}>
        <path d={inner} />
      </clipPath>
      <BackWall {...props} clip={clip} />
      {children}
      <Dough {...props} clip={clip} />
      <Wall cx={cx} rimY={rimY} radius={radius} depth={depth} inner={inner} />
      <DipStrip {...props} />
    </g>
  );
});

/** Left side from rim to floor and up the right side; steps crowd at the floor, where the curve is tight. */
function section(cx: number, rimY: number, radius: number, depth: number, out = 0): string {
  const points: string[] = [];
  for (let step = -SECTION_STEPS; step <= SECTION_STEPS; step++) {
    const t = (step / SECTION_STEPS) ** 2;
    const side = step < 0 ? -1 : 1;
    points.push(`${r(cx + side * (radius + out) * profile(t))} ${r(rimY + (depth + out) * (1 - t))}`);
  }
  return `M${points.join("L")}`;
}

function BackWall({ cx, rimY, radius, depth, seed, clip }: Props & { clip: string }) {
  const arcs = useMemo(() => {
    const random = seeded(`${seed}wall`);
    let path = "";
    for (let line = 0; line < 26; line++) {
      const y = rimY + 4 + line * 3.3;
      const reach = radius * (0.18 + 0.5 * random()) * (line % 3 === 0 ? 0.4 : 1);
      path += `M${r(cx - radius)} ${r(y)}q${r(reach / 2)} 4 ${r(reach)} 5`;
      if (line % 2) path += `M${r(cx + radius)} ${r(y)}q${r(-reach / 4)} 3 ${r(-reach / 2.4)} 4`;
    }
    return path;
  }, [cx, rimY, radius, seed]);
  const surface = rimY + depth * (1 - SURFACE);
  return (
    <g>
      <path
        d={`M${cx - radius} ${rimY + 2}Q${cx} ${rimY - 9} ${cx + radius} ${rimY + 2}V${surface + 6}H${cx - radius}Z`}
        fill="var(--shade)"
        clipPath=""
      />
      <path
        d={`M${cx - radius} ${rimY + 2}Q${cx} ${rimY - 9} ${cx + radius} ${rimY + 2}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.1"
      />
      <path d={arcs} fill="none" stroke="var(--soft)" strokeWidth=".6" clipPath={`url(#${clip})`} />
    </g>
  );
}

function Dough({
  cx,
  rimY,
  radius,
  depth,
  seed,
  layers,
  saturation,
  focusKey,
  clip,
}: Props & { clip: string }) {
  const y = (t: number) => rimY + depth * (1 - t);
  const bands = useMemo(() => strata(layers), [layers]);
  const level = saturation === null ? (layers.length ? 0 : 0.4) : levelOf(saturation);
  const hasPowder = bands.length > 0 && layers.some((layer) => layer.ml > 0);
  const surfaceT = hasPowder ? SURFACE : 0;
  const grains = useGrains(seed, cx, rimY, radius, depth, hasPowder ? bands : [], layers);
  const lining = useMemo(
    () => linings(cx - radius, cx + radius, rimY + depth, rimY),
    [cx, radius, rimY, depth],
  );
  const fringe = useMemo(() => fringes(seed, cx - radius, cx + radius), [seed, cx, radius]);
  const dryTop = y(surfaceT);
  const wetTop = y(level);
  const wetClip = useId();
  return (
    <g clipPath={`url(#${clip})`}>
      {hasPowder && <rect x={cx - radius} width={radius * 2} y={dryTop} height={depth} fill="var(--paper)" />}
      <clipPath id={wetClip}>
        <rect
          className="eased"
          x={cx - radius}
          width={radius * 2}
          height={depth * 2}
          transform={`translate(0 ${wetTop})`}
        />
      </clipPath>
      {level > 0 && (
        <g clipPath={`url(#${wetClip})`}>
          <rect x={cx - radius + 1.6} width={radius * 2} y={rimY} height={depth} fill="var(--vtint)" />
          <path d={lining} stroke="var(--vline)" strokeWidth=".8" fill="none" />
        </g>
      )}
      {level > 0 && level < surfaceT && (
        <path
          d={fringe}
          transform={`translate(0 ${wetTop})`}
          stroke="var(--vline)"
          strokeWidth=".8"
          className="eased"
        />
      )}
      {grains.map((layer) => (
        <path
          key={layer.key}
          d={layer.d}
          fill="var(--grain)"
          stroke="var(--grainline)"
          strokeWidth=".75"
          strokeLinecap="round"
        />
      ))}
      {bands.map((band) => (
        <path
          key={band.key}
          d={wavy(cx - radius, cx + radius, y(band.to))}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={band.key === focusKey ? 2 : 0.75}
        />
      ))}
      {level > 0 && (
        <path
          className="eased"
          d={`M${cx - radius} 0H${cx + radius}`}
          transform={`translate(0 ${wetTop})`}
          stroke="var(--verd)"
          strokeWidth="2.2"
        />
      )}
    </g>
  );
}

function wavy(x0: number, x1: number, y: number): string {
  const third = (x1 - x0) / 3;
  return `M${r(x0)} ${r(y + 1)}q${r(third / 2)} -3 ${r(third)} 0t${r(third)} 0t${r(third)} 0`;
}

function linings(x0: number, x1: number, floor: number, rim: number): string {
  let path = "";
  let y = floor - 6;
  for (let line = 0; y > rim; line++) {
    path += `M${r(x0)} ${r(y)}H${r(x1)}`;
    y -= 4.2 + 0.22 * line;
  }
  return path;
}

function fringes(seed: string, x0: number, x1: number): string {
  const random = seeded(`${seed}fringe`);
  let path = "";
  for (let x = x0; x < x1; x += 3 + random() * 5) path += `M${r(x)} 0v${r(-2 - random() * 11)}`;
  return path;
}

/** Grains keep their seeded places; what changes with the amounts is only whose grain lies there. */
function useGrains(
  seed: string,
  cx: number,
  rimY: number,
  radius: number,
  depth: number,
  bands: readonly { key: string; from: number; to: number }[],
  layers: readonly BowlLayer[],
) {
  const places = useMemo(() => {
    const random = seeded(`${seed}lean`);
    return scatter(seed, radius * 2, depth, GRAIN_RADIUS)
      .map((point) => ({ x: point.x, y: point.y, t: 1 - point.y / depth, lean: random() }))
      .filter(({ x, t }) => Math.abs(x - radius) < radius * profile(Math.max(0, t)) - 2 && t < SURFACE);
  }, [seed, radius, depth]);
  return useMemo(
    () =>
      bands.map((band) => {
        const mark = layers.find((layer) => layer.key === band.key)?.mark ?? "dot";
        let d = "";
        for (const { x, y, t, lean } of places)
          if (t >= band.from && t < band.to) d += grainPath(mark, { x: cx - radius + x, y: rimY + y }, lean);
        return { key: band.key, d };
      }),
    [bands, layers, places, cx, rimY, radius],
  );
}

function Wall({
  cx,
  rimY,
  radius,
  depth,
  inner,
}: {
  cx: number;
  rimY: number;
  radius: number;
  depth: number;
  inner: string;
}) {
  const hatch = useId();
  const outer = section(cx, rimY, radius, depth, WALL);
  const foot = rimY + depth + WALL - 4;
  const lip = (x: number) => (
    <circle cx={x} cy={rimY} r={WALL / 2} fill={`url(#${hatch})`} stroke="var(--ink)" strokeWidth="1.3" />
  );
  const legs = [-1, 1]
    .map((side) => {
      const x = cx + side * radius * 0.31;
      return `M${r(x - 15)} ${foot}L${r(x - 9)} ${foot + 20}H${r(x + 9)}L${r(x + 15)} ${foot}Z`;
    })
    .join("");
  const ground = [0, 1, 2, 3, 4]
    .map(
      (line) =>
        `M${r(cx - radius * (0.75 - line * 0.12))} ${foot + 23 + line * 4}H${r(cx + radius * (0.85 - line * 0.13))}`,
    )
    .join("");
  return (
    <g>
      <defs>
        <pattern
          id={hatch}
          width="4.4"
          height="4.4"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="4.4" height="4.4" fill="var(--ctint)" />
          <path d="M0 0v4.4" stroke="var(--ink)" strokeWidth=".6" />
        </pattern>
      </defs>
      <path d={legs} fill={`url(#${hatch})`} stroke="var(--ink)" strokeWidth="1.3" />
      <path
        d={`${outer} ${inner}`}
        fillRule="evenodd"
        fill={`url(#${hatch})`}
        stroke="var(--ink)"
        strokeWidth="1.3"
      />
      {lip(cx - radius - WALL / 2)}
      {lip(cx + radius + WALL / 2)}
      <path d={ground} stroke="var(--soft)" strokeWidth=".6" />
    </g>
  );
}

function DipStrip({ cx, rimY, radius, depth, zones, saturation, state, wanted, seed }: Props) {
  const half = Math.min(36, Math.max(34, radius * 0.22)); // no narrower than its longest name
  const x = cx + radius * 0.24;
  const y = (t: number) => rimY + depth * (1 - t);
  const top = rimY - 46;
  const foot = y(heightOf(0.02));
  const level = saturation === null ? foot : y(levelOf(saturation));
  const random = seeded(`${seed}dip`);
  const teeth = Array.from(
    { length: 8 },
    (_, i) => `L${r(x - half + (i * 2 * half) / 7)} ${r(top + (i % 2 ? 0 : 4) + random() * 2)}`,
  ).join("");
  const inStrip = zones.filter((zone) => zone.saturation_from < RIM_SATURATION || zone.state === "pour");
  return (
    <g>
      <path
        d={`M${x - half} ${foot}${teeth}L${x + half} ${foot}Z`}
        fill="var(--lit)"
        stroke="var(--ink)"
        strokeWidth="1.1"
      />
      {saturation !== null && (
        <rect
          className="eased"
          x={x - half + 0.6}
          width={2 * half - 1.2}
          height="1"
          transform={`translate(0 ${foot}) scale(1 ${-Math.max(0, foot - Math.max(top + 6, level))})`}
          fill="var(--vtint)"
          opacity=".62"
        />
      )}
      {inStrip.map((zone, index) => {
        const bottom = zone.saturation_from === 0 ? foot : y(levelOf(zone.saturation_from));
        const next = inStrip[index + 1];
        const above = next ? y(levelOf(next.saturation_from)) : top + 8;
        const current = zone.state === state;
        const middle = (bottom + above) / 2 + 4.5;
        const nudge = Math.abs(middle - 4.5 - level) < 7 ? (middle - 4.5 < level ? -6 : 6) : 0;
        return (
          <g key={zone.state}>
            {zone.saturation_from > 0 && (
              <path d={`M${x - half} ${bottom}H${x + half}`} stroke="var(--ink)" strokeWidth=".6" />
            )}
            {bottom - above > 9 && (
              <text
                x={x}
                y={middle + nudge}
                textAnchor="middle"
                fontSize="13"
                fontWeight={current ? 700 : 500}
                fill="var(--ink)"
              >
                {zone.state.replace(" dough", zone.state === "play dough" ? " dough" : "")}
              </text>
            )}
          </g>
        );
      })}
      {wanted && (wanted[0] !== null || wanted[1] !== null) && (
        <path
          d={`M${x + half + 7} ${y(levelOf(wanted[1] ?? RIM_SATURATION))}h-5V${y(levelOf(wanted[0] ?? 0))}h5`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
        />
      )}
      {saturation !== null && (
        <path
          className="eased"
          d={`M${x - half} 0h${2 * half}`}
          transform={`translate(0 ${level})`}
          stroke="var(--verd)"
          strokeWidth="2.6"
        />
      )}
    </g>
  );
}
