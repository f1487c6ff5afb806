import type { Evaluation, IngredientSummary } from "../../api";
import type { Draft } from "../formulas";

type Product = Draft["product"];
type Certificate = Product["certificates"][string];

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onChange: (patch: Partial<Product>) => void;
}

const EMPTY: Certificate = { limit_pct: null, category: null, flash_c: null, allergens: {} };

/** The certificate of each scent: without one its limit is not known. */
export function ScentPapers({ draft, evaluation, ingredients, onChange }: Props) {
  const used = new Set((evaluation?.lines ?? []).map((line) => line.ingredient));
  const scents = [...used].filter((id) => ingredients.get(id)?.role === "fragrance");
  if (scents.length === 0) return null;
  const set = (id: string, patch: Partial<Certificate>) =>
    onChange({
      certificates: {
        ...draft.product.certificates,
        [id]: { ...EMPTY, ...draft.product.certificates[id], ...patch },
      },
    });
  return (
    <section className="pt-6" aria-label="Certificates of the scents">
      <h2 className="text-row italic text-soft">Certificates of the scents</h2>
      {scents.map((id) => {
        const paper = draft.product.certificates[id] ?? EMPTY;
        const name = ingredients.get(id)?.short_name ?? id;
        return (
          <fieldset key={id} className="border-b-[0.9px] border-ink py-2">
            <legend className="float-left w-44 text-body font-bold">{name}</legend>
            <div className="flex flex-wrap gap-x-5 gap-y-1 text-body">
              <Figure
                label="limit"
                unit="%"
                name={`Limit of ${name}`}
                value={paper.limit_pct}
                most={100}
                onChange={(limit_pct) => set(id, { limit_pct })}
              />
              <Figure
                label="flash point"
                unit="°C"
                name={`Flash point of ${name}`}
                value={paper.flash_c}
                most={400}
                onChange={(flash_c) => set(id, { flash_c })}
              />
              <label className="text-soft">
                category{" "}
                <input
                  aria-label={`Category of ${name}`}
                  className="written w-12 text-ink"
                  maxLength={6}
                  defaultValue={paper.category ?? ""}
                  onBlur={(event) => set(id, { category: event.target.value.trim() || null })}
                />
              </label>
              <label className="w-full text-soft">
                allergens, % of the scent{" "}
                <input
                  aria-label={`Allergens of ${name}`}
                  className="written w-72 text-ink"
                  placeholder="Linalool 12, Limonene 4"
                  defaultValue={Object.entries(paper.allergens)
                    .map(([each, pct]) => `${each} ${pct}`)
                    .join(", ")}
                  onBlur={(event) => set(id, { allergens: readAllergens(event.target.value) })}
                />
              </label>
            </div>
          </fieldset>
        );
      })}
    </section>
  );
}

function Figure({
  label,
  unit,
  name,
  value,
  most,
  onChange,
}: {
  label: string;
  unit: string;
  name: string;
  value: number | null;
  most: number;
  onChange: (value: number | null) => void;
}) {
  return (
    <label className="text-soft">
      {label}{" "}
      <input
        aria-label={name}
        className="written w-14 text-right text-ink"
        inputMode="decimal"
        defaultValue={value === null ? "" : String(value)}
        onBlur={(event) => {
          const typed = event.target.value.trim().replace(",", ".");
          const number = Number(typed);
          if (typed === "") onChange(null);
          else if (Number.isFinite(number) && number >= 0 && number <= most) onChange(number);
          else event.target.value = value === null ? "" : String(value);
        }}
      />{" "}
      {unit}
    </label>
  );
}

/** "Linalool 12, Limonene 4" as shares; what cannot be read is left out. */
function readAllergens(text: string): Record<string, number> {
  const found: Record<string, number> = {};
  for (const part of text.split(/[,;]\s+|;\s*/)) {
    const match = /^(.+?)\s+(\d+(?:[.,]\d+)?)\s*%?$/.exec(part.trim());
    if (match?.[1] && match[2]) found[match[1]] = Math.min(100, Number(match[2].replace(",", ".")));
  }
  return found;
}
