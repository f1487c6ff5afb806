import { type Ref, useId } from "react";
import type { Tray, TrayTask } from "../../api";
import { seeded } from "../../lib/seed";
import { roundMarks } from "../../lib/stripMap";
import { hourScale, hours, SHELF, shelfSentence, verdict } from "./shelf";
import { useTaskDrag } from "./useTaskDrag";

interface Props {
  tray: Tray;
  ref?: Ref<SVGSVGElement>;
  /** A task was pulled to another hour since the tray was set out. */
  onMoveTask?: ((task: TrayTask, dueH: number) => void) | undefined;
}

const { width: W, height: H, ground: Y } = SHELF;
const WORD_PX = 150; // "most likely 2.3 days"

/** One tray on its shelf: the leading edge at its age, wet to the likely hour, stippled to the latest. */
export function ShelfDrawing({ tray, ref, onMoveTask }: Props) {
  const lining = useId();
  const at = hourScale(tray);
  const { age_h, likely_h, low_h, high_h } = tray.reading;
  const edge = at(age_h);
  const told = verdict(tray);
  const [from, to] = [low_h === null ? null : at(low_h), high_h === null ? null : at(high_h)];
  // Where the word for the likely hour is wider than what is left of the band, the band's end begins under it.
  const overLine = likely_h !== null && to !== null && to - at(likely_h) < WORD_PX;
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={shelfSentence(tray)}
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
    >
      <defs>
        <pattern id={lining} width="8" height="4" patternUnits="userSpaceOnUse">
          <rect width="8" height="4" fill="var(--vtint)" />
          <path d="M0 2.5h8" stroke="var(--vline)" strokeWidth=".8" />
        </pattern>
      </defs>
      {from !== null && to !== null && (
        <>
          <rect x={from} width={Math.max(2, to - from)} y="0" height={H - 8} fill="var(--lit)" />
          <path
            d={`M${from} 0V${H - 8}M${to} ${overLine ? 20 : 0}V${H - 8}`}
            stroke="var(--ink)"
            strokeWidth=".9"
          />
        </>
      )}
      <rect x={SHELF.zero} width={W - SHELF.zero} y={Y - 14} height="14" fill="var(--shade)" />
      {likely_h !== null && at(likely_h) > edge && (
        <rect x={edge} width={at(likely_h) - edge} y={Y - 14} height="14" fill={`url(#${lining})`} />
      )}
      {likely_h !== null && to !== null && (
        <path
          d={stipple(`tray${tray.id}`, Math.max(edge, at(likely_h)), to)}
          stroke="var(--verd)"
          strokeWidth="1.3"
          strokeLinecap="round"
        />
      )}
      {likely_h !== null && (
        <path
          d={`M${at(likely_h)} 0V${H - 8}`}
          stroke="var(--ink)"
          strokeWidth="1.1"
          strokeDasharray="9 3 2 3"
        />
      )}
      <Hours at={at} age_h={age_h} />
      {likely_h !== null && from !== null && to !== null && (
        <g fontSize="15" fill="var(--ink)">
          <text
            x={Math.max(0, from - 8)}
            y="14"
            textAnchor={from > 150 ? "end" : "start"}
            fontStyle="italic"
            fill="var(--soft)"
          >
            {from > edge + 110 || from < edge - 40 ? `dry from ${hours(low_h ?? 0)}` : ""}
          </text>
          <text x={at(likely_h) + 8} y="14" fontWeight="600">
            most likely {hours(likely_h)}
          </text>
          <text x={Math.max(to, at(likely_h) + WORD_PX) + 8} y="14" fontStyle="italic" fill="var(--soft)">
            by {hours(high_h ?? 0)}
          </text>
        </g>
      )}
      <Plumbs tray={tray} at={at} onMoveTask={onMoveTask} />
      <Pieces tray={tray} edge={edge} lining={lining} />
      <path d={`M${edge} ${Y - 84}V${Y + 6}`} stroke="var(--ink)" strokeWidth="2" />
      <text x={edge} y={Y + 22} textAnchor="middle" fontSize="19" fontWeight="600" fill="var(--ink)">
        {hours(age_h)}
      </text>
      <text x={W} y={Y - 60} textAnchor="end" fontSize="58" fontWeight="350" fill="var(--ink)">
        {told.figure}
      </text>
      <text
        x={W}
        y={Y - 28}
        textAnchor="end"
        fontSize="21"
        fontWeight={told.asks ? 700 : 500}
        fill={told.asks ? "var(--rosy)" : "var(--ink)"}
      >
        {told.word}
      </text>
    </svg>
  );
}

type At = ReturnType<typeof hourScale>;

