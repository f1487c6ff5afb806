import { useEffect, useState } from "react";
import { readDecimal } from "../../lib/decimals";
import { figure } from "../../lib/numbers";
import { NumberInput } from "../../ui";

interface InlineProps {
  label: string;
  value: number | null;
  /** What counts while nothing is typed. */
  assumed: number | undefined;
  /** Whether 0 can be meant. */
  zero?: boolean;
  onChange: (value: number | null) => void;
}

/** A number in a sentence. What the method assumes stands there until something is typed. */
export function Inline({ label, value, assumed, zero = false, onChange }: InlineProps) {
  const [text, setText] = useState(value === null ? "" : String(value));
  useEffect(() => {
    setText((before) => (readDecimal(before) === value ? before : value === null ? "" : String(value)));
  }, [value]);
  const fits = (number: number) => number > 0 || (zero && number === 0);
  const parsed = readDecimal(text);
  const bad = parsed !== null && !fits(parsed);
  return (
    <NumberInput
      aria-label={label}
      aria-invalid={bad || undefined}
      className="w-11 text-center text-row font-semibold placeholder:font-medium placeholder:text-ink"
      placeholder={assumed === undefined ? "" : figure(assumed)}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const next = readDecimal(event.target.value);
        if (next === null || fits(next)) onChange(next);
      }}
    />
  );
}
