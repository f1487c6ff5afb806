import { useState } from "react";
import { SHOPPING_ADDRESS, useShoppingList } from "../../api";
import { sayMass } from "../../lib/numbers";
import { signed } from "../../lib/units";
import { StandIns } from "./StandIns";

/** What the open orders lack, in the cheapest packs it was bought in before. */
export function ShoppingList() {
  const list = useShoppingList();
  const [short, setShort] = useState<{ ingredient: string; name: string } | null>(null);
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
          <li
            key={line.ingredient}
            className="grid grid-cols-[8rem_9.5rem_1fr_auto] items-baseline gap-x-3 border-b-[0.9px] border-ink py-1"
          >
            <span className="font-medium">{line.name}</span>
            <span>
              {sayMass(line.short_g)} {line.on_hand_g === null ? "(not counted)" : "short"}
            </span>
            <span>
              {line.packs.length === 0
                ? "no priced pack yet"
                : line.packs
                    .map(
                      (each) =>
                        `${each.packs} × ${sayMass(each.pack_g)}${each.supplier ? `, ${each.supplier}` : ""}: ${signed(each.cost)} ${each.currency}`,
                    )
                    .join("; ")}
            </span>
            <button
              type="button"
              className="no-print min-h-6 border-b border-ink text-caption"
              onClick={() => setShort(line)}
            >
              instead of it?
            </button>
          </li>
        ))}
      </ul>
      {short && <StandIns ingredient={short.ingredient} name={short.name} onClose={() => setShort(null)} />}
    </section>
  );
}
