import { useState } from "react";
import { useNavigate } from "react-router";
import { type IngredientAnswer, useSaveIngredient } from "../../api";
import { readTyped, typedOf, unitShown } from "../../lib/units";
import { Field, Sheet } from "../../ui";

const EDITABLE = [
  { name: "us_cup_g", label: "A US cup of it weighs", unit: "g" },
  { name: "true_density_g_ml", label: "True density", unit: "g/mL" },
  { name: "liquid_demand_ml_100g", label: "Liquid it drinks", unit: "mL/100 g" },
  { name: "active_fraction", label: "Active surfactant", unit: "share 0–1" },
  { name: "water_fraction", label: "Water", unit: "share 0–1" },
  { name: "flash_point_c", label: "Flash point", unit: "°C" },
] as const;

/** An ingredient of the studio's own: starts as a copy of the nearest one; what is left empty stays as there. */
export function OwnIngredientDialog({
  item,
  copy,
  onClose,
}: {
  item: IngredientAnswer;
  copy: boolean;
  onClose: () => void;
}) {
  const save = useSaveIngredient();
  const navigate = useNavigate();
  const [name, setName] = useState(copy ? "" : item.short_name);
  const [inci, setInci] = useState(item.inci);
  const [note, setNote] = useState(copy ? "" : item.note);
  const [values, setValues] = useState<Record<string, string>>(() => valuesOf(item));
  const submit = async () => {
    const changed: Record<string, number | null> = {};
    for (const { name: property, label, unit } of EDITABLE) {
      const text = (values[property] ?? "").trim();
      if (text === (valuesOf(item)[property] ?? "") && copy) continue;
      const figure = readTyped(text, unit);
      if (Number.isNaN(figure)) {
        return `${label} must be a number, got "${text}".`;
      }
      if (text !== "" || item.own) changed[property] = figure;
    }
    const ingredient = {
      based_on: item.based_on ?? item.id,
      name: name.trim(),
      inci,
      note,
      properties: changed,
    };
    const saved = await save.mutateAsync(copy ? { ingredient } : { id: item.id, ingredient });
    onClose();
    await navigate(`/pantry/${saved.id}`);
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title={copy ? `Your own, from ${item.short_name}` : `Change ${item.short_name}`}
      lead="What you leave as it is comes from the ingredient it is based on."
      submit="Put it on the shelf"
      onSubmit={submit}
      className="grid grid-cols-2 gap-x-10 gap-y-4"
    >
      <Field
        label="Name"
        required
        value={name}
        maxLength={100}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label="INCI name"
        value={inci}
        maxLength={500}
        onChange={(event) => setInci(event.target.value)}
      />
      {EDITABLE.map((field) => (
        <Field
          key={field.name}
          label={field.label}
          after={unitShown(field.unit)}
          inputMode="decimal"
          value={values[field.name] ?? ""}
          onChange={(event) => setValues((before) => ({ ...before, [field.name]: event.target.value }))}
        />
      ))}
      <Field
        className="col-span-2"
        label="Note"
        value={note}
        maxLength={2000}
        onChange={(event) => setNote(event.target.value)}
      />
    </Sheet>
  );
}

function valuesOf(item: IngredientAnswer): Record<string, string> {
  return Object.fromEntries(
    item.properties.map((property) => [
      property.property,
      Number.isFinite(Number(property.value ?? "x"))
        ? typedOf(Number(property.value), property.unit)
        : (property.value ?? ""),
    ]),
  );
}
