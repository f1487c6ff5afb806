import { useState } from "react";
import type { Batch, Happening } from "../../api";
import { readTyped, typedOf, unitShown } from "../../lib/units";
import { Button, Field, NumberInput } from "../../ui";

const FIGURES = [
  ["pieces_good", "Pieces good", ""],
  ["pieces_spoiled", "Pieces spoiled", ""],
  ["tub_dose_g", "Tried in a tub: dose", "g"],
  ["tub_l", "in a tub of", "L"],
  ["foam_height_cm", "foam stood", "cm"],
] as const;

/** A stored moment as the field for day and hour wants it: the maker's own clock. */
function toLocal(stored: unknown): string {
  if (typeof stored !== "string") return "";
  const moment = new Date(stored);
  return new Date(moment.getTime() - moment.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** What became of it: when it was dry, what was good, how it did in a first tub. */
export function Outcome({ batch, act }: { batch: Batch; act: (event: Happening) => Promise<boolean> }) {
  const known = batch.state.outcome as Record<string, unknown>;
  const [figures, setFigures] = useState<Record<string, string>>(() =>
    Object.fromEntries(
      FIGURES.map(([name, , unit]) => [
        name,
        typeof known[name] === "number" ? typedOf(known[name], unit) : "",
      ]),
    ),
  );
  const [dry, setDry] = useState(() => toLocal(known.dry_at));
  const [remarks, setRemarks] = useState(String(known.remarks ?? ""));
  const [refused, setRefused] = useState("");
  const onKeep = async () => {
    const event: Record<string, unknown> = { kind: "outcome" };
    for (const [name, label, unit] of FIGURES) {
      const value = readTyped(figures[name] ?? "", unit);
      if (value === null) continue;
      const whole = name.startsWith("pieces");
      if (!Number.isFinite(value) || value < 0 || (whole && !Number.isInteger(value)))
        return setRefused(`${label} must be a ${whole ? "whole " : ""}number, or empty.`);
      event[name] = value;
    }
    if (dry) event.dry_at = new Date(dry).toISOString();
    if (remarks.trim()) event.remarks = remarks.trim();
    setRefused("");
    await act(event as Happening);
  };
  return (
    <section aria-label="What became of it" className="no-print pt-6">
      <h2 className="text-row italic text-soft">What became of it</h2>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <label className="text-caption italic text-soft">
          Dry on
          <NumberInput
            type="datetime-local"
            className="block text-row not-italic text-ink"
            value={dry}
            onChange={(event) => setDry(event.target.value)}
          />
        </label>
        {FIGURES.map(([name, label, unit]) => (
          <Field
            key={name}
            className="w-36"
            label={label}
            after={unitShown(unit)}
            value={figures[name] ?? ""}
            onChange={(event) => setFigures({ ...figures, [name]: event.target.value })}
          />
        ))}
        <Field
          className="w-96"
          label="Remarks"
          maxLength={2000}
          value={remarks}
          onChange={(event) => setRemarks(event.target.value)}
        />
        <Button onClick={() => void onKeep()}>Write it down</Button>
      </div>
      {refused && (
        <p role="alert" className="text-body text-rosy">
          {refused}
        </p>
      )}
    </section>
  );
}
