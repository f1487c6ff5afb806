import type { LabelFacts } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { massUnit, readTyped } from "../../lib/units";
import { Field } from "../../ui";

/** What is typed of a label; empty takes what the batch, the last label or the settings say. */
export interface TypedFacts {
  name: string;
  scent_name: string;
  identity: string;
  net: string;
  batch_code: string;
  best_before: string;
  pao: string;
  directions: string;
  second_text: string;
  best_before_reason: string;
  responsible_eu: string;
  responsible_uk: string;
  origin: string;
  languages: string;
  confirmed: string;
}

export const NOTHING_TYPED: TypedFacts = {
  name: "",
  scent_name: "",
  identity: "",
  net: "",
  batch_code: "",
  best_before: "",
  pao: "",
  directions: "",
  second_text: "",
  best_before_reason: "",
  responsible_eu: "",
  responsible_uk: "",
  origin: "",
  languages: "",
  confirmed: "",
};

type Language = NonNullable<LabelFacts["languages"]>[number];
const LANGUAGES: readonly Language[] = [
  "en",
  "de",
  "fr",
  "es",
  "it",
  "nl",
  "pl",
  "pt",
  "sv",
  "da",
  "fi",
  "cs",
  "el",
];

/** "pl, el" as languages; what is none of them is left out. */
function languagesIn(text: string): Language[] | null {
  const found = text
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter((each): each is Language => LANGUAGES.includes(each as Language));
  return found.length > 0 ? found : null;
}

/** The typed facts as they are asked for; what is no number counts as not typed, and is marked in its field. */
export function factsOf(typed: TypedFacts): LabelFacts {
  const positive = (value: number | null) => (value !== null && value > 0 ? value : null);
  return {
    name: typed.name.trim() || null,
    scent_name: typed.scent_name.trim() || null,
    identity: typed.identity.trim() || null,
    net_g: positive(readTyped(typed.net, "g")),
    maker: null,
    place: null,
    contact: null,
    batch_code: typed.batch_code.trim() || null,
    best_before: typed.best_before || null,
    pao_months: positive(readDecimal(typed.pao)),
    directions: typed.directions.trim() || null,
    second_text: typed.second_text.trim() || null,
    best_before_reason: typed.best_before_reason.trim() || null,
    responsible_person:
      typed.responsible_eu.trim() || typed.responsible_uk.trim()
        ? { EU: typed.responsible_eu.trim() || null, UK: typed.responsible_uk.trim() || null }
        : null,
    origin: typed.origin.trim() || null,
    languages: languagesIn(typed.languages),
    confirmed_languages: languagesIn(typed.confirmed),
    package_panel_mm: null,
  };
}

const FIELDS: readonly [keyof TypedFacts, string, string, string][] = [
  ["name", "Name of the product", "w-60", "text"],
  ["scent_name", "Name of the scent", "w-48", "text"],
  ["identity", "What it is, in plain words", "w-72", "text"],
  ["net", "Net weight of a dried piece", "w-48", "text"],
  ["batch_code", "Batch", "w-40", "text"],
  ["best_before", "Best before", "w-40", "date"],
  ["pao", "Months after opening", "w-44", "text"],
  ["directions", "Directions, if not by the dose", "w-[420px]", "text"],
  ["best_before_reason", "Why it keeps longer than its materials, if it does", "w-80", "text"],
  ["responsible_eu", "Responsible person in the EU", "w-64", "text"],
  ["responsible_uk", "Responsible person in the UK", "w-64", "text"],
  ["origin", "Country of origin, for an import", "w-52", "text"],
  ["languages", "Languages in the EU (pl, el, de …)", "w-52", "text"],
  ["confirmed", "Confirmed by a native reader (pl …)", "w-56", "text"],
  ["second_text", "A second language, as you have it translated", "w-[420px]", "text"],
];

export function FactsForm({
  typed,
  said,
  onType,
}: {
  typed: TypedFacts;
  /** What counts where nothing is typed. */
  said: LabelFacts | undefined;
  onType: (some: Partial<TypedFacts>) => void;
}) {
  const known: Partial<Record<keyof TypedFacts, string>> = {
    name: said?.name ?? "",
    scent_name: said?.scent_name ?? "",
    identity: said?.identity ?? "",
    net: said?.net_g ? String(Number(said.net_g.toFixed(1))) : "",
    batch_code: said?.batch_code ?? "",
    best_before: said?.best_before ?? "",
    directions: said?.directions ?? "",
    second_text: said?.second_text ?? "",
  };
  return (
    <form
      className="no-print flex flex-wrap gap-x-6 gap-y-2 pt-3"
      onSubmit={(event) => event.preventDefault()}
    >
      {FIELDS.map(([name, label, width, type]) => (
        <Field
          key={name}
          className={width}
          label={
            type === "date" && known[name] && !typed[name] ? `${label} (${known[name]} by the batch)` : label
          }
          type={type}
          after={name === "net" ? massUnit() : undefined}
          placeholder={known[name] || ""}
          value={typed[name]}
          maxLength={600}
          onChange={(event) => onType({ [name]: event.target.value })}
        />
      ))}
      <p className="w-full text-caption text-soft">
        Everyday names of bath products may be registered marks somewhere: say plainly what it is. Maker,
        place and contact stand in the settings. Nothing here says that a product is safe; local law and a
        licensed assessor decide.
      </p>
    </form>
  );
}
