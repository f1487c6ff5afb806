import type { Evaluation } from "../../api";
import { massUnit } from "../../lib/units";
import { Dialog } from "../../ui";
import type { Draft } from "../draft";
import { Inline } from "../lines";
import { Choice, type Patch, Sentence } from "./settingParts";
import { BatchSentence, RoomSentence, TubSentence } from "./settingSentences";

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  onClose: () => void;
}

const PACKINGS = [
  ["loose", "loose"],
  ["hand", "by hand"],
  ["press", "hard, in a press"],
  ["dough", "as a dough"],
  ["poured", "poured"],
] as const;

/** How it is made, used and paid for: whatever the readings assume, in sentences. */
export function SettingSheet({ draft, evaluation, change, onClose }: Props) {
  const { piece, use } = draft;
  const assumed = evaluation?.assumed;
  const patch: Patch = (key, part) =>
    change((before) => ({ ...before, [key]: { ...before[key], ...part } }), `${key}.${Object.keys(part)[0]}`);
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="How it is made, used and paid for"
      lead="What stands there unchanged is what the method does; type over it where yours differs."
    >
      <div className="pt-4 text-row leading-9">
        <Sentence title="The piece">
          weighs{" "}
          <Inline
            label="Mass of one piece in grams"
            unit="g"
            value={piece.mass_g}
            assumed={assumed?.piece_mass_g}
            onChange={(mass_g) => patch("piece", { mass_g })}
          />{" "}
          {massUnit()}, is{" "}
          <Inline
            label="Half thickness in millimetres"
            value={piece.half_thickness_mm}
            assumed={assumed?.half_thickness_mm}
            onChange={(half_thickness_mm) => patch("piece", { half_thickness_mm })}
          />{" "}
          mm from skin to heart and packed{" "}
          <Choice
            label="How it is packed"
            value={piece.packing}
            assumed={assumed?.packing}
            options={PACKINGS}
            onChange={(packing) => patch("piece", { packing: packing as typeof piece.packing })}
          />
          .
        </Sentence>
        <TubSentence use={use} assumed={assumed} patch={patch} />
        <RoomSentence draft={draft} patch={patch} />
        <BatchSentence draft={draft} evaluation={evaluation} change={change} patch={patch} />
      </div>
    </Dialog>
  );
}
