import { type Evaluation, useUsual } from "../../api";
import { massFigure } from "../../lib/numbers";
import { massUnit, temperatureUnit } from "../../lib/units";
import type { Draft } from "../draft";
import { Inline } from "../lines";

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  onSettings: () => void;
}

/** Under the lines: the sum, the piece, the dose and the tub. */
export function PieceLine({ draft, evaluation, change, onSettings }: Props) {
  const assumed = evaluation?.assumed;
  const usual = useUsual();
  if (!usual) return null;
  return (
    <div className="flex items-end justify-between gap-4 pt-2">
      <p className="text-row leading-8">
        Pieces of{" "}
        <Inline
          label="Mass of a piece in grams"
          unit="g"
          value={draft.piece.mass_g}
          assumed={assumed?.piece_mass_g}
          onChange={(mass_g) =>
            change((before) => ({ ...before, piece: { ...before.piece, mass_g } }), "piece")
          }
        />{" "}
        {massUnit()},{" "}
        <Inline
          label="Grams used in one bath"
          unit="g"
          value={draft.use.dose_g}
          assumed={assumed?.dose_g}
          onChange={(dose_g) => change((before) => ({ ...before, use: { ...before.use, dose_g } }), "dose")}
        />{" "}
        {massUnit()}
        <br />
        per bath of{" "}
        <Inline
          label="Litres in the tub"
          value={draft.use.tub_l}
          assumed={assumed?.tub_l}
          onChange={(litres) =>
            change(
              (before) => ({ ...before, use: { ...before.use, tub_l: litres ?? usual.use.tub_l } }),
              "tub",
            )
          }
        />{" "}
        L, room{" "}
        <Inline
          label="Room temperature in degrees Celsius"
          unit="°C"
          value={draft.room.temperature_c}
          assumed={assumed?.room_c}
          onChange={(degrees) =>
            change(
              (before) => ({
                ...before,
                room: { ...before.room, temperature_c: degrees ?? usual.room.temperature_c },
              }),
              "room",
            )
          }
        />{" "}
        {temperatureUnit()}{" "}
        <button type="button" className="border-b border-ink text-caption" onClick={onSettings}>
          and more
        </button>
      </p>
      <p className="whitespace-nowrap">
        <span className="text-title font-[350]" data-reading="mass_g">
          {evaluation ? massFigure(evaluation.mass_g) : "–"}
        </span>{" "}
        <span className="text-reading">{massUnit()}</span>
      </p>
    </div>
  );
}
