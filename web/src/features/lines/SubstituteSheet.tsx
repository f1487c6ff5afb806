import { useState } from "react";
import { findSubstitutes, messageOf, type Substitute, swapLine, useAnswer } from "../../api";
import { figure, fixed, massFigure, sayMass } from "../../lib/numbers";
import { unitShown } from "../../lib/units";
import { Dialog } from "../../ui";
import { type Draft, toDraft, toFile } from "../draft";
import { sideEffects } from "../readings";

interface Props {
  draft: Draft;
  position: number;
  name: string;
  onTake: (draft: Draft, sentence: string) => void;
  onClose: () => void;
}

const SHOWN = 8;

/** What could stand in for one line, those first that change the rest least. */
export function SubstituteSheet({ draft, position, name, onTake, onClose }: Props) {
  const [refused, setRefused] = useState("");
  const [taking, setTaking] = useState("");
  // Asked once, for the formula as it was when the sheet opened.
  const [ask] = useState(() => (signal: AbortSignal) => findSubstitutes(toFile(draft), position, signal));
  const { answer: found, error } = useAnswer(ask);
  const failed = refused || (error ? messageOf(error) : "");
  const onChoose = async (each: Substitute) => {
    setTaking(each.ingredient);
    try {
      const { result, formula } = await swapLine(toFile(draft), position, each.ingredient);
      const moved = result.changes.filter((line) => line.position !== position).length;
      const others = moved === 0 ? "nothing else moved" : `${moved} other line${moved > 1 ? "s" : ""} moved`;
      const held = result.status !== "infeasible" ? "" : " It does not hold all of it; look at the readings.";
      onTake(toDraft(formula), `${each.name} stands in for ${name}; ${others}.${held}`);
    } catch (error) {
      setRefused(messageOf(error));
      setTaking("");
    }
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`In place of ${name}`}
      lead="Each at the amount that keeps what the line is there for; those first that change the rest least. Other lines give where they must."
    >
      {failed && <p className="mt-4 text-body text-rosy">{failed}</p>}
      {!found && !failed && <p className="mt-4 text-body text-soft">Trying them…</p>}
      <ul className="mt-4">
        {found?.slice(0, SHOWN).map((each) => (
          <li key={each.ingredient} className="border-b-[0.9px] border-ink py-1.5">
            <button
              type="button"
              disabled={taking !== ""}
              className="flex w-full items-baseline gap-3 text-left text-row hover:underline hover:underline-offset-4"
              onClick={() => void onChoose(each)}
            >
              <b className="flex-1">{each.name}</b>
              <span>
                {massFigure(each.before_g)} → {sayMass(each.after_g)}
              </span>
              <span className="w-28 text-right">
                {each.cost_per_piece_change === null
                  ? "no price"
                  : `${each.cost_per_piece_change >= 0 ? "+" : "−"}${fixed(Math.abs(each.cost_per_piece_change), 3)} a piece`}
              </span>
            </button>
            <span className="block text-label text-soft">
              {taking === each.ingredient ? "Balancing the rest… " : ""}
              {each.why_not && <b className="font-semibold text-rosy">Against it: {each.why_not}. </b>}
              {each.note && `For ${each.note}. `.replace("For where", "Where")}
              {notes(each)} {each.holds ? "" : "By itself it does not hold; the rest is balanced. "}
              {sideEffects(each)}
            </span>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

function notes(each: Substitute): string {
  const words = [];
  if (each.price_per_kg) words.push(`${figure(Number(each.price_per_kg))} ${unitShown("USD")}/kg`);
  if (each.dust_hazard === "high") words.push("dusty");
  if (each.vegan === "no") words.push("not vegan");
  if (each.allergen_tags.length) words.push(`allergens: ${each.allergen_tags.join(", ").replace(/_/g, " ")}`);
  return words.length ? `${words.join(", ")}.` : "";
}
