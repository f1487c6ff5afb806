import { SHOPPING_ADDRESS, useShoppingList } from "../../api";
import { sayMass } from "../../lib/numbers";
import { signed } from "../../lib/units";

/** What the open orders lack, in the cheapest packs it was bought in before. */
export function ShoppingList() {
  const list = useShoppingList();
  if (!list.data) return null;
  const { items, cost, left_out, deliveries } = list.data;
  const total = Object.entries(cost)
    .map(([currency, value]) => `${signed(value)} ${currency}`)
    .join(" and ");
  return (
    <section aria-label="Shopping list" className="pt-8">
      <h2 className="text-row italic text-soft">
        {items.length === 0
          ? "Nothing is short for these orders."
          : `To be bought for these orders${total ? `, ${total} for what has a price` : ""}`}{" "}
        <a className="no-print underline underline-offset-4" href={SHOPPING_ADDRESS} download>
          CSV
        </a>
      </h2>
      {left_out.map((each) => (
        <p key={each} className="text-body text-rosy">
          {each}
        </p>
      ))}
      {deliveries.map((each) => (
        <p key={each.supplier} className="text-body">
          With delivery by {each.supplier}: {signed(each.fee)} {each.currency}.
        </p>
      ))}
      <ul className="columns-2 gap-x-12 text-body max-[900px]:columns-1">
        {items.map((line) => (
          <li key={line.ingredient} className="flex flex-wrap gap-x-4 border-b-[0.9px] border-ink py-1">
            <span className="w-44 font-medium">{line.name}</span>
            <span className="w-40">
              {sayMass(line.short_g)} {line.on_hand_g === null ? "(not counted)" : "short"}
            </span>
            <span>
              {line.packs.length === 0
                ? "never bought in a priced pack"
                : line.packs
                    .map(
                      (each) =>
                        `${each.packs} × ${sayMass(each.pack_g)}${each.supplier ? `, ${each.supplier}` : ""}: ${signed(each.cost)} ${each.currency}`,
                    )
                    .join("; ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
