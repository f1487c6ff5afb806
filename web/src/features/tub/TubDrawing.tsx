import type { PointerEvent, Ref } from "react";
import type { TubTest } from "../../api";
import { r } from "../../lib/hairs";
import { fixed } from "../../lib/numbers";
import { seeded } from "../../lib/seed";
import { foretoldAt, halfWidth, heightsOf, levelOfFoam, MOST_CM, SECTION, sectionSentence } from "./section";

const { width: W, height: H, water, floor, rim, cm, gap } = SECTION;

interface Props {
  test: TubTest;
  other: TubTest | null;
  /** A height being dragged on the rule, before it is kept. */
  dragged: number | null;
  onDrag?: ((height_cm: number) => void) | undefined;
  ref?: Ref<SVGSVGElement>;
}

/** Half of each bath, cut at the middle: what was foretold is dashed, what was seen is ink, both on one foot rule. */
export function TubDrawing({ test, other, dragged, onDrag, ref }: Props) {
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!onDrag || (event.type === "pointermove" && event.buttons === 0)) return;
    const box = event.currentTarget.getBoundingClientRect();
    const y = ((event.clientY - box.top) / box.height) * H;
    const height = (water - y) / cm;
    if (height >= 0 && height <= MOST_CM) onDrag(Math.round(height * 10) / 10);
  };
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={`${sectionSentence(test)}${other ? ` ${sectionSentence(other)}` : ""}`}
      viewBox={`0 0 ${W} ${H}`}
      className={`block w-full max-w-[1060px] ${onDrag ? "cursor-ns-resize touch-none" : ""}`}
      onPointerDown={drag}
      onPointerMove={drag}
    >
      <Half test={test} at={W / 2 - gap} side={-1} />
      {other ? <Half test={other} at={W / 2 + gap} side={1} /> : <Empty at={W / 2 + gap} />}
      <FootRule dragged={dragged} />
    </svg>
  );
}

/** Outline of one half from the cut to the rim, at some distance outside the inner wall. */
function outline(at: number, side: 1 | -1, top: number, outside: number): string {
  const points: string[] = [];
  for (let step = 0; step <= 40; step++) {
    const y = top + ((floor - top) * step) / 40;
    points.push(`${r(at + side * (halfWidth(y) + outside))} ${r(y)}`);
  }
  points.push(
    `${r(at + side * (halfWidth(floor) * 0.9))} ${r(floor + outside)}`,
    `${r(at)} ${r(floor + outside)}`,
  );
  return points.join("L");
}

function Wall({ at, side }: { at: number; side: 1 | -1 }) {
  const inner = outline(at, side, rim, 0);
  const outer = outline(at, side, rim, 14).split("L").reverse().join("L");
  const foot = at + side * halfWidth(floor) * 0.8;
  return (
    <>
      <path d={`M${inner}L${outer}Z`} fill="var(--ctint)" stroke="var(--ink)" strokeWidth="1.4" />
      <path
        d={`M${r(foot - 16)} ${floor + 14}L${r(foot - 9)} ${H - 12}H${r(foot + 9)}L${r(foot + 16)} ${floor + 14}Z`}
        fill="var(--ctint)"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
    </>
  );
}

