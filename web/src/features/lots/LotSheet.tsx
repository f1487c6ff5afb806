import { useState } from "react";
import { useEnterLot, useIngredients, useSettings } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { massUnit, readTyped } from "../../lib/units";
import { Field, Sheet } from "../../ui";

const BLANK = {
  ingredient: "",
  code: "",
  quantity: "",
  supplier: "",
  price: "",
  bought_on: "",
  best_before: "",
  active: "",
  water: "",
};

/** A purchase as it comes out of the parcel. */
export function LotSheet({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState(BLANK);
  const [key] = useState(askingKey);
  const ingredients = useIngredients();
  const settings = useSettings();
  const enter = useEnterLot();
  const field = (name: keyof typeof BLANK, label: string, more: { after?: string; type?: string } = {}) => (
    <Field
      className="w-48"
      label={label}
      value={typed[name]}
      onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
      {...more}
    />
  );
  const onEnter = async () => {
    const quantity_g = readTyped(typed.quantity, "g");
    const [active, water] = [typed.active, typed.water].map((each) => readDecimal(each));
    const found = ingredients.data?.ingredients.find(
      (each) =>
        each.name === typed.ingredient ||
        each.short_name === typed.ingredient ||
        each.id === typed.ingredient,
    );
    if (!found) return "Which ingredient? Choose one of the list.";
    if (typeof quantity_g !== "number" || !(quantity_g > 0)) return "How much is in it?";
    await enter.mutateAsync({
      ingredient: found.id,
      code: typed.code,
      quantity_g,
      supplier: typed.supplier,
      price: typed.price || null,
      currency: settings.data?.currency ?? "USD",
      bought_on: typed.bought_on || null,
      best_before: typed.best_before || null,
      active_fraction: typeof active === "number" ? active / 100 : null,
      water_fraction: typeof water === "number" ? water / 100 : null,
      key,
    });
    onClose();
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Enter a purchase"
      lead="With the code that stands on the jar: by it a piece is traced."
      submit="Put it on the shelf"
      onSubmit={onEnter}
      className="flex flex-wrap items-end gap-x-6 gap-y-4"
    >
      <label className="text-caption italic text-soft">
        Ingredient
        <input
          list="lot-ingredients"
          className="written block w-72 text-row not-italic text-ink"
          value={typed.ingredient}
          onChange={(event) => setTyped({ ...typed, ingredient: event.target.value })}
        />
        <datalist id="lot-ingredients">
          {ingredients.data?.ingredients.map((each) => (
            <option key={each.id} value={each.short_name} />
          ))}
        </datalist>
      </label>
      {field("code", "Lot code")}
      {field("quantity", "Quantity", { after: massUnit() })}
      {field("price", "Price of the whole", { after: settings.data?.currency ?? "" })}
      {field("supplier", "Supplier")}
      {field("bought_on", "Bought", { type: "date" })}
      {field("best_before", "Best before", { type: "date" })}
      {field("active", "Active part, by its sheet", { after: "%" })}
      {field("water", "Water, by its sheet", { after: "%" })}
    </Sheet>
  );
}
