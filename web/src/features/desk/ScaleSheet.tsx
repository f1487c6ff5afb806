import { useState } from "react";
import { sayMass } from "../../lib/numbers";
import { massUnit, readTyped, typedOf } from "../../lib/units";
import { Button, Dialog, Field } from "../../ui";

interface Props {
  batch_g: number;
  onScale: (factor: number) => void;
  onClose: () => void;
}

/** The whole formula made larger or smaller, every line alike. */
export function ScaleSheet({ batch_g, onScale, onClose }: Props) {
  const [typed, setTyped] = useState(() =>
    massUnit() === "g" ? String(Math.round(batch_g)) : typedOf(batch_g, "g"),
  );
  const wanted = readTyped(typed, "g") ?? 0;
  const wrong = !(wanted > 0) || wanted > 1e6 ? `A mass above 0, at most ${sayMass(1e6)}.` : undefined;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Scale to a mass"
      lead={`The batch is ${sayMass(batch_g)} now; every line grows or shrinks alike, cups and spoons too.`}
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
          after={massUnit()}
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