function Empty({ at }: { at: number }) {
  return (
    <g opacity="0.55">
      <path
        d={`M${outline(at, 1, rim, 0)}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.2"
        strokeDasharray="9 3 2 3"
      />
      <text
        x={at + 200}
        y={floor - 120}
        textAnchor="middle"
        fontSize="19"
        fontStyle="italic"
        fill="var(--soft)"
      >
        another test beside it
      </text>
    </g>
  );
}

function Half({ test, at, side }: { test: TubTest; at: number; side: 1 | -1 }) {
  const seen = heightsOf(test);
  const first = seen.find((each) => each.minutes >= 4) ?? seen[0];
  const last = seen.length > 1 ? seen[seen.length - 1] : undefined;
  const said = first ? foretoldAt(test, first.minutes) : foretoldAt(test, 5);
  const textAt = at + side * 60;
  const anchor = side < 0 ? "end" : "start";
  return (
    <g>
      <path d={`M${at} ${water}L${outline(at, side, water, 0)}Z`} fill="var(--vtint)" />
      <Lines at={at} side={side} seed={`lines${test.id}`} />
      {first && (
        <Foam at={at} side={side} from={0} to={first.height_cm} seed={`foam${test.id}`} wet={false} />
      )}
      {last && <Foam at={at} side={side} from={0} to={last.height_cm} seed={`last${test.id}`} wet />}
      {seen.slice(1, -1).map((each) => (
        <path
          key={each.seq}
          d={`M${at} ${r(levelOfFoam(each.height_cm))}H${r(at + side * halfWidth(levelOfFoam(each.height_cm)))}`}
          stroke="var(--ink)"
          strokeWidth="1"
          strokeDasharray="7 5"
        />
      ))}
      <path
        d={`M${at} ${water}H${r(at + side * halfWidth(water))}`}
        stroke="var(--vline)"
        strokeWidth="1.6"
      />
      {said !== null && (
        <path
          d={`M${r(at + side * 96)} ${r(levelOfFoam(said))}H${r(at - side * 8)}`}
          stroke="var(--ink)"
          strokeWidth="2.4"
          strokeDasharray="6 4"
        />
      )}
      <Wall at={at} side={side} />
      <path
        d={`M${at} ${rim - 14}V${floor + 30}`}
        stroke="var(--ink)"
        strokeWidth="1.1"
        strokeDasharray="12 3 2 3"
      />
      <g fill="var(--ink)" textAnchor={anchor}>
        <text x={textAt} y={floor - 170} fontSize="84" fontWeight="350">
          {first ? fixed(first.height_cm, 1) : "–"}
        </text>
        <text x={textAt} y={floor - 136} fontSize="20" fontWeight="600">
          {first ? `cm at ${first.minutes} min` : "not measured yet"}
        </text>
        {last && (
          <text x={textAt} y={floor - 106} fontSize="20">
            {fixed(last.height_cm, 1)} cm at {last.minutes} min
          </text>
        )}
        {said !== null && (
          <text x={textAt} y={floor - 76} fontSize="17">
            the Desk said {fixed(said, 1)}
          </text>
        )}
        <text x={textAt} y={floor - 46} fontSize="15" fontStyle="italic" fill="var(--soft)">
          {test.version ? `version ${test.version}, ` : ""}
          {test.use.dose_g} g in {test.use.tub_l} L
        </text>
      </g>
    </g>
  );
}

/** Bubbles between the water and a height: small below, large above. */
function Foam({
  at,
  side,
  from,
  to,
  seed,
  wet,
}: {
  at: number;
  side: 1 | -1;
  from: number;
  to: number;
  seed: string;
  wet: boolean;
}) {
  const [low, high] = [levelOfFoam(from), levelOfFoam(to)];
  if (low - high < 2) return null;
  const chance = seeded(seed);
  const reach = halfWidth(high) - 4;
  const bubbles = Math.min(420, Math.round(((low - high) * reach) / (wet ? 70 : 110)));
  const edge = wet ? "var(--vline)" : "var(--ink)";
  return (
    <g>
      <path
        d={`M${at} ${low}V${r(high)}H${r(at + side * halfWidth(high))}L${r(at + side * halfWidth(low))} ${low}Z`}
        fill={wet ? "var(--vtint)" : "var(--lit)"}
      />
      <g fill="none" stroke={edge} strokeWidth=".7">
        {Array.from({ length: bubbles }, (_, index) => {
          const up = Math.sqrt(chance());
          const size = (wet ? 1.2 : 1.4) + up * (wet ? 2 : 5) * chance();
          const y = Math.max(high + size, low - size - up * (low - high - 2 * size));
          // biome-ignore lint/suspicious/noArrayIndexKey: seeded bubbles keep their order
          return <circle key={index} cx={r(at + side * (size + chance() * reach))} cy={r(y)} r={r(size)} />;
        })}
      </g>
      <path
        d={`M${at} ${r(high)}H${r(at + side * halfWidth(high))}`}
        stroke={wet ? "var(--verd)" : "var(--ink)"}
        strokeWidth="2.2"
      />
    </g>
  );
}

/** Hand-ruled water. */
function Lines({ at, side, seed }: { at: number; side: 1 | -1; seed: string }) {
  const chance = seeded(seed);
  const paths: string[] = [];
  for (let y = water + 14; y < floor - 14; y += 13) {
    const reach = halfWidth(y);
    for (let x = chance() * 40; x < reach - 60; x += 60 + chance() * 90) {
      const run = Math.min(30 + chance() * 50, reach - 20 - x);
      paths.push(
        `M${r(at + side * x)} ${r(y)}q${r((side * run) / 4)} -3 ${r((side * run) / 2)} 0t${r((side * run) / 2)} 0`,
      );
    }
  }
  return <path d={paths.join("")} fill="none" stroke="var(--vline)" strokeWidth=".8" opacity=".7" />;
}

function FootRule({ dragged }: { dragged: number | null }) {
  const x = W / 2;
  return (
    <g>
      <rect
        x={x - 20}
        y={water - MOST_CM * cm}
        width="40"
        height={MOST_CM * cm}
        fill="var(--lit)"
        stroke="var(--ink)"
        strokeWidth="1"
      />
      {Array.from({ length: MOST_CM * 2 - 1 }, (_, half) => {
        const y = water - ((half + 1) / 2) * cm;
        const whole = half % 2 === 1;
        return (
          <g key={y}>
            <path
              d={`M${x - 20} ${y}h${whole ? 9 : 5}M${x + 20} ${y}h${whole ? -9 : -5}`}
              stroke="var(--ink)"
              strokeWidth=".8"
            />
            {whole && (
              <text x={x} y={y + 5} textAnchor="middle" fontSize="13" fill="var(--ink)">
                {(half + 1) / 2}
              </text>
            )}
          </g>
        );
      })}
      <text x={x} y={water + 18} textAnchor="middle" fontSize="13" fontStyle="italic" fill="var(--soft)">
        cm
      </text>
      {dragged !== null && (
        <path
          d={`M${x - 60} ${r(levelOfFoam(dragged))}H${x + 30}`}
          stroke="var(--rosy)"
          strokeWidth="2.6"
          data-dragged={dragged}
        />
      )}
    </g>
  );
}
