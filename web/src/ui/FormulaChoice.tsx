import { useState } from "react";
import { useFormulas } from "../api";
import { useSettled } from "../lib/useSettled";
import { Field } from "./Field";

interface Props {
  /** Number of the formula as text; empty for none. */
  value: string;
  onChoose: (formula: string) => void;
  /** What it is where no formula is chosen. */
  none: string;
}

/** A formula of the studio by its name, or none: those changed last are offered until something is typed. */
export function FormulaChoice({ value, onChoose, none }: Props) {
  const [search, setSearch] = useState("");
  const formulas = useFormulas(useSettled(search.trim()));
  return (
    <>
      <Field
        className="w-80"
        label="Find the formula"
        placeholder="its name; else those changed last"
        value={search}
        maxLength={200}
        onChange={(event) => setSearch(event.target.value)}
      />
      <label className="text-caption italic text-soft">
        Formula
        <select
          aria-label="Formula"
          className="written ml-2 text-row not-italic text-ink"
          value={value}
          onChange={(event) => onChoose(event.target.value)}
        >
          <option value="">{none}</option>
          {formulas.data?.pages[0]?.formulas.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}
