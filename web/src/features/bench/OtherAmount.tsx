import { useState } from "react";
import type { Batch, IngredientSummary } from "../../api";
import { useNotice } from "../../ui";
import { Back, TypedFigure } from "./parts";

interface Props {
  batch: Batch;
  /** What is offered first. */
  first: string | null;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onAdded: (ingredient: string, mass_g: number) => Promise<void>;
  onBack: () => void;
}

/** What went in where it was not what was offered: the jar, and the grams. */
export function OtherAmount({ batch, first, ingredients, onAdded, onBack }: Props) {
  const jars = [
    ...new Set([
      ...batch.planned.portions.flatMap((portion) => portion.lines?.map((line) => line.ingredient) ?? []),
      ...(batch.feel?.mends ?? []).map((mend) => mend.ingredient),
    ]),
  ].filter((jar): jar is string => typeof jar === "string");
  const say = useNotice();
  const [jar, setJar] = useState(first ?? jars[0] ?? "");
  return (
    <div className="flex flex-col gap-3">
      <p className="text-bench-word">What went in? Mix it, and judge again.</p>
      <label className="text-bench-note">
        From the jar of{" "}
        <select
          aria-label="Jar"
          className="min-h-[88px] w-full border-t-2 border-ink bg-lit px-4 text-bench-word font-semibold"
          value={jar}
          onChange={(event) => setJar(event.target.value)}
        >
          {jars.map((each) => (
            <option key={each} value={each}>
              {ingredients.get(each)?.short_name ?? each}
            </option>
          ))}
        </select>
      </label>
      <TypedFigure
        label="Grams that went in"
        unit="g"
        word="It went in"
        meant={batch.feel?.mends.find((mend) => mend.ingredient === jar)?.mass_g ?? null}
        onGive={(grams) => {
          if (grams > 0) void onAdded(jar, grams);
          else say("What went in weighs more than nothing.", { asks: true });
        }}
      />
      <div className="flex">
        <Back onBack={onBack} />
      </div>
    </div>
  );
}
