import { type ReactNode, useState } from "react";
import { messageOf } from "../api";
import { Button } from "./Button";
import { Dialog } from "./Dialog";

interface Props {
  title: string;
  /** One sentence under the title. */
  lead: ReactNode;
  /** What stands between that and the fields. */
  above?: ReactNode;
  children: ReactNode;
  /** What the button says. */
  submit: string;
  /** Sends it. A sentence says what is still missing, an error what the studio refused: it is shown, and nothing is lost. */
  onSubmit: () => Promise<string>;
  onClose: () => void;
  /** For gloves: the button is 48 px high. */
  tall?: boolean;
  /** How the fields stand; one below the other unless said otherwise. */
  className?: string;
}

/** A sheet that asks for something: its fields, what was refused, and the one button, which Enter presses. */
export function Sheet({
  title,
  lead,
  above,
  children,
  submit,
  onSubmit,
  onClose,
  tall = false,
  className = "flex flex-col gap-4",
}: Props) {
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  const send = async () => {
    setBusy(true);
    setRefused(await onSubmit().catch(messageOf));
    setBusy(false);
  };
  return (
    <Dialog open onOpenChange={onClose} title={title} lead={lead}>
      {above}
      <form
        className={`mt-4 text-row ${className}`}
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        {children}
        {refused && (
          <p role="alert" className="col-span-full w-full text-body text-rosy">
            {refused}
          </p>
        )}
        <p className="col-span-full w-full">
          <Button primary type="submit" hint="Enter" className={tall ? "min-h-12" : ""} disabled={busy}>
            {submit}
          </Button>
        </p>
      </form>
    </Dialog>
  );
}
