import { seeded } from "../../lib/seed";

const WIDTH = 300;
const HEIGHT = 130;

/** A dough in a squeezed hand and dropped beside it, drawn from its state alone: grains apart, crumbs, a ball, threads, a puddle. */
export function TextureTile({
  state,
  seed = "",
  large = false,
}: {
  state: string;
  seed?: string;
  large?: boolean;
}) {
  const random = seeded(`${state}${seed}`);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={large ? "block w-full max-w-[460px]" : "block w-full"}
      aria-hidden="true"
    >
      <path d={`M4 ${HEIGHT - 6}H${WIDTH - 4}`} stroke="var(--ink)" strokeWidth="1.6" />
      <Squeezed state={state} random={random} />
      <Dropped state={state} random={random} />
    </svg>
  );
}

type Part = { state: string; random: () => number };
const BASE = HEIGHT - 6;
const WET = new Set(["play dough", "sticky", "batter", "pour"]);

function Squeezed({ state, random }: Part) {
  const fill = WET.has(state) ? "var(--vtint)" : "var(--grain)";
  const grains = (count: number, cx: number, rx: number, lift: number) =>
    Array.from(
      { length: count },
      () => `M${cx + (random() - 0.5) * 2 * rx} ${BASE - random() * lift}h.1`,
    ).join("");
  if (state === "dust")
    return (
      <path
        d={grains(170, 80, 66, 26)}
        stroke="var(--ink)"
        strokeWidth="2.4"
        strokeLinecap="round"
        fill="none"
      />
    );
  if (state === "pour")
    return (
      <g stroke="var(--ink)" strokeWidth="1.4">
        <path d={`M10 ${BASE}q14-10 70-10t70 10z`} fill={fill} />
        <path d={`M72 6C70 50 74 90 72 ${BASE - 10}M88 6C90 50 86 90 88 ${BASE - 10}`} fill="none" />
      </g>
    );
  if (state === "batter")
    return (
      <g stroke="var(--ink)" strokeWidth="1.5">
        <path d={`M12 ${BASE}q20-30 68-30t68 30z`} fill={fill} />
        {[0, 1, 2, 3, 4].map((each) => (
          <circle
            key={each}
            cx={44 + random() * 72}
            cy={BASE - 8 - random() * 12}
            r={2.5 + random() * 3}
            fill="var(--lit)"
          />
        ))}
      </g>
    );
  const cracks = state === "damp sand" ? 9 : state === "crumbly dough" ? 5 : 0;
  const edge = state === "damp sand" ? 9 : state === "crumbly dough" ? 5 : 1.2;
  let path = "";
  for (let angle = 0; angle <= 24; angle++) {
    const a = Math.PI + (Math.PI * angle) / 24;
    const r = 1 + ((random() - 0.5) * edge) / 50;
    path += `${angle ? "L" : "M"}${80 + 56 * r * Math.cos(a)} ${BASE + 84 * r * Math.sin(a) * 0.86}`;
  }
  return (
    <g stroke="var(--ink)" strokeWidth="1.7" fill="none">
      <path d={`${path}Z`} fill={fill} />
      <path
        d={Array.from({ length: cracks }, () => {
          const x = 40 + random() * 80;
          const y = BASE - 14 - random() * 46;
          return `M${x} ${y}l${(random() - 0.5) * 14} ${-10}l${(random() - 0.5) * 14} ${-9}`;
        }).join("")}
        strokeWidth="1.2"
      />
      {state === "play dough" && <path d={`M44 ${BASE - 44}q36-26 74 0`} strokeWidth="1.1" />}
      {state === "sticky" && (
        <path
          d={`M52 ${BASE - 58}V8M80 ${BASE - 70}V4M108 ${BASE - 58}V10`}
          stroke="var(--vline)"
          strokeWidth="3.4"
        />
      )}
      {state === "damp sand" && <path d={grains(60, 80, 74, 12)} strokeWidth="2" strokeLinecap="round" />}
    </g>
  );
}

/** Dropped from the height of a hand: it scatters, breaks in some, stays whole, or spreads. */
function Dropped({ state, random }: Part) {
  const pieces: Record<string, number> = { "damp sand": 16, "crumbly dough": 5, "play dough": 1, sticky: 1 };
  const count = pieces[state];
  const fill = WET.has(state) ? "var(--vtint)" : "var(--grain)";
  if (count === undefined) {
    const spread = state === "dust" ? 0 : state === "batter" ? 44 : 58;
    return spread === 0 ? null : (
      <path
        d={`M${230 - spread} ${BASE}q${spread * 0.4}-12 ${spread}-12t${spread} 12z`}
        fill={fill}
        stroke="var(--ink)"
        strokeWidth="1.3"
      />
    );
  }
  const r = 26 / Math.sqrt(count);
  return (
    <g fill={fill} stroke="var(--ink)" strokeWidth="1.3">
      {Array.from({ length: count }, (_, each) => {
        const x = count === 1 ? 230 : 186 + ((each + random() * 0.6) * 96) / count;
        const flat = state === "sticky" ? 0.55 : 0.85;
        return (
          <ellipse
            // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its place
            key={each}
            cx={x}
            cy={BASE - r * flat}
            rx={r * (state === "sticky" ? 1.3 : 1)}
            ry={r * flat}
          />
        );
      })}
    </g>
  );
}
