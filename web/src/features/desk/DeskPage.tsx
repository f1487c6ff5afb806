import { useState } from "react";
import { useParams } from "react-router";
import { messageOf, useFormula, useIngredients, useProfiles, useReference } from "../../api";
import { startFrom } from "../draft";
import { Desk } from "./Desk";

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
