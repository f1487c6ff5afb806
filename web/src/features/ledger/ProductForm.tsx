import { KeptNumber } from "../../ui";
import type { Draft } from "../draft";

type Product = Draft["product"];

interface Props {
  product: Product;
  onChange: (patch: Partial<Product>) => void;
}

const MARKETS = ["US", "EU", "UK"] as const;
const FLAGS: readonly [
  keyof Product &
    ("adult_only_label" | "child_appeal" | "looks_like_food" | "leave_on_use" | "multi_use" | "single_use"),
  string,
][] = [
  ["adult_only_label", "labelled for adults alone"],
  ["child_appeal", "looks or sounds made for children"],
  ["looks_like_food", "can be taken for food"],
  ["leave_on_use", "also meant to stay on the skin"],
  ["multi_use", "used more than once"],
  ["single_use", "one pack is one bath"],
];
const LABEL_PARTS: readonly [string, string][] = [
  ["identity", "what it is"],
  ["net_inch_pound", "net weight, oz"],
  ["net_metric", "net weight, g"],
  ["ingredients", "ingredient list"],
  ["name_place", "name and place"],
  ["ae_contact", "contact for bad reactions"],
  ["directions", "directions"],
  ["caution_740_17", "US foaming-bath caution"],
  ["rp", "responsible person"],
  ["batch", "batch number"],
  ["function", "function"],
  ["precautions", "precautions"],
  ["best_before", "best before"],
];
const PAPERS: readonly [string, string][] = [
  ["safety_substantiation", "safety support"],
  ["cpsr", "signed safety report"],
  ["pif", "product information file"],
  ["notification", "notification"],
  ["surfactant_impurity_spec", "surfactant impurities"],
  ["dioxane_statement", "dioxane statement"],
  ["aw_or_challenge_test", "water activity or challenge test"],
  ["food_imitation_assessment", "food look-alike assessment"],
  ["trademark_check", "name searched"],
];

/** What the rules ask of the product beside the recipe. */
export function ProductForm({ product, onChange }: Props) {
  const toggle = (list: readonly string[], name: string, on: boolean) =>
    on ? [...list, name] : list.filter((each) => each !== name);
  return (
    <section className="pt-6 text-body" aria-label="The product">
      <h2 className="text-row italic text-soft">The product</h2>
      <p className="flex flex-wrap gap-x-6 pt-1">
        {MARKETS.map((market) => (
          <Tick
            key={market}
            label={`sold in the ${market}`}
            on={product.markets.includes(market)}
            onChange={(on) =>
              onChange({ markets: toggle(product.markets, market, on) as Product["markets"] })
            }
          />
        ))}
      </p>
      <p className="flex flex-wrap gap-x-8 gap-y-1 pt-2">
        <label>
          Lines of the{" "}
          <select
            aria-label="Profile of the ledger"
            className="written"
            value={product.profile}
            onChange={(event) => onChange({ profile: event.target.value as Product["profile"] })}
          >
            {["adult", "family", "sensitive", "children"].map((each) => (
              <option key={each} value={each}>
                {each}
              </option>
            ))}
          </select>{" "}
          profile
        </label>
        <label>
          Youngest user{" "}
          <KeptNumber
            label="Youngest user in months"
            whole
            className="w-14 text-right"
            value={product.youngest_user_months}
            least={0}
            most={1440}
            onKeep={(youngest_user_months) => onChange({ youngest_user_months })}
          />{" "}
          months
        </label>
        <label>
          Foam is{" "}
          <select
            aria-label="Whether foam is meant"
            className="written"
            value={product.intended_foam === null ? "" : String(product.intended_foam)}
            onChange={(event) =>
              onChange({ intended_foam: event.target.value === "" ? null : event.target.value === "true" })
            }
          >
            <option value="">not said</option>
            <option value="true">meant</option>
            <option value="false">not meant</option>
          </select>
        </label>
      </p>
      <Ticks
        title="It is"
        list={FLAGS}
        on={(name) => Boolean(product[name as keyof Product])}
        onChange={(name, on) => onChange({ [name]: on } as Partial<Product>)}
      />
      <Ticks
        title="On the label"
        list={LABEL_PARTS}
        on={(name) => product.label.includes(name)}
        onChange={(name, on) => onChange({ label: toggle(product.label, name, on) })}
      />
      <Ticks
        title="On file"
        list={PAPERS}
        on={(name) => product.records.includes(name)}
        onChange={(name, on) => onChange({ records: toggle(product.records, name, on) })}
      />
    </section>
  );
}

function Ticks({
  title,
  list,
  on,
  onChange,
}: {
  title: string;
  list: readonly (readonly [string, string])[];
  on: (name: string) => boolean;
  onChange: (name: string, on: boolean) => void;
}) {
  return (
    <fieldset className="pt-3">
      <legend className="text-label italic text-soft">{title}</legend>
      <div className="grid grid-cols-2 gap-x-6">
        {list.map(([name, words]) => (
          <Tick key={name} label={words} on={on(name)} onChange={(value) => onChange(name, value)} />
        ))}
      </div>
    </fieldset>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-6 items-baseline gap-2">
      <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  );
}
