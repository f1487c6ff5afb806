import type { Ref } from "react";
import type { TrialDesign } from "../../api";
import { r } from "../../lib/hairs";

const W = 560;
const H = 490;
const SIDE = 440;
const TOP = { x: W / 2, y: 34 };
const RISE = (SIDE * Math.sqrt(3)) / 2;
const STRIP = { left: 40, right: W - 40, y: 200, reach: 120 };
const MOST_DOT = 8.5;
const FROM_CORNER: readonly { x: number; y: number; anchor: "middle" | "start" | "end" }[] = [
  { x: 0, y: -14, anchor: "middle" },
  { x: -50, y: 46, anchor: "start" },
  { x: 50, y: 46, anchor: "end" },
];

/** The fitted reading between the trials: a triangle for three ingredients, a strip for two; larger grains where it is better. */
export function ResponseDrawing({ design, ref }: { design: TrialDesign; ref?: Ref<SVGSVGElement> }) {
  const flat = design.response.flat === true;
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={`${design.label} over the shares of ${design.bounds.map((each) => each.name).join(", ")}. ${design.response.message}`}
      viewBox={`0 0 ${W} ${design.bounds.length === 3 ? H : 300}`}
      className="block w-full"
    >
      {design.bounds.length === 3 ? <Triangle design={design} /> : <StripOf design={design} />}
      {flat && (
        <text
          x={W / 2}
          y={design.bounds.length === 3 ? H - 8 : 292}
          textAnchor="middle"
          fontSize="15"
          fontStyle="italic"
          fill="var(--soft)"
        >
          still flat: the differences may be nothing
        </text>
      )}
    </svg>
  );
}

/** Shares of what the bounds leave between them: the drawn triangle reaches from the lowest to the highest share. */
function stretchOf(design: TrialDesign) {
  const points = [
    ...design.trials.map((each) => each.shares),
    ...design.response.grid.map((each) => each.shares),
  ];
  const low = design.bounds.map((_, index) => Math.min(...points.map((point) => point[index] ?? 0)));
  const free = 1 - low.reduce((sum, each) => sum + each, 0) || 1;
  return (shares: readonly number[]) => shares.map((share, index) => (share - (low[index] ?? 0)) / free);
}

function place(shares: readonly number[]): { x: number; y: number } {
  const [a = 0, b = 0, c = 0] = shares;
  return { x: TOP.x + (c - b) * (SIDE / 2), y: TOP.y + (1 - a) * RISE };
}

