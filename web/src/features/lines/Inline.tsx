import { useEffect, useState } from "react";
import { figure } from "../../lib/numbers";
import { readTyped, toShown, typedOf } from "../../lib/units";
import { NumberInput } from "../../ui";

interface InlineProps {
  label: string;
  value: number | null;
  /** What counts while nothing is typed. */
  assumed: number | undefined;
  /** Whether 0 can be meant. */
  zero?: boolean;
  /** The unit of the value; shown and typed it is in the studio's own. */
  unit?: string;
  onChange: (value: number | null) => void;
}

/** A number in a sentence. What the method assumes stands there until something is typed. */
export function Inline({ label, value, assumed, zero = false, unit = "", onChange }: InlineProps) {
  const [text, setText] = useState(() => typedOf(value, unit));
  useEffect(() => {
    setText((before) => (readTyped(before, unit) === value ? before : typedOf(value, unit)));
  }, [value, unit]);
  const fits = (number: number) => number > 0 || (zero && number === 0);
  const parsed = readTyped(text, unit);
  const bad = parsed !== null && !fits(parsed);
  return (
    <NumberInput
      aria-label={label}
      aria-invalid={bad || undefined}
      className="w-11 text-center text-row font-semibold placeholder:font-medium placeholder:text-ink"
      placeholder={assumed === undefined ? "" : figure(toShown(assumed, unit))}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const next = readTyped(event.target.value, unit);
        if (next === null || fits(next)) onChange(next);
      }}
    />
  );
}
