import type { Certificate } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { unitShown } from "../../lib/units";
import { KeptNumber } from "../../ui";
import { SubstanceSheet } from "./SubstanceSheet";

const EMPTY: Certificate = {
  limit_pct: null,
  category: null,
  amendment: null,
  dated: null,
  issuer: null,
  file: null,
  flash_c: null,
  vanillin_pct: null,
  substances: [],
  allergens: {},
};

interface Props {
  /** What the scent is called, for the labels. */
  name: string;
  paper: Certificate | null;
  onChange: (paper: Certificate) => void;
}

/** What stands on a scent's certificate; a figure left empty is not known. */
export function CertificateFields({ name, paper, onChange }: Props) {
  const now = { ...EMPTY, ...paper };
  const set = (patch: Partial<Certificate>) => onChange({ ...now, ...patch });
  return (
    <div className="flex flex-wrap gap-x-5 gap-y-1 text-body">
      <Figure
        label="limit"
        unit="%"
        name={`Limit of ${name}`}
        value={now.limit_pct}
        most={100}
        onChange={(limit_pct) => set({ limit_pct })}
      />
      <Figure
        label="flash point"
        unit="°C"
        name={`Flash point of ${name}`}
        value={now.flash_c}
        most={400}
        onChange={(flash_c) => set({ flash_c })}
      />
      <label className="text-soft">
        category{" "}
        <input
          aria-label={`Category of ${name}`}
          className="written w-12 text-ink"
          maxLength={6}
          defaultValue={now.category ?? ""}
          onBlur={(event) => {
            const category = event.target.value.trim() || null;
            if (category !== now.category) set({ category });
          }}
        />
      </label>
      <Written
        label="amendment"
        name={`Amendment of ${name}`}
        value={now.amendment}
        onKeep={(amendment) => set({ amendment })}
      />
      <Written
        label="dated"
        name={`Day of the certificate of ${name}`}
        value={now.dated}
        onKeep={(dated) => set({ dated })}
      />
      <Written
        label="from"
        name={`Issuer of the certificate of ${name}`}
        value={now.issuer}
        onKeep={(issuer) => set({ issuer })}
      />
      <SubstanceSheet name={name} kept={now.substances} onKeep={(substances) => set({ substances })} />
      <label className="w-full text-soft">
        allergens, % of the scent{" "}
        <input
          aria-label={`Allergens of ${name}`}
          className="written w-72 text-ink"
          placeholder="Linalool 12, Limonene 4"
          defaultValue={Object.entries(now.allergens)
            .map(([each, pct]) => `${each} ${pct}`)
            .join(", ")}
          onBlur={(event) => {
            const allergens = readAllergens(event.target.value);
            if (JSON.stringify(allergens) !== JSON.stringify(now.allergens)) set({ allergens });
          }}
        />
      </label>
    </div>
  );
}

function Written({
  label,
  name,
  value,
  onKeep,
}: {
  label: string;
  name: string;
  value: string | null;
  onKeep: (value: string | null) => void;
}) {
  return (
    <label className="text-soft">
      {label}{" "}
      <input
        aria-label={name}
        className="written w-24 text-ink"
        maxLength={120}
        defaultValue={value ?? ""}
        onBlur={(event) => {
          const typed = event.target.value.trim() || null;
          if (typed !== value) onKeep(typed);
        }}
      />
    </label>
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
      <KeptNumber
        label={name}
        className="w-14 text-right text-ink"
        value={value}
        unit={unit}
        least={unit === "°C" ? -50 : 0}
        most={most}
        onKeep={onChange}
      />{" "}
      {unitShown(unit)}
    </label>
  );
}

/** "Linalool 12, Limonene 4" as shares; what cannot be read is left out. */
function readAllergens(text: string): Record<string, number> {
  const found: Record<string, number> = {};
  for (const part of text.split(/[,;]\s+|;\s*/)) {
    const match = /^(.+?)\s+(\d+(?:[.,]\d+)?)\s*%?$/.exec(part.trim());
    if (match?.[1] && match[2]) found[match[1]] = Math.min(100, readDecimal(match[2]) ?? 0);
  }
  return found;
}
