import { memo, type Ref, useMemo } from "react";
import { levelOf, profile, SURFACE } from "../../lib/bowl";
import { fall, hairGrams, r } from "../../lib/hairs";
import { fixed } from "../../lib/numbers";
import { Bowl, type BowlLayer } from "../../ui";
import type { BowlZone } from "../../ui/Bowl";
import type { Question } from "../readings";
import type { Marks } from "./useMarks";

/** A row of the formula as the drawing sees it. */
export interface DrawnRow {
  key: string;
  mass_g: number;
  wet: boolean;
  pinch: boolean;
}

interface Props {
  seed: string;
  marks: Marks;
  rows: readonly DrawnRow[];
  layers: readonly BowlLayer[];
  saturation: number | null;
  state: string | null;
  zones: readonly BowlZone[];
  /** Where the scale of the saturation ends. */
  highest: number;
  wanted: readonly [number | null, number | null];
  questions: readonly Question[];
  focusKey: string | undefined;
  /** Left and right edge of the bowl's column. */
  column: readonly [number, number];
  batch_g: number;
  sentence: string;
}

const PITCH_ROW = 1.5;
const TALLEST_BUNDLE = 54; // a thick bundle must not reach the heading above it
const PITCH_LANDING = 1.9;
const CHANNEL = 46; // room for the capillaries beside the bowl

/** Rows run on as hairs into the bowl; each question's line leaves the place that answers it. */
export const DeskDrawing = memo(function DeskDrawing({ ref, ...props }: Props & { ref: Ref<SVGSVGElement> }) {
  const { marks, column, questions, sentence } = props;
  const [left, right] = column;
  const radius = Math.min(164, (right - left - CHANNEL - 34) / 2);
  const cx = left + 14 + radius;
  const depth = radius * 1.26;
  const rimY = Math.max(260, marks.height - depth - 96);
  const bowl = { cx, rimY, radius, depth };
  if (marks.width === 0 || radius < 40) return null;
  return (
    <svg
      ref={ref}
      role="img"
      aria-label={sentence}
      width={marks.width}
      height={marks.height}
      viewBox={`0 0 ${marks.width} ${marks.height}`}
      className="pointer-events-none absolute inset-0"
    >
      <Bowl
        seed={props.seed}
        {...bowl}
        layers={props.layers}
        saturation={props.saturation}
        state={props.state}
        zones={props.zones}
        wanted={props.wanted}
        focusKey={props.focusKey}
      >
        <Pour {...props} bowl={bowl} />
      </Bowl>
      <Figure {...props} bowl={bowl} />
      {questions.map((question, index) => (
        <Capillary
          key={question.id}
          question={question}
          index={index}
          count={questions.length}
          marks={marks}
          bowl={bowl}
          layers={props.layers}
          level={props.saturation}
        />
      ))}
    </svg>
  );
});

interface BowlBox {
  cx: number;
  rimY: number;
  radius: number;
  depth: number;
}

const surfaceY = (bowl: BowlBox) => bowl.rimY + bowl.depth * (1 - SURFACE);

function Pour({ marks, rows, batch_g, focusKey, bowl, layers }: Props & { bowl: BowlBox }) {
  const hair = hairGrams(batch_g);
  const landing = layers.length ? surfaceY(bowl) : bowl.rimY + bowl.depth * 0.94;
  const half = bowl.radius * profile(layers.length ? SURFACE : 0.1) * 0.86;
  const streams = useMemo(() => {
    const total = rows.reduce((sum, row) => sum + Math.max(1, Math.round(row.mass_g / hair)), 0);
    const pitch = Math.min(PITCH_LANDING, (half * 1.15) / Math.max(1, total));
    let landed = 0;
    return rows.map((row) => {
      const count = row.mass_g > 0 ? Math.max(1, Math.round(row.mass_g / hair)) : 0;
      const from = marks.rows.get(row.key);
      const start = landed;
      landed += count;
      return { ...row, count, from, toX: bowl.cx + half * 0.34 - start * pitch, pitch };
    });
  }, [rows, marks, hair, bowl.cx, half]);
  return (
    <g fill="none">
      {streams.map((stream) =>
        stream.from && stream.count > 0 ? (
          <Stream
            key={stream.key}
            stream={{ ...stream, from: stream.from }}
            landing={landing}
            bowl={bowl}
            bold={stream.key === focusKey}
          />
        ) : null,
      )}
    </g>
  );
}

