import { Link } from "react-router";
import { messageOf, useStandIns } from "../../api";
import { sayMass } from "../../lib/numbers";
import { Dialog } from "../../ui";
import { sideEffects } from "../readings";

/** What lies in the pantry and could stand in for what is short, order by order; the Desk makes the change. */
export function StandIns({
  ingredient,
  name,
  onClose,
}: {
  ingredient: string;
  name: string;
  onClose: () => void;
}) {
  const found = useStandIns(ingredient);
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={`In place of ${name}`}
      lead="Only what lies in the pantry, holds what the line is there for and leaves the dough as it is."
    >
      {found.error && <p className="mt-4 text-body text-rosy">{messageOf(found.error)}</p>}
      {found.isPending && <p className="mt-4 text-body text-soft">Trying them…</p>}
      {found.data?.items.map((order) => (
        <section key={order.order_id} aria-label={order.who} className="border-b-[0.9px] border-ink py-2">
          <h3 className="text-row">
            <Link className="underline underline-offset-4" to={`/formulas/${order.formula_id}`}>
              {order.formula}
            </Link>{" "}
            for {order.who}, {sayMass(order.needed_g)}
          </h3>
          {order.found.length === 0 && <p className="text-body text-soft">Nothing in the pantry holds it.</p>}
          <ul>
            {order.found.map((each) => (
              <li key={each.ingredient} className="text-body">
                <b className="font-semibold">{each.name}</b>, {sayMass(each.needed_g)} of{" "}
                {sayMass(each.on_hand_g)}
                <span className="block text-label text-soft">{sideEffects(each)}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </Dialog>
  );
}
