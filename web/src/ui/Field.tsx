import { type InputHTMLAttributes, type ReactNode, useId } from "react";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  /** Stands after the input: a unit, a remark. */
  after?: ReactNode;
  error?: string | undefined;
}

/** A labelled line to write on. */
export function Field({ label, after, error, className = "", ...rest }: Props) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-caption italic text-soft">
        {label}
      </label>
      <span className="flex items-baseline gap-2">
        <input
          id={id}
          aria-invalid={error ? true : undefined}
          aria-describedby={error ? `${id}-error` : undefined}
          className="written w-full min-w-0 py-0.5 text-row"
          autoComplete="off"
          {...rest}
        />
        {after && <span className="shrink-0 text-caption text-soft">{after}</span>}
      </span>
      {error && (
        <p id={`${id}-error`} className="mt-1 text-caption text-rosy">
          {error}
        </p>
      )}
    </div>
  );
}
