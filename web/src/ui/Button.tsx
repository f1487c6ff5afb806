import type { ButtonHTMLAttributes } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** The one solid button of a page. */
  primary?: boolean;
  /** The key that does the same. */
  hint?: string;
}

/** A button: solid clay for the one next thing, plain text under a rule for the rest. */
export function Button({ primary = false, hint, children, className = "", ...rest }: Props) {
  const face = primary
    ? "bg-rosy text-paper px-4 min-h-9 font-semibold disabled:opacity-50"
    : "px-1 min-h-9 border-b-[0.9px] border-ink hover:border-b-2 disabled:text-soft disabled:border-soft";
  return (
    <button
      type="button"
      className={`inline-flex items-center gap-2 text-body ${face} ${className}`}
      {...rest}
    >
      {hint && (
        <kbd className={`font-sans text-hint ${primary ? "border-b border-paper" : "border-b border-ink"}`}>
          {hint}
        </kbd>
      )}
      {children}
    </button>
  );
}
