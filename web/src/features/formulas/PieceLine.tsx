import { useEffect, useState } from "react";
import type { Evaluation } from "../../api";
import { figure, grams } from "../../lib/numbers";
import type { Draft } from "./draft";

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
}

/** Under the lines: the sum, the piece, the dose and the tub. */
export function PieceLine({ draft, evaluation, change }: Props) {
  const assumed = evaluation?.assumed;
  return (
    <div className="flex items-end justify-between gap-4 pt-2">
      <p className="text-row leading-8">
        Pieces of{" "}
        <Inline
          label="Mass of a piece in grams"
          value={draft.piece.mass_g}
          assumed={assumed?.piece_mass_g}
          onChange={(mass_g) =>
            change((before) => ({ ...before, piece: { ...before.piece, mass_g } }), "piece")
          }
        />{" "}
        g,{" "}
        <Inline
          label="Grams used in one bath"
          value={draft.use.dose_g}
          assumed={assumed?.dose_g}
          onChange={(dose_g) => change((before) => ({ ...before, use: { ...before.use, dose_g } }), "dose")}
        />{" "}
        g
        <br />
        per bath of{" "}
        <Inline
          label="Litres in the tub"
          value={draft.use.tub_l}
          assumed={assumed?.tub_l}
          onChange={(litres) =>
            change((before) => ({ ...before, use: { ...before.use, tub_l: litres ?? 150 } }), "tub")
          }
        />{" "}
        L, room{" "}
        <Inline
          label="Room temperature in degrees Celsius"
          value={draft.room.temperature_c}
          assumed={assumed?.room_c}
          onChange={(degrees) =>
            change(
              (before) => ({ ...before, room: { ...before.room, temperature_c: degrees ?? 21 } }),
              "room",
            )
          }
        />{" "}
        °C
      </p>
      <p className="whitespace-nowrap">
        <span className="text-title font-[350]" data-reading="mass_g">
          {evaluation ? grams(evaluation.mass_g) : "–"}
        </span>{" "}
        <span className="text-reading">g</span>
      </p>
    </div>
  );
}

interface InlineProps {
  label: string;
  value: number | null;
  assumed: number | undefined;
  onChange: (value: number | null) => void;
}

/** A number in a sentence. What the method assumes stands there until something is typed. */
function Inline({ label, value, assumed, onChange }: InlineProps) {
  const [text, setText] = useState(value === null ? "" : String(value));
  useEffect(() => {
    setText((before) =>
      Number(before.replace(",", ".")) === value ? before : value === null ? "" : String(value),
    );
  }, [value]);
  const parsed = Number(text.replace(",", "."));
  const bad = text.trim() !== "" && !(Number.isFinite(parsed) && parsed > 0);
  return (
    <input
      aria-label={label}
      aria-invalid={bad || undefined}
      inputMode="decimal"
      className="written w-11 text-center text-row font-semibold placeholder:font-medium placeholder:text-ink"
      placeholder={assumed === undefined ? "" : figure(assumed)}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        const next = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() === "") onChange(null);
        else if (Number.isFinite(next) && next > 0) onChange(next);
      }}
    />
  );
}
