import { useEffect, useState } from "react";
import { figure } from "../../lib/numbers";

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
    setText((before) =>
      Number(before.replace(",", ".")) === value ? before : value === null ? "" : String(value),
    );
  }, [value]);
  const parsed = Number(text.replace(",", "."));
  const fits = (number: number) => Number.isFinite(number) && (number > 0 || (zero && number === 0));
  const bad = text.trim() !== "" && !fits(parsed);
  return (
    <input
      aria-label={label}
      aria-invalid={bad || undefined}
      inputMode="decimal"
      className="written w-11 text-center text-row font-semibold placeholder:font-medium placeholder:text-ink"
      placeholder={assumed === undefined ? "" : figure(assumed)}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const next = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() === "") onChange(null);
        else if (fits(next)) onChange(next);
      }}
    />
  );
}