interface StreamShape extends DrawnRow {
  count: number;
  from: { x: number; y: number };
  toX: number;
  pitch: number;
}

function Stream({
  stream,
  landing,
  bowl,
  bold,
}: {
  stream: StreamShape;
  landing: number;
  bowl: BowlBox;
  bold: boolean;
}) {
  const { from, count, toX, pitch, wet, pinch } = stream;
  const edge = bowl.cx - bowl.radius - 20;
  const riser = Math.max(Math.min(edge, from.x + 16), from.x + 3); // clear of the shares in the rows
  const over = bowl.rimY - 26;
  // Rows below the rim climb a thread beside the bowl and are tossed over it.
  const low = from.y > over - 10;
  const colour = wet ? "var(--vline)" : "var(--ink)";
  const begin = low ? { x: riser, y: over } : from;
  const pitchRow = Math.min(PITCH_ROW, TALLEST_BUNDLE / count);
  let whole = "";
  let broken = "";
  for (let index = 0; index < count; index++) {
    const start = { x: begin.x, y: begin.y - (low ? index * 0.4 : index * pitchRow) };
    const end = { x: toX - index * pitch, y: landing };
    const breaks = wet ? 1 : 0.5 + 0.24 * ((index * 0.618) % 1);
    if (pinch) broken += fall(start, end, 0, 1);
    else {
      whole += fall(start, end, 0, breaks);
      if (!wet) broken += fall(start, end, breaks, 1);
    }
  }
  return (
    <g stroke={colour}>
      {low && (
        <path
          d={`M${r(from.x)} ${r(from.y)}H${r(riser - 6)}Q${r(riser)} ${r(from.y)} ${r(riser)} ${r(from.y - 6)}V${r(over)}`}
          strokeWidth=".75"
          strokeDasharray={pinch ? "1.5 3" : undefined}
        />
      )}
      {whole && <path d={whole} strokeWidth={wet ? 0.9 : bold ? 1 : 0.75} />}
      {broken && (
        <path
          d={broken}
          strokeWidth="1"
          strokeLinecap="round"
          strokeDasharray={pinch ? "0.1 7" : "0.1 3.4"}
        />
      )}
    </g>
  );
}

const STATE_PX = 24;
const NOTE_PX = 14;
const EM_A_LETTER = 0.5; // of the interface's face, on the safe side

