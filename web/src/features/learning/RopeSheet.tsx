import { useState } from "react";
import { useFormula, useIngredients, useKeepRope, useUsual } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readTyped, temperatureUnit, typedOf, unitShown } from "../../lib/units";
import { FormulaChoice, NumberInput, Sheet, useNotice } from "../../ui";

/** The rope: a formula's powders take their wetter drop by drop until a rope rolls, and until it smears. */
export function RopeSheet({ onClose }: { onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [wetter, setWetter] = useState("glycerin");
  const [typed, setTyped] = useState({ rolls: "", smears: "", celsius: null as string | null });
  const room_c = useUsual()?.room.temperature_c;
  const celsius = typed.celsius ?? (room_c === undefined ? "" : typedOf(room_c, "°C"));
  const [key] = useState(askingKey);
  const keep = useKeepRope();
  const say = useNotice();
  const onKeep = async () => {
    const [rolls_at_g, smears_at_g, temperature_c] = [
      readTyped(typed.rolls, "g"),
      readTyped(typed.smears, "g"),
      readTyped(celsius, "°C"),
    ];
    if (!formula) return "Which formula's powders?";
    if ([rolls_at_g, smears_at_g].some(Number.isNaN)) return "A mass is a number.";
    if (typeof temperature_c !== "number" || Number.isNaN(temperature_c))
      return `How warm is the dough, in ${temperatureUnit()}?`;
    await keep.mutateAsync({
      formula_id: Number(formula),
      wetter,
      temperature_c,
      key,
      rolls_at_g: rolls_at_g ?? null,
      smears_at_g: smears_at_g ?? null,
    });
    say("Kept. What your powders drink is worked out anew.");
    onClose();
    return "";
  };
  const shown = { ...typed, celsius };
  const figure = (name: keyof typeof shown, before: string, unit: string) => (
    <label>
      {before}{" "}
      <NumberInput
        className="w-20 text-center"
        value={shown[name]}
        onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
      />{" "}
      {unitShown(unit)}
    </label>
  );
  return (
    <Sheet
      onClose={onClose}
      title="The rope"
      lead="What your own powders drink, in ten minutes."
      above={
        <ol className="mt-3 list-decimal pl-6 text-row">
          <li>Mix the powders of the formula, a tenth of it is enough, without its wetter.</li>
          <li>Add the wetter a gram at a time, knead it in, and roll a rope as thick as a finger.</li>
          <li>
            Note the grams at which it first rolls without a crack, and at which it first smears the glove.
          </li>
          <li>Write down what that is in the whole formula: ten times as much, if you took a tenth.</li>
        </ol>
      }
      submit="Keep it"
      onSubmit={onKeep}
    >
      <FormulaChoice value={formula} onChoose={setFormula} none="choose" />
      {formula && <Wetter formula={Number(formula)} value={wetter} onChoose={setWetter} />}
      <p className="flex flex-wrap items-end gap-x-6 gap-y-3">
        {figure("rolls", "It rolls at", "g")}
        {figure("smears", "and smears at", "g")}
        {figure("celsius", "with the dough at", "°C")}
      </p>
    </Sheet>
  );
}

/** The wetter is a line of the formula. */
function Wetter({
  formula,
  value,
  onChoose,
}: {
  formula: number;
  value: string;
  onChoose: (id: string) => void;
}) {
  const stored = useFormula(formula);
  const ingredients = useIngredients();
  const names = new Map(ingredients.data?.ingredients.map((each) => [each.id, each.name]));
  const lines = (stored.data?.formula.portions ?? []).flatMap((portion) => portion.lines ?? []);
  const ids = [...new Set(lines.map((line) => line.ingredient).filter((id) => typeof id === "string"))];
  return (
    <label>
      Its wetter{" "}
      <select className="written text-row" value={value} onChange={(event) => onChoose(event.target.value)}>
        {!ids.includes(value) && <option value={value}>{names.get(value) ?? value}</option>}
        {ids.map((id) => (
          <option key={id} value={id}>
            {names.get(id) ?? id}
          </option>
        ))}
      </select>
    </label>
  );
}
