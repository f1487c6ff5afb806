import { useState } from "react";
import { useKeepDrops } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { inUnits, readTyped } from "../../lib/units";
import { FormulaChoice, NumberInput, Sheet, useNotice } from "../../ui";

/** The drop: how often dried pieces fall until a corner breaks says how firm they are. */
export function DropsSheet({ onClose }: { onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [typed, setTyped] = useState("");
  const [key] = useState(askingKey);
  const keep = useKeepDrops();
  const say = useNotice();
  const onKeep = async () => {
    const drops = readTyped(typed, "");
    if (!formula) return "Which formula's pieces?";
    if (typeof drops !== "number" || Number.isNaN(drops)) return "How many drops, on the mean of the pieces?";
    await keep.mutateAsync({ formula_id: Number(formula), drops, key });
    say("Kept. How firm your pieces are is worked out anew.");
    onClose();
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="The drop"
      lead="How firm your dried pieces are, in two minutes."
      above={
        <ol className="mt-3 list-decimal pl-6 text-row">
          <li>Take five dried pieces of one batch to a hard table.</li>
          <li>
            Let each fall flat from {inUnits("10 cm")}, again and again, and count until a corner breaks off.
          </li>
          <li>Write down the mean of the five.</li>
        </ol>
      }
      submit="Keep it"
      onSubmit={onKeep}
    >
      <FormulaChoice value={formula} onChoose={setFormula} none="choose" />
      <label>
        A corner broke after{" "}
        <NumberInput
          className="w-20 text-center"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />{" "}
        drops
      </label>
    </Sheet>
  );
}
