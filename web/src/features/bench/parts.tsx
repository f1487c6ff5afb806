import { type ButtonHTMLAttributes, useEffect, useRef, useState } from "react";
import type { DeviceReading } from "../../api";
import { type Doubt, doubtOf } from "../../lib/plausible";
import { readTyped, unitShown } from "../../lib/units";
import { NumberInput } from "../../ui";

const HOLD_MS = 650;

interface PressProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** The one obvious next action. */
  next?: boolean;
}

/** What can be pressed at the bench lies on lit paper under a heavy rule, a knuckle high. */
export function Press({ next = false, className = "", children, ...rest }: PressProps) {
  return (
    <button
      type="button"
      className={`min-h-[88px] flex-1 border-t-2 px-5 text-bench-word font-semibold leading-tight ${next ? "border-rosy bg-rosy text-paper" : "border-ink bg-lit text-ink disabled:text-soft"} ${className}`}
      {...rest}
    >
      {children}
    </button>
  );
}

/** To the step before; where there is no way back it is not offered. */
export function Back({ onBack, wide = false }: { onBack: (() => void) | undefined; wide?: boolean }) {
  if (!onBack) return null;
  return (
    <Press onClick={onBack} className={wide ? "" : "max-w-[160px]"}>
      Back
    </Press>
  );
}

/** Needs to be held: a knuckle that slips keeps nothing. */
export function HoldPress({ onHeld, children, ...rest }: PressProps & { onHeld: () => void }) {
  const timer = useRef(0);
  const [held, setHeld] = useState(false);
  const start = () => {
    setHeld(true);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => {
      setHeld(false);
      onHeld();
    }, HOLD_MS);
  };
  const stop = () => {
    clearTimeout(timer.current);
    setHeld(false);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  return (
    <Press
      {...rest}
      className={held ? "bg-shade" : ""}
      onPointerDown={start}
      onPointerUp={stop}
      onPointerLeave={stop}
      onContextMenu={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if ((event.key === "Enter" || event.key === " ") && !event.repeat) start();
      }}
      onKeyUp={stop}
    >
      {children}
    </Press>
  );
}

/** A figure typed with a keypad when no device can give it. */
export function TypedFigure({
  label,
  unit,
  onGive,
  word = "Keep it",
  meant = null,
}: {
  label: string;
  unit: string;
  onGive: (value: number) => void;
  word?: string;
  /** What it should come to: what is more than twice that, or less than half, is asked about once. */
  meant?: number | null;
}) {
  const [text, setText] = useState("");
  const [doubt, setDoubt] = useState<Doubt | null>(null);
  const value = readTyped(text, unit);
  const good = value !== null && !Number.isNaN(value);
  const give = (figure: number) => {
    setDoubt(null);
    setText("");
    onGive(figure);
  };
  if (doubt !== null && good)
    return (
      <DoubtAsked
        doubt={doubt}
        kept={`${text.trim()} ${unitShown(unit)}`}
        onKeep={() => give(value)}
        onInstead={give}
        onBack={() => setDoubt(null)}
      />
    );
  return (
    <form
      className="flex items-stretch gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (!good) return;
        const doubtful = doubtOf(value, meant, unit);
        if (doubtful === null) give(value);
        else setDoubt(doubtful);
      }}
    >
      <label className="flex flex-1 items-baseline gap-2 border-t-2 border-ink bg-lit px-4">
        <span className="sr-only">{label}</span>
        <NumberInput
          aria-label={label}
          placeholder="type it"
          className="h-[88px] w-full min-w-24 bg-transparent text-bench-unit font-semibold placeholder:text-bench-word placeholder:font-medium placeholder:text-soft"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <span className="whitespace-nowrap text-bench-word">{unitShown(unit)}</span>
      </label>
      <Press type="submit" disabled={!good} className="max-w-[220px]">
        {word}
      </Press>
    </form>
  );
}

