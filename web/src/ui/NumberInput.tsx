import type { InputHTMLAttributes } from "react";
import { readDecimal } from "../lib/decimals";
import { readTyped, typedOf } from "../lib/units";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  /** Whole numbers only. */
  whole?: boolean;
}

/** A line for a decimal, typed with a point or a comma; marked while it holds anything else. */
export function NumberInput({ whole = false, className = "", ...rest }: Props) {
  const wrong = typeof rest.value === "string" && Number.isNaN(readDecimal(rest.value));
  return (
    <input
      inputMode={whole ? "numeric" : "decimal"}
      autoComplete="off"
      aria-invalid={wrong || undefined}
      className={`written ${className}`}
      {...rest}
    />
  );
}

interface KeptProps {
  label: string;
  value: number | null;
  least: number;
  most?: number;
  whole?: boolean;
  className?: string;
  placeholder?: string;
  /** What stands there at rest, where that is not the number itself. */
  shown?: string;
  /** The unit of the value; shown and typed it is in the studio's own. */
  unit?: string;
  /** Null where nothing may stand there; without it an emptied line shows its number again. */
  empty?: boolean;
  onKeep: (value: number | null) => void;
}

/** A number that counts when the line is left; what is none, or lies outside, gives way to what was there. */
export function KeptNumber({
  label,
  value,
  least,
  most = 1e9,
  whole = false,
  empty = true,
  unit = "",
  onKeep,
  ...look
}: KeptProps) {
  const shown = look.shown ?? typedOf(value, unit);
  const fits = (read: number) => read >= least && read <= most && (!whole || Number.isInteger(read));
  return (
    <NumberInput
      key={shown}
      aria-label={label}
      whole={whole}
      className={look.className}
      placeholder={look.placeholder}
      defaultValue={shown}
      onBlur={(event) => {
        const read = readTyped(event.target.value, unit);
        if (read === null ? !empty : !fits(read)) event.target.value = shown;
        else if (read !== value) onKeep(read);
      }}
    />
  );
}
