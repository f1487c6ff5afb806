import { type BatchPlan, useSaveStock } from "../../api";
import { grams } from "../../lib/numbers";
import { KeptNumber } from "../../ui";

/** What the batch takes against what is there; what nobody has counted is not known. */
export function Needs({ plan }: { plan: BatchPlan }) {
  const save = useSaveStock();
  const short = plan.order.needs.filter((need) => (need.short_g ?? 0) > 0);
  const unknown = plan.order.needs.filter((need) => need.on_hand_g === null).length;
  return (
    <section aria-label="What it takes" className="no-print pt-6">
      <h2 className="text-row italic text-soft">What it takes</h2>
      <p className="text-body">
        {short.length > 0 ? (
          <b className="text-rosy">
            Short of{" "}
            {short.map((need) => `${need.name.toLowerCase()} (${grams(need.short_g ?? 0)} g)`).join(", ")}.
          </b>
        ) : (
          "Nothing is short of what has been counted."
        )}{" "}
        {unknown > 0 && `${unknown} not counted yet. `}
        {plan.order.cost === null
          ? "Cost not known: a price is missing."
          : `${Number(plan.order.cost).toFixed(2)} USD of ingredients.`}
      </p>
      <table className="mt-1 w-full max-w-[760px] text-body">
        <thead>
          <tr className="text-caption italic text-soft">
            <th scope="col" className="text-left font-normal">
              Ingredient
            </th>
            <th scope="col" className="text-right font-normal">
              needed, g
            </th>
            <th scope="col" className="text-right font-normal">
              on hand, g
            </th>
            <th scope="col" className="text-right font-normal">
              short, g
            </th>
            <th scope="col" className="text-right font-normal">
              USD
            </th>
          </tr>
        </thead>
        <tbody>
          {plan.order.needs.map((need) => (
            <tr key={need.ingredient} className="border-b-[0.9px] border-ink">
              <th scope="row" className="py-0.5 text-left font-medium">
                {need.name}
              </th>
              <td className="text-right font-semibold">{grams(need.needed_g)}</td>
              <td className="text-right">
                <KeptNumber
                  label={`On hand of ${need.name} in grams`}
                  className="min-h-6 w-20 text-right"
                  placeholder="not known"
                  shown={need.on_hand_g === null ? "" : grams(need.on_hand_g).replace(/\u202f/g, "")}
                  value={need.on_hand_g}
                  least={0}
                  onKeep={(on_hand_g) => save.mutate({ id: need.ingredient, on_hand_g })}
                />
              </td>
              <td className={`text-right ${need.short_g ? "font-bold text-rosy" : "text-soft"}`}>
                {need.short_g === null ? "–" : need.short_g > 0 ? grams(need.short_g) : "no"}
              </td>
              <td className="text-right text-soft">
                {need.cost === null ? "no price" : Number(need.cost).toFixed(2)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
