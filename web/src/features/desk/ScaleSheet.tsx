import { useState } from "react";
import { readDecimal } from "../../lib/decimals";
import { figure } from "../../lib/numbers";
import { Button, Dialog, Field } from "../../ui";

interface Props {
  batch_g: number;
  onScale: (factor: number) => void;
  onClose: () => void;
}

/** The whole formula made larger or smaller, every line alike. */
export function ScaleSheet({ batch_g, onScale, onClose }: Props) {
  const [typed, setTyped] = useState(String(Math.round(batch_g)));
  const wanted = readDecimal(typed) ?? 0;
  const wrong = !(wanted > 0) || wanted > 1e6 ? "A mass in grams above 0, at most 1 000 000." : undefined;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Scale to a mass"
      lead={`The batch is ${figure(batch_g)} g now; every line grows or shrinks alike, cups and spoons too.`}
    >
      <form
        className="mt-5 flex items-end gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          if (!wrong && batch_g > 0) onScale(wanted / batch_g);
        }}
      >
        <Field
          className="w-60"
          label="New mass of the batch"
          after="g"
          inputMode="decimal"
          value={typed}
          error={wrong}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button primary type="submit" hint="Enter" disabled={wrong !== undefined || batch_g <= 0}>
          Scale it
        </Button>
      </form>
    </Dialog>
  );
}
