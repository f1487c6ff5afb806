import type { Evaluation } from "../../api";
import { grams } from "../../lib/numbers";
import { BowlSmall } from "../../ui";
import type { Draft } from "./draft";

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  inHand: number;
  onChoose: (portion: number) => void;
}

/** The portions as small bowls; the big one shows the portion in hand. */
export function PortionTabs({ draft, evaluation, inHand, onChoose }: Props) {
  if (draft.portions.length < 2) return null;
  return (
    <div role="tablist" aria-label="Portions" className="flex gap-6 pt-3">
      {draft.portions.map((portion, index) => {
        const read = evaluation?.portions[index];
        return (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: a portion is known by its place
            key={index}
            type="button"
            role="tab"
            aria-selected={index === inHand}
            className="flex items-end gap-2 pb-1 text-left text-label aria-selected:border-b-2 aria-selected:border-ink aria-selected:font-bold"
            onClick={() => onChoose(index)}
          >
            <BowlSmall saturation={read?.dough?.saturation ?? null} />
            <span>
              {portion.name}
              <span className="block text-hint font-medium text-soft">
                {read ? `${grams(read.mass_g)} g, ${read.dough?.state ?? "empty"}` : ""}
              </span>
            </span>
          </button>
        );
      })}
    </div>
  );
}