function Hours({ at, age_h }: { at: At; age_h: number }) {
  const [, last] = at.domain() as [number, number];
  return (
    <g fill="var(--soft)" fontSize="13" textAnchor="middle">
      <path d={`M0 ${Y}H${W}`} stroke="var(--ink)" strokeWidth="1" />
      {roundMarks(0, last, 9).map((value) => (
        <g key={value}>
          <path d={`M${at(value)} ${Y}v4`} stroke="var(--ink)" strokeWidth=".8" />
          {value < last * 0.98 && Math.abs(at(value) - at(age_h)) > 40 && (
            <text x={at(value)} y={Y + 18}>
              {value}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

/** Tasks hang as plumb lines at their hour; what is done is cut, and what is not can be pulled to another hour. */
function Plumbs({ tray, at, onMoveTask }: { tray: Tray; at: At; onMoveTask: Props["onMoveTask"] }) {
  const { pulled, handlers } = useTaskDrag(onMoveTask);
  const placeOf = (task: TrayTask) => (pulled?.kind === task.kind ? pulled.x : at(task.due_h));
  return (
    <g stroke="var(--ink)" strokeWidth="1">
      {tray.reading.tasks
        .filter((task) => task.due_h >= 0 && at(task.due_h) <= W)
        .map((task) => (
          <g
            key={task.kind}
            className={onMoveTask && !task.done_at ? "cursor-ew-resize touch-none" : ""}
            {...handlers(task, (x) => at.invert(x))}
          >
            {onMoveTask && !task.done_at && (
              <rect
                x={placeOf(task) - 12}
                y={Y}
                width="110"
                height={H - Y}
                fill="transparent"
                stroke="none"
                data-task={task.kind}
              />
            )}
            <path d={`M${placeOf(task)} ${Y}v${task.done_at ? 8 : 30}`} />
            {!task.done_at && <circle cx={placeOf(task)} cy={Y + 32} r="2.4" fill="var(--ink)" />}
            {!task.done_at && (
              <text
                x={placeOf(task) + 7}
                y={Y + 37}
                fontSize="13"
                stroke="none"
                fill={task.late ? "var(--rosy)" : "var(--ink)"}
              >
                {task.kind.replace("-", " ")}
              </text>
            )}
          </g>
        ))}
    </g>
  );
}

/** Up to six pieces in section: what is still wet is lined, the dry skin stippled the thicker the drier. */
function Pieces({ tray, edge, lining }: { tray: Tray; edge: number; lining: string }) {
  const count = Math.min(SHELF.most, tray.pieces);
  const dry = (tray.reading.dry_pct ?? 0) / 100;
  const left = edge - count * (SHELF.piece + 3) - 4;
  return (
    <g>
      <path d={`M${left - 2} ${Y - 18}H${edge - 2}v4H${left - 2}z`} fill="var(--lit)" stroke="var(--ink)" />
      {Array.from({ length: count }, (_, index) => {
        const x = left + index * (SHELF.piece + 3) + SHELF.piece / 2;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces are known by their place on the tray
          <g key={index} transform={`translate(${x} ${Y - 19})`}>
            <path d={dome(1)} fill="var(--lit)" stroke="var(--ink)" strokeWidth="1.6" />
            <path
              d={skin(`tray${tray.id}-${index}`, dry)}
              stroke="var(--grainline)"
              strokeWidth="1.1"
              strokeLinecap="round"
            />
            {dry < 0.995 && (
              <path
                d={dome(Math.sqrt(1 - dry) * 0.86)}
                fill={`url(#${lining})`}
                stroke="var(--verd)"
                strokeWidth="1.4"
              />
            )}
          </g>
        );
      })}
      {tray.reading.dry_pct !== null && (
        <text
          x={(left + edge) / 2}
          y={Y - 76}
          textAnchor="middle"
          fontSize="15"
          fontWeight="600"
          fill="var(--ink)"
        >
          {Math.round(tray.reading.dry_pct)} % dry
        </text>
      )}
    </g>
  );
}

/** A piece in section, standing on its tray. */
function dome(size: number): string {
  const half = (SHELF.piece / 2 - 2) * size;
  const top = 46 * size;
  return `M${-half} 0C${-half} ${-top * 1.28} ${half} ${-top * 1.28} ${half} 0Z`;
}

/** Dots thick toward the skin. */
function skin(seed: string, dry: number): string {
  const random = seeded(seed);
  let path = "";
  for (let dot = 0; dot < Math.round(20 + 70 * dry); dot++) {
    const angle = Math.PI * random();
    const out = 1 - 0.55 * random() ** 2 * (0.3 + 0.7 * dry);
    const x = Math.cos(angle) * (SHELF.piece / 2 - 5) * out;
    const y = -Math.sin(angle) * 40 * out * 0.98;
    path += `M${x.toFixed(1)} ${Math.min(-1.5, y).toFixed(1)}h.1`;
  }
  return path;
}

/** Dots thinning from the likely hour to the latest. */
function stipple(seed: string, from: number, to: number): string {
  if (to <= from) return "";
  const random = seeded(seed);
  let path = "";
  for (let dot = 0; dot < Math.min(420, (to - from) * 1.4); dot++) {
    const along = 1 - Math.sqrt(1 - random() * 0.98);
    path += `M${(from + along * (to - from)).toFixed(1)} ${(Y - 13 + random() * 12).toFixed(1)}h.1`;
  }
  return path;
}
