import { useRef } from "react";
import type { BatchPlan } from "../../api";
import { figure, fixed } from "../../lib/numbers";
import { DrawingTools } from "../../ui";

type Planned = BatchPlan["order"]["pieces"][number];

const SCALE = 1.1; // px a millimetre
const STEP = 0.12; // radians of the spiral

/** A roll to scale: the sheet it is rolled from, its spiral, and where it is cut. */
export function RollDrawing({ planned }: { planned: Planned }) {
  const svg = useRef<SVGSVGElement>(null);
  const roll = planned.roll;
  if (!roll) return null;
  const each = Math.ceil(planned.pieces / planned.rolls);
  const sheetW = Math.min(420, roll.length_mm * SCALE);
  const sheetH = Math.min(190, roll.width_mm * 0.55);
  const d = roll.diameter_mm * SCALE;
  const logX = sheetW + d + 150;
  const logW = roll.width_mm * SCALE;
  const cut = (logW - 2 * 8 * SCALE) / Math.max(1, each);
  const height = Math.max(sheetH, d) + 60;
  const text = `${planned.rolls} rolls: sheets of ${figure(roll.length_mm)} by ${figure(roll.width_mm)} mm, ${figure(roll.thickness_mm)} mm thick together, give a roll of ${figure(roll.diameter_mm)} mm with ${fixed(roll.turns, 1)} turns and ${each} slices each: ${roll.verdict}.`;
  return (
    <figure className="pt-4">
      <svg
        ref={svg}
        role="img"
        aria-label={text}
        viewBox={`0 0 ${logX + logW + 10} ${height}`}
        className="w-full max-w-[1180px]"
      >
        <rect
          x="1"
          y="26"
          width={sheetW}
          height={sheetH}
          fill="var(--lit)"
          stroke="var(--ink)"
          strokeWidth="1.3"
        />
        <rect
          x="1"
          y={26 + sheetH}
          width={sheetW}
          height={Math.max(2, roll.thickness_mm * 0.5)}
          fill="var(--ctint)"
          stroke="var(--ink)"
          strokeWidth=".9"
        />
        <text x="1" y="18" fontSize="14" fill="var(--ink)">
          sheet {figure(roll.length_mm)} × {figure(roll.width_mm)} mm, {figure(roll.thickness_mm)} mm
        </text>
        <path
          d={spiral(sheetW + 50 + d / 2, 26 + d / 2, d / 2, roll.turns)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
        <circle
          cx={sheetW + 50 + d / 2}
          cy={26 + d / 2}
          r={d / 2}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.3"
        />
        <text x={sheetW + 50} y={46 + d} fontSize="14" fill="var(--ink)">
          {figure(roll.diameter_mm)} mm, {fixed(roll.turns, 1)} turns
        </text>
        <rect
          x={logX}
          y="26"
          width={logW}
          height={d}
          fill="var(--lit)"
          stroke="var(--ink)"
          strokeWidth="1.3"
        />
        {Array.from({ length: each + 1 }, (_, index) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: cuts have no other name
            key={index}
            d={`M${logX + 8 * SCALE + index * cut} 22v${d + 8}`}
            stroke="var(--rosy)"
            strokeWidth="1.1"
            strokeDasharray="4 3"
          />
        ))}
        <text x={logX} y={46 + d} fontSize="14" fill="var(--ink)">
          {each} slices, ends trimmed
        </text>
      </svg>
      <figcaption className="flex justify-between text-caption">
        <span className={roll.verdict === "a good swirl" ? "text-soft" : "text-rosy"}>
          {planned.rolls === 1 ? "One roll" : `${planned.rolls} rolls`} of {planned.name}: {roll.verdict}.
        </span>
        <DrawingTools
          name="Roll"
          columns={["What", "value", "unit"]}
          rows={[
            ["rolls", String(planned.rolls), ""],
            ["sheet length", figure(roll.length_mm), "mm"],
            ["sheet width", figure(roll.width_mm), "mm"],
            ["thickness together", figure(roll.thickness_mm), "mm"],
            ["diameter", figure(roll.diameter_mm), "mm"],
            ["turns", fixed(roll.turns, 2), ""],
            ["slices a roll", String(each), ""],
            ["trimmed, all rolls", figure(planned.trimmed_g), "g"],
          ]}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}

function spiral(cx: number, cy: number, radius: number, turns: number): string {
  let path = "";
  const end = turns * 2 * Math.PI;
  for (let angle = 0; angle <= end; angle += STEP) {
    const r = (radius * angle) / end;
    path += `${path ? "L" : "M"}${fixed(cx + r * Math.cos(angle), 1)} ${fixed(cy + r * Math.sin(angle), 1)}`;
  }
  return path;
}
