import { useRef } from "react";
import type { RunSheet } from "../../api";
import { sayMass } from "../../lib/numbers";
import { seeded } from "../../lib/seed";
import { DrawingTools } from "../../ui";

const WIDTH = 1180;
const WET = new Set(["liquid", "melt", "spray"]);

/** The batch as one line, in the order of weighing: length is mass. */
export function WeighLine({ sheet }: { sheet: RunSheet }) {
  const svg = useRef<SVGSVGElement>(null);
  let at = 0;
  const segments = sheet.groups.map((group) => {
    const from = at;
    at += group.mass_g;
    return { group, x: (WIDTH * from) / sheet.batch_g, width: (WIDTH * group.mass_g) / sheet.batch_g };
  });
  const words = segments
    .map(({ group }) => `${group.label.toLowerCase()} ${sayMass(group.mass_g)}`)
    .join(", then ");
  return (
    <figure className="pt-3">
      <svg ref={svg} role="img" aria-label={`Weigh ${words}.`} viewBox={`0 0 ${WIDTH} 62`} className="w-full">
        {segments.map(({ group, x, width }, index) => (
          <g key={`${group.portion}${group.phase}`}>
            <rect
              x={x}
              y="26"
              width={Math.max(1, width - 1.5)}
              height="14"
              fill={WET.has(group.phase) ? "var(--vtint)" : "var(--lit)"}
            />
            <path
              d={WET.has(group.phase) ? lining(x, width) : grain(group.phase + index, x, width)}
              stroke={WET.has(group.phase) ? "var(--vline)" : "var(--ink)"}
              strokeWidth={WET.has(group.phase) ? 0.8 : 1.1}
              strokeLinecap="round"
            />
            <path d={`M${x} 20V44`} stroke="var(--ink)" strokeWidth="1.1" />
            {width > 64 && (
              <>
                <text x={x + 5} y="17" fontSize="14" fontStyle="italic" fill="var(--soft)">
                  {group.label}
                </text>
                <text x={x + 5} y="56" fontSize="14" fill="var(--ink)">
                  {sayMass(group.mass_g)}
                </text>
              </>
            )}
          </g>
        ))}
        <path d={`M0 40.5H${WIDTH}`} stroke="var(--ink)" strokeWidth="1.1" />
      </svg>
      <figcaption className="text-right">
        <DrawingTools
          name={`${sheet.name}, weigh-out`}
          columns={["What", "g", "oz"]}
          rows={sheet.groups.flatMap((group) =>
            group.lines.map((line) => [line.name, line.mass_g.toFixed(2), line.mass_oz.toFixed(3)]),
          )}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}

function lining(x: number, width: number): string {
  return [30, 34, 38].map((y) => `M${x} ${y}h${Math.max(0, width - 1.5)}`).join("");
}

function grain(seed: string, x: number, width: number): string {
  const random = seeded(seed);
  let path = "";
  for (let dot = 0; dot < width * 0.55; dot++)
    path += `M${(x + 2 + random() * Math.max(0, width - 5)).toFixed(1)} ${(28 + random() * 10).toFixed(1)}h.1`;
  return path;
}
