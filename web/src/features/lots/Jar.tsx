import type { Lot } from "../../api";
import { flows } from "../../lib/grains";
import { r } from "../../lib/hairs";
import { figure, sayMass } from "../../lib/numbers";
import { seeded } from "../../lib/seed";

const W = 120;
const H = 150;
const NECK = 22;
const FLOOR = 138;
const SIDE = 18;

/** A jar in section: the level is what is left, powders as grains, liquids lined; a torn collar tells the day. */
export function Jar({ lot }: { lot: Lot }) {
  const share = Math.max(0, Math.min(1, lot.quantity_g > 0 ? lot.left_g / lot.quantity_g : 0));
  const level = FLOOR - (FLOOR - NECK - 14) * share;
  const liquid = flows(lot.form);
  const chance = seeded(lot.code);
  const grains = liquid
    ? []
    : Array.from(
        { length: Math.round(150 * share) },
        () =>
          `M${r(SIDE + 5 + chance() * (W - 2 * SIDE - 10))} ${r(level + 4 + chance() * (FLOOR - level - 7))}h.01`,
      );
  const lines = liquid
    ? Array.from(
        { length: Math.floor((FLOOR - level) / 7) },
        (_, index) => `M${SIDE + 6} ${r(level + 7 + index * 7)}H${W - SIDE - 6}`,
      )
    : [];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="mx-auto block h-[150px]"
      role="img"
      aria-label={`${lot.name}, ${lot.code}: ${figure(lot.left_g)} of ${sayMass(lot.quantity_g)} left`}
    >
      {share > 0 && (
        <path
          d={`M${SIDE + 2} ${r(level)}H${W - SIDE - 2}V${FLOOR - 6}q0 6 -6 6H${SIDE + 8}q-6 0 -6 -6Z`}
          fill={liquid ? "var(--vtint)" : "var(--lit)"}
        />
      )}
      <path d={grains.join("")} stroke="var(--ink)" strokeWidth="2" strokeLinecap="round" />
      <path d={lines.join("")} stroke="var(--vline)" strokeWidth="1" />
      <path
        d={`M${SIDE + 14} 8V${NECK}q-14 4 -14 16V${FLOOR - 6}q0 8 8 8H${W - SIDE - 8}q8 0 8 -8V38q0 -12 -14 -16V8Z`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path d={`M${SIDE + 10} 8H${W - SIDE - 10}`} stroke="var(--ink)" strokeWidth="3" />
      {lot.best_before && (
        <g>
          <path
            d={`M${SIDE + 1} 46H${W - SIDE - 1}V60l-9 3 -10 -4 -12 4 -11 -3 -12 4 -10 -4 -11 3 -9 -3Z`}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth=".9"
          />
          <text x={W / 2} y="57.5" textAnchor="middle" fontSize="10.5" fill="var(--ink)">
            {lot.best_before}
          </text>
        </g>
      )}
      <text
        x={W / 2}
        y={FLOOR - 10}
        textAnchor="middle"
        fontSize="17"
        fontWeight="600"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {sayMass(lot.left_g)}
      </text>
    </svg>
  );
}
