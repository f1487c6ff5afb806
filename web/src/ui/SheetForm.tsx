import type { ReactNode } from "react";
import { Button } from "./Button";

interface Props {
  children: ReactNode;
  /** Why it was refused; empty while it was not. */
  refused: string;
  /** Whether it is being sent. */
  busy: boolean;
  /** What the button says. */
  submit: string;
  onSubmit: () => unknown;
  /** How the fields stand; one below the other unless said otherwise. */
  className?: string;
}

/** The form of a sheet: its fields, what was refused, and the one button, which Enter presses. */
export function SheetForm({
  children,
  refused,
  busy,
  submit,
  onSubmit,
  className = "flex flex-col gap-4",
}: Props) {
  return (
    <form
      className={`mt-4 text-row ${className}`}
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
    >
      {children}
      {refused && (
        <p role="alert" className="w-full text-body text-rosy">
          {refused}
        </p>
      )}
      <p className="w-full">
        <Button primary type="submit" hint="Enter" disabled={busy}>
          {submit}
        </Button>
      </p>
    </form>
  );
}
