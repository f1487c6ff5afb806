import { type BatchPlan, useSaveStock } from "../../api";
import { fixed, massFigure, sayMass } from "../../lib/numbers";
import { inUnits, massUnit, unitShown } from "../../lib/units";
import { HeadRow, KeptNumber } from "../../ui";

/** What the batch takes against what is there; what nobody has counted is not known. */
export function Needs({ plan }: { plan: BatchPlan }) {
  return (
    <>
      <Pantry plan={plan} />
      <Forewarned plan={plan} />
    </>
  );
}

/** The likeliest troubles of this formula in this room, each with what would lower it. */
function Forewarned({ plan }: { plan: BatchPlan }) {
  if (plan.troubles.length === 0) return null;
  return (
    <section aria-label="What could go wrong" className="no-print pt-6">
      <h2 className="text-row italic text-soft">What could go wrong, by its readings and the room</h2>
      <ul className="max-w-[900px] text-body">
        {plan.troubles.map((each) => (
          <li key={each.symptom} className="border-b-[0.9px] border-ink py-1">
            <b>{each.symptom.replaceAll("-", " ")}</b>, {fixed(each.times, 1)} times likelier than usual, from{" "}
            {each.cause.replaceAll("-", " ")}. {inUnits(each.lower)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Pantry({ plan }: { plan: BatchPlan }) {
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
            {short.map((need) => `${need.name.toLowerCase()} (${sayMass(need.short_g ?? 0)})`).join(", ")}.
          </b>
        ) : (
          "Nothing is short of what has been counted."
        )}{" "}
        {unknown > 0 && `${unknown} not counted yet. `}
        {plan.order.cost === null
          ? "Cost not known: a price is missing."
          : `${fixed(Number(plan.order.cost), 2)} ${unitShown("USD")} of ingredients.`}
      </p>
      {plan.jars.map((word) => (
        <p key={word.text} className="text-body font-semibold text-rosy">
          {inUnits(word.text)}
        </p>
      ))}
      <table className="mt-1 w-full max-w-[760px] text-body">
        <HeadRow
          columns={[
            "Ingredient",
            { says: `needed, ${massUnit()}`, right: true },
            { says: `on hand, ${massUnit()}`, right: true },
            { says: `short, ${massUnit()}`, right: true },
            { says: unitShown("USD"), right: true },
          ]}
        />
        <tbody>
          {plan.order.needs.map((need) => (
            <tr key={need.ingredient} className="border-b-[0.9px] border-ink">
              <th scope="row" className="py-0.5 text-left font-medium">
                {need.name}
              </th>
              <td className="text-right font-semibold">{massFigure(need.needed_g)}</td>
              <td className="text-right">
                <KeptNumber
                  label={`On hand of ${need.name} in grams`}
                  className="min-h-6 w-20 text-right"
                  placeholder="not known"
                  shown={need.on_hand_g === null ? "" : massFigure(need.on_hand_g).replace(/\u202f/g, "")}
                  value={need.on_hand_g}
                  unit="g"
                  least={0}
                  onKeep={(on_hand_g) => save.mutate({ id: need.ingredient, on_hand_g })}
                />
              </td>
              <td className={`text-right ${need.short_g ? "font-bold text-rosy" : "text-soft"}`}>
                {need.short_g === null ? "–" : need.short_g > 0 ? massFigure(need.short_g) : "no"}
              </td>
              <td className="text-right text-soft">
                {need.cost === null ? "no price" : fixed(Number(need.cost), 2)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