/** A doubtful figure is asked about once: it is right, it was grams, or it is typed again. */
export function DoubtAsked({
  doubt,
  kept,
  onKeep,
  onInstead,
  onBack,
}: {
  doubt: Doubt;
  /** The figure as it was given. */
  kept: string;
  onKeep: () => void;
  onInstead: (value: number) => void;
  onBack: () => void;
}) {
  const { instead } = doubt;
  return (
    <section aria-label="Is that right?" className="flex flex-col gap-3">
      <p role="alert" className="text-state font-semibold text-rosy">
        {doubt.question}
      </p>
      <div className="flex gap-3">
        <Press onClick={onBack}>No, again</Press>
        {instead && <Press onClick={() => onInstead(instead.value)}>{instead.label}</Press>}
        <Press onClick={onKeep}>Yes, {kept}</Press>
      </div>
    </section>
  );
}

/** A reading of a stand-in: said in words wherever it is shown. */
export function StandIn({ reading }: { reading: DeviceReading | null }) {
  if (reading?.source !== "stand-in") return null;
  return <span className="text-bench-note font-semibold text-rosy">stand-in: nobody measures this</span>;
}

/** Where the batch is: one tick a step. */
export function StepRuler({ at, statuses }: { at: number; statuses: readonly string[] }) {
  const width = 480;
  const gap = width / Math.max(1, statuses.length - 1);
  const left = statuses.filter((status) => status === "skipped").length;
  return (
    <div className="flex items-center gap-5">
      <p className="whitespace-nowrap text-bench-note">
        step <b>{at + 1}</b> of {statuses.length}
        {left > 0 && <span className="text-rosy">, {left} left out</span>}
      </p>
      <svg viewBox={`-3 0 ${width + 6} 32`} className="h-8 min-w-0 flex-1" aria-hidden="true">
        <path d={`M0 26H${width}`} stroke="var(--ink)" strokeWidth="1.6" />
        {statuses.map((status, index) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: a step is known by its place
            key={index}
            d={`M${index * gap} ${index === at ? 0 : status === "open" ? 15 : 8}V26`}
            stroke={index === at || status === "skipped" ? "var(--rosy)" : "var(--ink)"}
            strokeWidth={index === at ? 6 : status === "open" ? 2 : 4}
            strokeDasharray={status === "skipped" ? "4 3" : undefined}
          />
        ))}
      </svg>
    </div>
  );
}

/** Minutes and seconds until a moment; re-reads the wall clock, so it survives sleep and reload. */
export function useLeft(endsAt: string | undefined): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!endsAt) return;
    const tick = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(tick);
  }, [endsAt]);
  return endsAt ? Math.max(0, (new Date(endsAt).getTime() - now) / 1000) : null;
}

export function Hourglass({ left, whole, word }: { left: number; whole: number; word: string }) {
  const share = whole > 0 ? Math.min(1, left / whole) : 0;
  const top = 40 * share;
  const shown = `${Math.floor(left / 60)}:${String(Math.floor(left % 60)).padStart(2, "0")}`;
  return (
    <div className="flex items-center gap-5" role="timer" aria-label={`${word}: ${shown} to go`}>
      <svg width="56" height="100" viewBox="0 0 56 100" aria-hidden="true">
        <path d="M1 3H55M1 97H55" stroke="var(--ink)" strokeWidth="3.2" />
        <path
          d={`M28 50L${28 - 0.5 * top} ${50 - top}H${28 + 0.5 * top}Z`}
          fill="var(--ctint)"
          stroke="var(--ink)"
          strokeWidth=".6"
        />
        <path
          d={`M${28 - 20 * (1 - share)} 95H${28 + 20 * (1 - share)}L28 ${95 - 34 * (1 - share)}Z`}
          fill="var(--ctint)"
          stroke="var(--ink)"
          strokeWidth=".6"
        />
        <path
          d="M6 5C6 30 26 38 26 50S6 70 6 95M50 5C50 30 30 38 30 50S50 70 50 95"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.8"
        />
      </svg>
      <p className="text-right">
        <span className="block text-bench-count leading-none">{shown}</span>
        <span className="text-state text-soft">{word}</span>
      </p>
    </div>
  );
}