function Triangle({ design }: { design: TrialDesign }) {
  const stretch = stretchOf(design);
  const at = (shares: readonly number[]) => place(stretch(shares));
  const { grid, best } = design.response;
  const values = grid.map((each) => each.value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const better = (value: number) => {
    const share = most > least ? (value - least) / (most - least) : 0.5;
    return design.wanted === "more" ? share : 1 - share;
  };
  const corners = [place([1, 0, 0]), place([0, 1, 0]), place([0, 0, 1])];
  return (
    <g>
      <path
        d={`M${corners.map((corner) => `${r(corner.x)} ${r(corner.y)}`).join("L")}Z`}
        fill="var(--shade)"
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      {grid.map((point) => {
        const { x, y } = at(point.shares);
        return (
          <circle
            key={point.shares.join()}
            cx={r(x)}
            cy={r(y)}
            r={r(1 + (MOST_DOT - 1) * better(point.value))}
            fill={design.response.flat ? "none" : "var(--vtint)"}
            stroke="var(--verd)"
            strokeWidth=".9"
          />
        );
      })}
      <Trials design={design} at={at} />
      {best && <Best {...at(best.shares)} />}
      {design.bounds.map((bound, index) => {
        const corner = corners[index] ?? TOP;
        const away = FROM_CORNER[index] ?? { x: 0, y: 0, anchor: "middle" as const };
        return (
          <text
            key={bound.ingredient}
            x={corner.x + away.x}
            y={corner.y + away.y}
            textAnchor={away.anchor}
            fontSize="15"
            fill="var(--ink)"
          >
            most {bound.name}
          </text>
        );
      })}
    </g>
  );
}

/** Two ingredients share one line: the fitted reading above it, its interval stippled. */
function StripOf({ design }: { design: TrialDesign }) {
  const stretch = stretchOf(design);
  const along = (shares: readonly number[]) =>
    STRIP.left + (STRIP.right - STRIP.left) * (stretch(shares)[0] ?? 0);
  const grid = [...design.response.grid].sort((a, b) => (a.shares[0] ?? 0) - (b.shares[0] ?? 0));
  const ends = [
    ...grid.flatMap((each) => [each.low ?? each.value, each.high ?? each.value]),
    ...design.trials.flatMap((trial) => trial.results.map((result) => result.value)),
  ];
  const [least, most] = [Math.min(...ends, 0), Math.max(...ends, 1)];
  const up = (value: number) => STRIP.y - (STRIP.reach * 1.2 * (value - least)) / (most - least || 1);
  const line = (of: (point: (typeof grid)[number]) => number) =>
    grid.map((point) => `${r(along(point.shares))} ${r(up(of(point)))}`);
  const best = design.response.best;
  return (
    <g>
      {grid.length > 1 && (
        <>
          <path
            d={`M${line((p) => p.high ?? p.value).join("L")}L${line((p) => p.low ?? p.value)
              .reverse()
              .join("L")}Z`}
            fill="var(--vtint)"
          />
          <path d={`M${line((p) => p.value).join("L")}`} fill="none" stroke="var(--verd)" strokeWidth="2.4" />
        </>
      )}
      <path d={`M${STRIP.left} ${STRIP.y}H${STRIP.right}`} stroke="var(--ink)" strokeWidth="1.4" />
      {design.trials.flatMap((trial) =>
        trial.results.map((result) => (
          <path
            key={result.id}
            d={`M${r(along(trial.shares) - 6)} ${r(up(result.value))}h12`}
            stroke="var(--ink)"
            strokeWidth="2"
          />
        )),
      )}
      <Trials design={design} at={(shares) => ({ x: along(shares), y: STRIP.y })} />
      {best && <Best x={along(best.shares)} y={up(best.value)} />}
      <text x={STRIP.left} y={STRIP.y + 56} fontSize="15" fill="var(--ink)">
        most {design.bounds[1]?.name}
      </text>
      <text x={STRIP.right} y={STRIP.y + 56} fontSize="15" textAnchor="end" fill="var(--ink)">
        most {design.bounds[0]?.name}
      </text>
    </g>
  );
}

/** Where the trials lie, numbered; those at one place share their number. */
function Trials({
  design,
  at,
}: {
  design: TrialDesign;
  at: (shares: readonly number[]) => { x: number; y: number };
}) {
  const places = new Map<string, { shares: readonly number[]; numbers: number[]; read: boolean }>();
  for (const trial of design.trials) {
    const key = trial.shares.map((share) => share.toFixed(4)).join();
    const here = places.get(key) ?? { shares: trial.shares, numbers: [], read: true };
    here.numbers.push(trial.number);
    here.read = here.read && trial.results.length > 0;
    places.set(key, here);
  }
  return [...places.entries()].map(([key, { shares, numbers, read }]) => {
    const { x, y } = at(shares);
    return (
      <g key={key}>
        <rect
          x={r(x - 5)}
          y={r(y - 5)}
          width="10"
          height="10"
          fill={read ? "var(--ink)" : "var(--paper)"}
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
        <text x={r(x + 9)} y={r(y + 19)} fontSize="14" fontWeight="600" fill="var(--ink)">
          {numbers.join(", ")}
        </text>
      </g>
    );
  });
}

const Best = ({ x, y }: { x: number; y: number }) => (
  <circle cx={r(x)} cy={r(y)} r="15" fill="none" stroke="var(--rosy)" strokeWidth="2.4" />
);
