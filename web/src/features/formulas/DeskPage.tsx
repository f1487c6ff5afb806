import { useState } from "react";
import { useParams } from "react-router";
import {
  type FormulaAnswer,
  messageOf,
  useFormula,
  useIngredients,
  useProfiles,
  useReference,
} from "../../api";
import { Desk } from "./Desk";
import { type Draft, toDraft, toFile } from "./draft";
import { dropUnsavedWork, unsavedWork } from "./useAutosave";

/** Loads what the Desk needs, and brings back work the server never acknowledged. */
export function DeskPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  const reference = useReference();
  const ingredients = useIngredients();
  const profiles = useProfiles();
  const failed = formula.error ?? reference.error ?? ingredients.error ?? profiles.error;
  if (failed) return <p className="px-14 py-10 text-reading text-rosy">{messageOf(failed)}</p>;
  if (!formula.data || !formula.isFetchedAfterMount || !reference.data || !ingredients.data || !profiles.data)
    return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return (
    <Loaded
      key={id}
      answer={formula.data}
      reference={reference.data}
      ingredients={ingredients.data.ingredients}
      profiles={profiles.data.profiles}
    />
  );
}

type LoadedProps = Omit<Parameters<typeof Desk>[0], "start" | "startDirty">;

function Loaded(props: LoadedProps) {
  const [start] = useState(() => startFrom(props.answer));
  return <Desk {...props} start={start.draft} startDirty={start.dirty} />;
}

/** Work the server never acknowledged goes before what it has. */
export function startFrom(answer: FormulaAnswer): { draft: Draft; dirty: boolean } {
  const saved = toDraft(answer.formula);
  const kept = unsavedWork(answer.id);
  if (!kept) return { draft: saved, dirty: false };
  const mine = toDraft(kept.formula);
  if (JSON.stringify(toFile(mine)) === JSON.stringify(toFile(saved))) {
    dropUnsavedWork(answer.id);
    return { draft: saved, dirty: false };
  }
  return { draft: mine, dirty: true };
}
