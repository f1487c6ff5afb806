import { useState } from "react";
import { useTakeOrder } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { Field, FormulaChoice, NumberInput, Sheet } from "../../ui";
import { type Purpose, PurposeChoice } from "./PurposeChoice";

/** An order: for whom, what, how many, by when. */
export function OrderSheet({ onClose }: { onClose: () => void }) {
  const [who, setWho] = useState("");
  const [formula, setFormula] = useState("");
  const [pieces, setPieces] = useState("12");
  const [due, setDue] = useState("");
  const [note, setNote] = useState("");
  const [purpose, setPurpose] = useState<Purpose>("sale");
  const [key] = useState(askingKey);
  const take = useTakeOrder();
  const onTake = async () => {
    const count = readDecimal(pieces);
    if (!formula) return "Which formula?";
    if (count === null || !(count >= 1)) return "How many pieces?";
    await take.mutateAsync({
      who,
      formula_id: Number(formula),
      pieces: Math.round(count),
      due_at: due ? new Date(due).toISOString() : null,
      note,
      for: purpose,
      key,
    });
    onClose();
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Take an order"
      lead="A name, or “market day” to fill the table; without a day it is made when there is time."
      submit="Take it"
      onSubmit={onTake}
    >
      <Field
        className="w-80"
        label="For whom"
        value={who}
        maxLength={200}
        onChange={(event) => setWho(event.target.value)}
      />
      <FormulaChoice value={formula} onChoose={setFormula} none="choose" />
      <p className="flex flex-wrap items-end gap-6">
        <label>
          <NumberInput
            className="w-16 text-center"
            value={pieces}
            onChange={(event) => setPieces(event.target.value)}
          />{" "}
          pieces
        </label>
        <label>
          dry by{" "}
          <input
            type="datetime-local"
            className="written text-row"
            value={due}
            onChange={(event) => setDue(event.target.value)}
          />
        </label>
      </p>
      <PurposeChoice value={purpose} onChoose={setPurpose} />
      <Field
        className="w-96"
        label="Note, and how they are reached"
        value={note}
        maxLength={500}
        onChange={(event) => setNote(event.target.value)}
      />
    </Sheet>
  );
}
