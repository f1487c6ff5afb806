import { useState } from "react";
import { useNavigate } from "react-router";
import { type TubTestSave, useBeginTest } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { Field, FormulaChoice, Sheet } from "../../ui";
import { BathFields, useBath } from "./BathFields";

/** A piece and a bath; begun once, however often it is pressed. */
export function BeginSheet({ batch, onClose }: { batch: number | null; onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [name, setName] = useState("");
  const bath = useBath();
  const [key] = useState(askingKey);
  const begin = useBeginTest();
  const navigate = useNavigate();
  const onBegin = async () => {
    const into = bath.read();
    if (typeof into === "string") return into;
    const ask: TubTestSave = {
      ...into,
      name,
      key,
      ...(batch ? { batch_id: batch } : {}),
      ...(formula ? { formula_id: Number(formula) } : {}),
    };
    const made = await begin.mutateAsync(ask);
    await navigate(`/tub/${made.id}`);
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Begin a test"
      lead="What goes into which bath; what the Desk says of it is kept beside what you will see."
      submit="To the bath"
      onSubmit={onBegin}
    >
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
    </Sheet>
  );
}