/** Words on as many lines as the room asks for. */
function wrap(words: string, size: number, room: number): string[] {
  const lines: string[] = [];
  for (const word of words.split(" ")) {
    const longer = lines.length ? `${lines[lines.length - 1]} ${word}` : word;
    if (lines.length && longer.length * size * EM_A_LETTER <= room) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** The figure of the page, kept clear of the lines that lead to the questions. */
function Figure({ saturation, state, bowl, column, highest }: Props & { bowl: BowlBox }) {
  if (state === null) return null;
  const over = saturation !== null && saturation >= highest;
  const x = bowl.cx + bowl.radius * 0.24 + 16;
  const room = column[1] - CHANNEL - x;
  const shown = saturation === null ? "–" : over ? `over ${fixed(highest, 1)}` : fixed(saturation, 2);
  const size = Math.min(72, over ? 40 : room / (4 * EM_A_LETTER));
  const top = Math.min(150, bowl.rimY - 190);
  const states = wrap(state, STATE_PX, room);
  const statePx = states.length > 1 ? STATE_PX - 3 : STATE_PX;
  const note = saturation === null ? "no powder to drink it" : "of what the powders can drink";
  const under = top + 34 + 26 * (states.length - 1);
  return (
    <g fill="var(--ink)">
      <text x={x} y={top} fontSize={r(size)} fontWeight="350">
        {shown}
      </text>
      {states.map((word, index) => (
        <text key={word} x={x + 2} y={top + 34 + 26 * index} fontSize={statePx}>
          {word}
        </text>
      ))}
      {wrap(note, NOTE_PX, room).map((words, index) => (
        <text key={words} x={x + 2} y={under + 22 + 17 * index} fontSize={NOTE_PX} fill="var(--soft)">
          {words}
        </text>
      ))}
    </g>
  );
}

interface CapillaryProps {
  question: Question;
  index: number;
  count: number;
  marks: Marks;
  bowl: BowlBox;
  layers: readonly BowlLayer[];
  level: number | null;
}

/** A glass thread from the place in the bowl to the rule above its question. */
function Capillary({ question, index, count, marks, bowl, layers, level }: CapillaryProps) {
  const mark = marks.questions.get(question.id);
  if (!mark) return null;
  const from = source(question.id, bowl, layers, level);
  const lane = mark.x - 4 - (count - index) * 6;
  const colour = question.out ? "var(--rosy)" : "var(--ink)";
  const bend = 10;
  const up = mark.y < from.y;
  const rule = `V${r(mark.y + (up ? bend : -bend))}Q${r(lane)} ${r(mark.y)} ${r(lane + bend)} ${r(mark.y)}H${r(mark.right)}`;
  const path =
    question.id === "hold"
      ? `M${r(from.x)} ${r(from.y)}V${r(mark.y + bend)}Q${r(from.x)} ${r(mark.y)} ${r(from.x + bend)} ${r(mark.y)}H${r(mark.right)}`
      : `M${r(from.x)} ${r(from.y)}H${r(lane - bend)}Q${r(lane)} ${r(from.y)} ${r(lane)} ${r(from.y + (up ? -bend : bend))}${rule}`;
  return (
    <g>
      <path d={path} fill="none" stroke={colour} strokeWidth={question.out ? 1.6 : 0.9} />
      {question.id !== "hold" && (
        <circle cx={from.x} cy={from.y} r="3" fill={colour} stroke="var(--lit)" strokeWidth="1.2" />
      )}
    </g>
  );
}

function source(
  id: Question["id"],
  bowl: BowlBox,
  layers: readonly BowlLayer[],
  level: number | null,
): { x: number; y: number } {
  const { cx, rimY, radius, depth } = bowl;
  const y = (t: number) => rimY + depth * (1 - t);
  if (id === "hold") return { x: cx + radius * 0.24, y: rimY - 46 };
  if (id === "cost") return { x: cx + radius * 0.31 + 4, y: rimY + depth + 20 };
  // The dry top answers whether it sets, the wet pores how it feels and whether it is kind.
  if (id === "set") return { x: cx + radius * profile(SURFACE) * 0.72, y: y(SURFACE * 0.97) };
  if (id === "feel" || id === "kind") {
    const t = Math.min(SURFACE, levelOf(level ?? 0.4)) * (id === "feel" ? 0.42 : 0.2);
    return { x: cx + radius * profile(t) * (id === "feel" ? 0.88 : 0.8), y: y(t) };
  }
  const wanted = id === "foam" ? "needle" : "prism";
  const total = layers.reduce((sum, layer) => sum + layer.ml, 0) || 1;
  let below = 0;
  for (const layer of layers) {
    if (layer.mark === wanted) {
      const t = SURFACE * ((below + layer.ml / 2) / total) ** 0.62;
      return { x: cx + radius * profile(t) * 0.8, y: y(t) };
    }
    below += layer.ml;
  }
  const t = id === "foam" ? SURFACE * 0.8 : Math.min(SURFACE * 0.4, levelOf(level ?? 0.4) * 0.7);
  return { x: cx + radius * profile(t) * 0.8, y: y(t) };
}
