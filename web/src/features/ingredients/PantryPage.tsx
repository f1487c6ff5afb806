import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { type IngredientSummary, messageOf, useIngredients } from "../../api";
import { markOf } from "../../lib/grains";
import { searchIngredients } from "../../lib/searchIngredients";
import { GrainKey } from "../../ui";
import { IngredientSheet } from "./IngredientSheet";

const SHELVES: readonly { label: string; roles: readonly string[] }[] = [
  { label: "Own", roles: [] },
  { label: "Soda and acids", roles: ["base", "acid"] },
  { label: "Surfactants", roles: ["surfactant"] },
  { label: "Starch, clay, milk, salt", roles: ["starch", "clay", "milk", "salt", "additive"] },
  { label: "Butters, oils, waxes", roles: ["butter", "oil", "wax"] },
  { label: "Binders and emulsifiers", roles: ["humectant", "emulsifier", "binder", "preservative"] },
  { label: "Scent", roles: ["fragrance"] },
  { label: "Colour and decoration", roles: ["colorant", "decoration"] },
];
const EVERYTHING = 1000;

/** The Pantry: shelves of ingredients on the left, the one in hand on the right. */
export function PantryPage() {
  const { ingredientId } = useParams();
  const { data, error } = useIngredients();
  const [search, setSearch] = useState("");
  const navigate = useNavigate();
  const all = data?.ingredients ?? [];
  const shelves = useMemo(
    () => shelve(search ? searchIngredients(all, search, EVERYTHING) : all),
    [all, search],
  );
  const first = shelves[0]?.items[0];
  // Enter may be faster than the shelves: it is kept until they are there.
  const [entered, setEntered] = useState(false);
  useEffect(() => {
    if (!entered || !data) return;
    setEntered(false);
    if (first) void navigate(`/pantry/${first.id}`);
  }, [entered, data, first, navigate]);
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(300px,420px)_minmax(0,1fr)] gap-x-14 pl-14 pr-9 max-[900px]:grid-cols-1">
      <div className="flex h-[calc(100vh-44px)] flex-col pt-2">
        <h1>Pantry</h1>
        <p className="text-row text-soft">
          {data
            ? `${all.length} ingredients, ${all.filter((item) => item.own).length} of your own.`
            : "Opening…"}{" "}
          <Link className="underline underline-offset-4" to="/pantry/lots">
            The jars
          </Link>
        </p>
        <input
          type="search"
          aria-label="Search ingredients"
          placeholder="Name, everyday name or INCI"
          className="written mt-3 py-1 text-row placeholder:text-soft"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") setEntered(true);
          }}
        />
        {error && <p className="pt-4 text-reading text-rosy">{messageOf(error)}</p>}
        <section
          className="min-h-0 flex-1 overflow-y-auto pb-8"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
          tabIndex={0}
          aria-label="Shelves"
        >
          {shelves.map((shelf) => (
            <section key={shelf.label} aria-label={shelf.label}>
              <h2 className="pt-4 text-label italic text-soft">{shelf.label}</h2>
              <ul>
                {shelf.items.map((item) => (
                  <li key={item.id}>
                    <Link
                      to={`/pantry/${item.id}`}
                      aria-current={item.id === ingredientId ? "true" : undefined}
                      className="grid min-h-9 grid-cols-[32px_minmax(0,1fr)_auto] items-center gap-x-2 border-b-[0.9px] border-ink hover:bg-lit aria-[current]:border-b-2 aria-[current]:font-bold"
                    >
                      <GrainKey mark={markOf(item)} seed={item.id} />
                      <span className="truncate text-row">{item.short_name}</span>
                      <span className="text-caption font-medium text-soft">
                        {item.price_per_kg === null
                          ? "no price"
                          : `${item.price_basis === "studio" ? "" : "about "}${item.price_per_kg} a kg`}
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          ))}
          {data && shelves.length === 0 && (
            <p className="pt-4 text-body text-soft">Nothing on the shelves is called "{search}".</p>
          )}
        </section>
      </div>
      {ingredientId ? (
        <IngredientSheet key={ingredientId} id={ingredientId} />
      ) : (
        <p className="pt-16 text-reading text-soft">
          Take an ingredient from the shelf to see what is known of it.
        </p>
      )}
    </div>
  );
}

function shelve(items: readonly IngredientSummary[]) {
  return SHELVES.map(({ label, roles }) => ({
    label,
    items: items.filter((item) => (label === "Own" ? item.own : !item.own && roles.includes(item.role))),
  })).filter((shelf) => shelf.items.length > 0);
}
