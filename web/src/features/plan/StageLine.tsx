import { useRef } from "react";
import type { BatchPlan } from "../../api";
import { fixed } from "../../lib/numbers";
import { DrawingTools } from "../../ui";

const WIDTH = 1180;
const LEAST = 46; // px a stage needs for its own mark
const HIGH = 92;

/** The stages standing on their line: hands stand tall and hatched, waiting lies low and wet. */
export function StageLine({ plan }: { plan: BatchPlan }) {
  const svg = useRef<SVGSVGElement>(null);
  const { stages } = plan.schedule;
  // Minutes and days share one line: lengths grow with the root of the time, and say so.
  const weight = stages.map((stage) => Math.sqrt(stage.minutes));
  const total = weight.reduce((sum, each) => sum + each, 0) || 1;
  const free = WIDTH - LEAST * stages.length;
  let x = 0;
  const placed = stages.map((stage, index) => {
    const width = LEAST + (free * (weight[index] ?? 0)) / total;
    const at = x;
    x += width;
    return { stage, at, width };
  });
  const text = stages
    .map((stage) => `${stage.name} ${moment(stage.starts_at)}, ${span(stage.minutes)}`)
    .join("; ");
  return (
    <figure className="pt-3">
      <svg
        ref={svg}
        role="img"
        aria-label={`${text}; ${plan.schedule.promised ? `ready ${moment(plan.schedule.ready_at)}` : "when it is ready, nobody can say"}.`}
        viewBox={`0 0 ${WIDTH} 154`}
        className="w-full"
      >
        <defs>
          <pattern
            id="stage-hands"
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V5" stroke="var(--ink)" strokeWidth=".75" />
          </pattern>
          <pattern id="stage-waits" width="8" height="4.2" patternUnits="userSpaceOnUse">
            <path d="M0 2H8" stroke="var(--vline)" strokeWidth=".8" />
          </pattern>
        </defs>
        {placed.map(({ stage, at, width }, index) => {
          const top = stage.hands ? HIGH - 40 : HIGH - 16;
          return (
            <g key={stage.id}>
              <rect
                x={at}
                y={top}
                width={width - 2}
                height={HIGH - top}
                fill={stage.hands ? "var(--lit)" : "var(--vtint)"}
              />
              <rect
                x={at}
                y={top}
                width={width - 2}
                height={HIGH - top}
                fill={`url(#${stage.hands ? "stage-hands" : "stage-waits"})`}
                stroke="var(--ink)"
                strokeWidth=".9"
              />
              <path d={`M${at} ${HIGH}V${index % 2 ? 132 : 112}`} stroke="var(--ink)" strokeWidth=".9" />
              <text x={at + 4} y={index % 2 ? 132 : 112} fontSize="13" fill="var(--ink)">
                {clock(stage.starts_at)}
              </text>
              {(index === 0 || day(stage.starts_at) !== day(stages[index - 1]?.starts_at ?? "")) && (
                <text
                  x={Math.min(at + 4, WIDTH - 4)}
                  y="148"
                  fontSize="13"
                  fontWeight="700"
                  textAnchor={at > WIDTH - 110 ? "end" : "start"}
                  fill="var(--ink)"
                >
                  {day(stage.starts_at)}
                </text>
              )}
              <text
                x={at + 1}
                y={index % 2 ? top - 22 : top - 6}
                fontSize="14"
                fontStyle="italic"
                fill="var(--soft)"
              >
                {stage.name}
              </text>
            </g>
          );
        })}
        <path d={`M0 ${HIGH}H${WIDTH}`} stroke="var(--ink)" strokeWidth="1.4" />
        <text x={WIDTH} y="16" textAnchor="end" fontSize="15" fontWeight="700" fill="var(--ink)">
          {plan.schedule.promised
            ? `ready ${moment(plan.schedule.ready_at)}`
            : "when it is ready, nobody can say"}
        </text>
      </svg>
      <figcaption className="flex justify-between text-caption text-soft">
        <span className="italic">
          Tall: somebody is needed. Low: it waits by itself. Long waits are drawn short.
        </span>
        <DrawingTools
          name={`${plan.name}, times`}
          columns={["Stage", "from", "to", "how long", "why"]}
          rows={stages.map((stage) => [
            stage.name,
            moment(stage.starts_at),
            moment(stage.ends_at),
            span(stage.minutes),
            stage.why,
          ])}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}

const day = (iso: string) =>
  iso ? new Date(iso).toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short" }) : "";
const clock = (iso: string) =>
  new Date(iso).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

export const moment = (iso: string) => `${day(iso)}, ${clock(iso)}`;

export function span(minutes: number): string {
  if (minutes < 90) return `${Math.round(minutes)} min`;
  const hours = minutes / 60;
  return hours < 48 ? `${fixed(hours, hours < 10 ? 1 : 0)} h` : `${fixed(hours / 24, 1)} days`;
}
