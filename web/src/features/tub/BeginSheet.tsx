import { useState } from "react";
import { useNavigate } from "react-router";
import { messageOf, type TubTestSave, useBeginTest } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { Dialog, Field, FormulaChoice, SheetForm } from "../../ui";
import { BathFields, useBath } from "./BathFields";

/** A piece and a bath; begun once, however often it is pressed. */
export function BeginSheet({ batch, onClose }: { batch: number | null; onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [name, setName] = useState("");
  const bath = useBath();
  const [refused, setRefused] = useState("");
  const [key] = useState(askingKey);
  const begin = useBeginTest();
  const navigate = useNavigate();
  const onBegin = async () => {
    const into = bath.read();
    if (typeof into === "string") return setRefused(into);
    const ask: TubTestSave = {
      ...into,
      name,
      key,
      ...(batch ? { batch_id: batch } : {}),
      ...(formula ? { formula_id: Number(formula) } : {}),
    };
    try {
      const made = await begin.mutateAsync(ask);
      await navigate(`/tub/${made.id}`);
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Begin a test"
      lead="What goes into which bath; what the Desk says of it is kept beside what you will see."
    >
      <SheetForm refused={refused} busy={begin.isPending} submit="To the bath" onSubmit={onBegin}>
        {batch ? (
          <p>A piece of batch {batch}.</p>
        ) : (
          <FormulaChoice value={formula} onChoose={setFormula} none="a piece from elsewhere" />
        )}
        <Field
          className="w-80"
          label="Name"
          placeholder="as the formula"
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.target.value)}
        />
        <BathFields bath={bath} />
      </SheetForm>
    </Dialog>
  );
}
