import { memo, type ReactNode, useState } from "react";
import { figure } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { KindGlyph, Strip } from "../../ui";
import type { Question } from "./questions";
import type { StripReading } from "./strips";

interface Props {
  questions: readonly Question[];
  /** What stands under an opened strip. */
  why: (reading: StripReading) => ReactNode;
  /** Width of an opened strip, and of a closed one. */
  width: number;
  strip: number;
  /** Marks the rules the capillaries run to. */
  capillaries: boolean;
}

const LABEL_PX = 145; // label and gap before every strip
const LANE_MIDDLE = 0.55; // of a strip: half way between its posts

/** The questions and their strips; one strip at a time opens and explains itself. */
export const Readings = memo(function Readings({ questions, width, strip, capillaries, why }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const [unfolded, fold] = useUnfolded(questions);
  return (
    <div className="relative" data-readings>
      {questions.some((question) => question.readings.some((reading) => reading.scale.wanted)) && (
        <p
          className="absolute -top-6 text-caption italic print:hidden"
          style={{ left: LABEL_PX + strip * LANE_MIDDLE, transform: "translateX(-50%)" }}
          aria-hidden="true"
        >
          wanted
        </p>
      )}
      {questions.map((question) => (
        <section key={question.id} aria-labelledby={`q-${question.id}`} className="pb-1.5">
          <div
            data-question={question.id}
            data-out={question.out || undefined}
            className={`flex items-baseline justify-between border-t-[0.9px] pt-1.5 ${question.out ? "border-rosy" : "border-ink"} ${capillaries ? "border-t-transparent" : ""}`}
          >
            <h2 id={`q-${question.id}`} className="text-row italic text-soft">
              {question.readings.length > 1 ? (
                <button
                  type="button"
                  className="min-h-6 italic hover:underline hover:underline-offset-4"
                  aria-expanded={unfolded.has(question.id)}
                  onClick={() => fold(question.id)}
                >
                  {question.title}
                  {!unfolded.has(question.id) && (
                    <span className="pl-2 text-hint not-italic">{question.readings.length - 1} more</span>
                  )}
                </button>
              ) : (
                question.title
              )}
            </h2>
            <p className={`text-body font-bold ${question.out ? "text-rosy" : ""}`}>{question.answer}</p>
          </div>
          {(unfolded.has(question.id) ? question.readings : leading(question)).map((reading) => (
            <Row
              key={reading.id}
              reading={reading}
              width={width}
              strip={strip}
              open={open === reading.id}
              why={why}
              onToggle={() => setOpen(open === reading.id ? null : reading.id)}
            />
          ))}
        </section>
      ))}
    </div>
  );
});

/** A question that is answered as wanted folds to one strip; one that is out opens, and stays open while it is worked on. */
function useUnfolded(questions: readonly Question[]): [ReadonlySet<string>, (id: string) => void] {
  const [chosen, setChosen] = useState<ReadonlyMap<string, boolean>>(new Map());
  const out = questions.filter((question) => question.out && !chosen.has(question.id));
  if (out.length > 0) setChosen(new Map([...chosen, ...out.map(({ id }) => [id, true] as const)]));
  const unfolded = new Set<string>(questions.map(({ id }) => id).filter((id) => chosen.get(id)));
  return [unfolded, (id) => setChosen(new Map(chosen).set(id, !unfolded.has(id)))];
}

/** The strip that stands for a folded question: the first with a wish, with every one that is out of its own. */
function leading(question: Question): readonly StripReading[] {
  const first = question.readings.find((reading) => reading.scale.wanted) ?? question.readings[0];
  return question.readings.filter((reading) => reading === first || (reading.out && reading.scale.wanted));
}

function Row({
  reading,
  width,
  strip: closed,
  open,
  why,
  onToggle,
}: {
  reading: StripReading;
  width: number;
  strip: number;
  open: boolean;
  why: (reading: StripReading) => ReactNode;
  onToggle: () => void;
}) {
  const { shown, unit, label, out } = reading;
  const text = `${label}: ${shown} ${unit}${wantedWords(reading)}`;
  const strip = (
    <Strip
      id={reading.id}
      {...reading.scale}
      value={reading.value}
      band={reading.band}
      span={reading.span}
      text={text}
      format={reading.format}
      open={open}
      width={open ? width - 8 : closed}
    />
  );
  return (
    <div>
      <div
        className="grid items-center gap-x-1"
        style={{
          // Opened, the strip stands below: its place in the row goes to the large figure.
          gridTemplateColumns: open
            ? "minmax(0, 1fr) auto"
            : `${LABEL_PX - 4}px ${closed + 4}px minmax(0, 1fr)`,
        }}
      >
        <button
          type="button"
          aria-expanded={open}
          className="flex min-h-6 items-center gap-1.5 text-left text-body hover:underline hover:underline-offset-4"
          onClick={onToggle}
        >
          <KindGlyph kind={reading.kind} />
          {label}
        </button>
        {!open && <span>{strip}</span>}
        <p className={`text-right ${open ? "whitespace-nowrap" : ""} ${out ? "text-rosy" : ""}`}>
          <span
            className={open ? "text-title font-[350]" : "text-reading font-semibold"}
            data-reading={reading.id}
          >
            {shown}
          </span>{" "}
          <span className={`text-caption ${out ? "" : "text-soft"}`}>{unit}</span>
        </p>
      </div>
      {open && (
        <div className="pb-3 pt-1">
          {strip}
          <p className="mt-2 text-label">
            {inUnits(reading.explained)} <span className="text-soft">Kind: {reading.kind}.</span>
          </p>
          {why(reading)}
        </div>
      )}
    </div>
  );
}

function wantedWords({ scale }: StripReading): string {
  const { low, high } = scale.wanted ?? {};
  if (low !== undefined && high !== undefined) return `, wanted ${figure(low)} to ${figure(high)}`;
  if (low !== undefined) return `, wanted at least ${figure(low)}`;
  if (high !== undefined) return `, wanted at most ${figure(high)}`;
  return "";
}
