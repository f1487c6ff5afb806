import { type PointerEvent, type Ref, useState } from "react";
import type { PlannedOrder, Week } from "../../api";
import { r } from "../../lib/hairs";
import { seeded } from "../../lib/seed";
import { byClockOf } from "../../lib/zone";

const W = 1180;
const LEFT = 190;
const RIGHT = 16;
const TOP = 40;
const LANE = 46;
const HOUR_MS = 3_600_000;
const HAIR_G = 100;
const MOST_HAIRS = 24;

/**
 * Time runs left to right, a day is a column. Each batch is a bundle of hairs, a hair is 100 g: hatched where hands work, wet on the
 * rack, ending at its due post.
 */
export function WeekDrawing({
  week,
  onDrag,
  ref,
}: {
  week: Week;
  onDrag: (order: PlannedOrder, starts_at: string) => void;
  ref?: Ref<SVGSVGElement>;
}) {
  const begin = Date.parse(week.begins_at);
  const hours = (Date.parse(week.days_begin_at[week.days] ?? week.begins_at) - begin) / HOUR_MS;
  const hour = (W - LEFT - RIGHT) / Math.max(1, hours);
  const x = (at: string | number) =>
    LEFT + ((typeof at === "string" ? Date.parse(at) : at) - begin) * (hour / HOUR_MS);
  const height = TOP + week.orders.length * LANE + 30;
  const [pulled, setPulled] = useState<{ id: number; from: number; by_h: number } | null>(null);
  const hoursOf = (event: PointerEvent, from: number) => {
    const box = event.currentTarget.getBoundingClientRect();
    return Math.round(((event.clientX - from) * (W / box.width)) / hour);
  };
  const end = () => {
    const order = week.orders.find((each) => each.order.id === pulled?.id);
    if (order?.starts_at && pulled && pulled.by_h !== 0)
      onDrag(order, new Date(Date.parse(order.starts_at) + pulled.by_h * HOUR_MS).toISOString());
    setPulled(null);
  };
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={weekSentence(week)}
      viewBox={`0 0 ${W} ${height}`}
      className="mt-4 block w-full touch-pan-y"
      onPointerMove={(event) => pulled && setPulled({ ...pulled, by_h: hoursOf(event, pulled.from) })}
      onPointerUp={end}
      onPointerLeave={end}
    >
      <rect x={LEFT} y={TOP} width={W - LEFT - RIGHT} height={height - TOP - 30} fill="var(--shade)" />
      {week.open_hours.map((span) => (
        <rect
          key={span.from_at}
          x={r(x(span.from_at))}
          y={TOP}
          width={r(x(span.to_at) - x(span.from_at))}
          height={height - TOP - 30}
          fill="var(--lit)"
        />
      ))}
      {week.days_begin_at.slice(0, -1).map((at) => (
        <g key={at}>
          <path d={`M${r(x(at))} ${TOP - 8}V${height - 26}`} stroke="var(--ink)" strokeWidth=".8" />
          <text x={x(at) + 5} y={TOP - 14} fontSize="15" fill="var(--ink)">
            {byClockOf(week.zone, at, { weekday: "short", day: "numeric" })}
          </text>
        </g>
      ))}
      {week.orders.map((order, index) => (
        <Bundle
          key={order.order.id}
          order={order}
          y={TOP + index * LANE + LANE / 2}
          x={x}
          shift={pulled?.id === order.order.id ? pulled.by_h * hour : 0}
          onGrab={(event) => setPulled({ id: order.order.id, from: event.clientX, by_h: 0 })}
        />
      ))}
      <path
        d={`M${LEFT} ${TOP}V${height - 30}H${W - RIGHT}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.3"
      />
      <text x={LEFT} y={height - 8} fontSize="14" fontStyle="italic" fill="var(--soft)">
        light: hands may work; hatched: at the bench; wet: on the rack; one hair is {HAIR_G} g
      </text>
    </svg>
  );
}

function Bundle({
  order,
  y,
  x,
  shift,
  onGrab,
}: {
  order: PlannedOrder;
  y: number;
  x: (at: string | number) => number;
  shift: number;
  onGrab: (event: PointerEvent) => void;
}) {
  const hairs = Math.max(1, Math.min(MOST_HAIRS, Math.round(order.batch_g / HAIR_G)));
  const reach = Math.min(LANE / 2 - 8, 1.3 * hairs);
  const chance = seeded(`order${order.order.id}`);
  const due = order.order.due_at;
  return (
    <g>
      <text x={LEFT - 12} y={y - 2} textAnchor="end" fontSize="15" fontWeight="600" fill="var(--ink)">
        {short(order.order.who)}
      </text>
      <text x={LEFT - 12} y={y + 15} textAnchor="end" fontSize="13" fill="var(--soft)">
        {short(`${order.order.pieces} ${order.name}`)}
      </text>
      {order.starts_at && order.hands_end_at && order.dry_at ? (
        <g
          transform={`translate(${r(shift)} 0)`}
          className="cursor-ew-resize"
          onPointerDown={(event) => {
            event.preventDefault();
            onGrab(event);
          }}
        >
          {Array.from({ length: hairs }, (_, index) => {
            const off = hairs === 1 ? 0 : (index / (hairs - 1) - 0.5) * 2 * reach;
            return (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: hairs keep their order
                key={index}
                d={`M${LEFT} ${r(y + off * 0.3)}C${r(LEFT + 40)} ${r(y + off * 0.3)} ${r(x(order.starts_at ?? 0) - 30)} ${r(y + off)} ${r(x(order.starts_at ?? 0))} ${r(y + off)}H${r(x(order.hands_end_at ?? 0))}`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={r(0.5 + 0.3 * chance())}
                opacity=".8"
              />
            );
          })}
          <rect
            x={r(x(order.hands_end_at))}
            y={r(y - reach)}
            width={r(x(order.dry_at) - x(order.hands_end_at))}
            height={r(2 * reach)}
            fill="var(--vtint)"
            stroke="var(--verd)"
            strokeWidth=".9"
          />
          <Hatch from={x(order.starts_at)} to={x(order.hands_end_at)} y={y} reach={LANE / 2 - 5} />
        </g>
      ) : (
        <g>
          <rect
            x={LEFT + 6}
            y={r(y - 14)}
            width={W - LEFT - RIGHT - 12}
            height="28"
            fill="var(--ctint)"
            stroke="var(--rosy)"
            strokeDasharray="5 4"
          />
          <text x={LEFT + 18} y={y + 5} fontSize="14.5" fill="var(--ink)">
            {order.why_not}
          </text>
        </g>
      )}
      {due && (
        <path
          d={`M${r(Math.min(W - RIGHT, x(due)))} ${r(y - LANE / 2 + 4)}V${r(y + LANE / 2 - 4)}`}
          stroke="var(--rosy)"
          strokeWidth="3"
        />
      )}
    </g>
  );
}

function Hatch({ from, to, y, reach }: { from: number; to: number; y: number; reach: number }) {
  const strokes: string[] = [];
  for (let at = from; at < to; at += 4)
    strokes.push(`M${r(at)} ${r(y + reach)}l${r(Math.min(8, to - at))} ${r(-2 * reach)}`);
  return (
    <g>
      <rect
        x={r(from)}
        y={r(y - reach)}
        width={r(Math.max(2, to - from))}
        height={r(2 * reach)}
        fill="var(--paper)"
        opacity=".65"
      />
      <path d={strokes.join("")} stroke="var(--ink)" strokeWidth="1.1" fill="none" />
      <rect
        x={r(from)}
        y={r(y - reach)}
        width={r(Math.max(2, to - from))}
        height={r(2 * reach)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
    </g>
  );
}

const short = (text: string) => (text.length > 22 ? `${text.slice(0, 21)}…` : text);

function weekSentence(week: Week): string {
  const told = week.orders.map((order) =>
    order.starts_at
      ? `${order.name} for ${order.order.who} begins ${byClockOf(week.zone, order.starts_at, { weekday: "long", hour: "2-digit", minute: "2-digit" })}`
      : `${order.name} for ${order.order.who} has no place: ${order.why_not}`,
  );
  return `${told.join("; ")}.`;
}
