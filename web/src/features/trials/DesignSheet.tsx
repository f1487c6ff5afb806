import { useState } from "react";
import { useNavigate } from "react-router";
import { useDesignTrials, useFormula, useIngredients, useJudged, useReference } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { percent } from "../../lib/numbers";
import { massUnit, readTyped } from "../../lib/units";
import { FormulaChoice, NumberInput, Sheet } from "../../ui";

const MOST = 3;

interface Bound {
  ingredient: string;
  low: string;
  high: string;
}

/** A formula, two or three of its ingredients with their bounds, and the reading that should become better. */
export function DesignSheet({ onClose }: { onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [bounds, setBounds] = useState<Bound[]>([]);
  const [reading, setReading] = useState("lather.height_cm");
  const [wanted, setWanted] = useState<"more" | "less">("more");
  const [trials, setTrials] = useState("8");
  const [batch, setBatch] = useState(() => (massUnit() === "g" ? "80" : "3"));
  const [key] = useState(askingKey);
  const reference = useReference();
  const design = useDesignTrials();
  const navigate = useNavigate();
  const onDesign = async () => {
    const [count, batch_g] = [readDecimal(trials), readTyped(batch, "g")];
    const read = bounds.map((each) => ({
      ingredient: each.ingredient,
      low_pct: readDecimal(each.low),
      high_pct: readDecimal(each.high),
    }));
    if (!formula) return "Which formula?";
    if (count === null || !(count >= 2)) return "How many trials?";
    if (batch_g === null || !(batch_g > 0)) return "How much is a trial?";
    if (read.some((each) => !(Number(each.low_pct) >= 0 && Number(each.high_pct) > 0)))
      return "Every chosen ingredient needs a least and a most, in % of the formula.";
    const made = await design.mutateAsync({
      formula_id: Number(formula),
      reading,
      wanted,
      key,
      batch_g,
      trials: Math.round(count),
      bounds: read.map((each) => ({
        ingredient: each.ingredient,
        low_pct: Number(each.low_pct),
        high_pct: Number(each.high_pct),
      })),
    });
    await navigate(`/learning/trials/${made.id}`);
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Design trials"
      lead="The chosen ingredients keep the weight they have together; the trials vary how they share it."
      submit="Design them"
      onSubmit={onDesign}
    >
      <FormulaChoice
        value={formula}
        onChoose={(id) => {
          setFormula(id);
          setBounds([]);
        }}
        none="choose"
      />
      {formula && (
        <Ingredients key={formula} formula={Number(formula)} bounds={bounds} onBounds={setBounds} />
      )}
      <p className="flex flex-wrap items-end gap-3">
        <label>
          <span className="sr-only">Wanted</span>
          <select
            className="written text-row"
            value={wanted}
            onChange={(event) => setWanted(event.target.value as "more" | "less")}
          >
            <option>more</option>
            <option>less</option>
          </select>
        </label>
        <label>
          of{" "}
          <select
            className="written text-row"
            value={reading}
            onChange={(event) => setReading(event.target.value)}
          >
            {reference.data?.readings
              .filter((each) => each.id.includes(".") && each.unit !== "")
              .map((each) => (
                <option key={each.id} value={each.id}>
                  {each.label}, {each.unit}
                </option>
              ))}
          </select>
        </label>
        <label>
          in{" "}
          <NumberInput
            className="w-12 text-center"
            value={trials}
            onChange={(event) => setTrials(event.target.value)}
          />{" "}
          trials
        </label>
        <label>
          of{" "}
          <NumberInput
            className="w-16 text-center"
            value={batch}
            onChange={(event) => setBatch(event.target.value)}
          />{" "}
          {massUnit()}
        </label>
      </p>
    </Sheet>
  );
}

/** Lines of the formula: two or three are chosen, each with a least and a most. */
function Ingredients({
  formula,
  bounds,
  onBounds,
}: {
  formula: number;
  bounds: Bound[];
  onBounds: (bounds: Bound[]) => void;
}) {
  const stored = useFormula(formula);
  const judged = useJudged(formula, stored.data?.formula ?? null);
  const ingredients = useIngredients();
  const names = new Map(ingredients.data?.ingredients.map((each) => [each.id, each.name]));
  const lines = [...new Map(judged.data?.lines.map((line) => [line.ingredient, line])).values()];
  return (
    <ul className="grid grid-cols-2 gap-x-8 text-body max-[900px]:grid-cols-1">
      {lines.map((line) => {
        const chosen = bounds.find((each) => each.ingredient === line.ingredient);
        const put = (some: Partial<Bound>) =>
          onBounds(bounds.map((each) => (each.ingredient === line.ingredient ? { ...each, ...some } : each)));
        const name = names.get(line.ingredient) ?? line.ingredient;
        return (
          <li key={line.ingredient} className="flex items-end gap-2 py-1">
            <label className="flex-1">
              <input
                type="checkbox"
                className="mr-2 accent-[var(--ink)]"
                checked={chosen !== undefined}
                disabled={!chosen && bounds.length >= MOST}
                onChange={() =>
                  onBounds(
                    chosen
                      ? bounds.filter((each) => each !== chosen)
                      : [
                          ...bounds,
                          {
                            ingredient: line.ingredient,
                            low: percent(line.pct / 2),
                            high: percent(line.pct * 1.5),
                          },
                        ],
                  )
                }
              />
              {name} <span className="text-soft">{percent(line.pct)} %</span>
            </label>
            {chosen && (
              <>
                <NumberInput
                  className="w-14 text-center"
                  aria-label={`Least of ${name} in per cent`}
                  value={chosen.low}
                  onChange={(event) => put({ low: event.target.value })}
                />
                to
                <NumberInput
                  className="w-14 text-center"
                  aria-label={`Most of ${name} in per cent`}
                  value={chosen.high}
                  onChange={(event) => put({ high: event.target.value })}
                />
                %
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}
