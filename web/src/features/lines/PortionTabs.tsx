import type { Evaluation } from "../../api";
import { figure, sayMass } from "../../lib/numbers";
import { BowlSmall, KeptNumber } from "../../ui";
import { type Draft, patchPortion, removePortion } from "../draft";

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  inHand: number;
  onChoose: (portion: number) => void;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
}

/** The portions as small bowls; the big one shows the portion in hand. */
export function PortionTabs({ draft, evaluation, inHand, onChoose, change }: Props) {
  if (draft.portions.length < 2) return null;
  const spin = evaluation?.piece.spin ?? 0;
  return (
    <div className="pt-2">
      <div role="tablist" aria-label="Portions" className="flex flex-wrap gap-x-6">
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
                  {read ? `${sayMass(read.mass_g)}, ${read.dough?.state ?? "empty"}` : ""}
                </span>
              </span>
            </button>
          );
        })}
      </div>
      <PortionInHand
        key={inHand}
        draft={draft}
        inHand={inHand}
        change={change}
        onGone={() => onChoose(Math.max(0, inHand - 1))}
      />
      {spin >= 1 && (
        <p className="text-caption text-soft">
          Two unequal halves: spin {figure(spin)} of 100, ± 25
          {evaluation?.piece.float === "sinks" ? "; it sinks, so it hardly turns" : ""}.
        </p>
      )}
    </div>
  );
}

type Measure = "weighed" | "share" | "mass";

/** Name and size of one portion, and where it is split off. */
function PortionInHand({
  draft,
  inHand,
  change,
  onGone,
}: {
  draft: Draft;
  inHand: number;
  change: Props["change"];
  onGone: () => void;
}) {
  const portion = draft.portions[inHand];
  if (!portion) return null;
  const measure: Measure =
    portion.share_pct !== null ? "share" : portion.mass_g !== null ? "mass" : "weighed";
  const patch = (values: Parameters<typeof patchPortion>[2], field: string) =>
    change((before) => patchPortion(before, inHand, values), `portion${inHand}.${field}`);
  const size = portion.share_pct ?? portion.mass_g;
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-label">
      <input
        aria-label="Name of the portion"
        className="written w-28"
        maxLength={100}
        value={portion.name}
        onChange={(event) => patch({ name: event.target.value }, "name")}
      />
      <select
        aria-label="How large the portion is"
        className="written"
        value={measure}
        onChange={(event) => {
          const next = event.target.value as Measure;
          patch({ share_pct: next === "share" ? 50 : null, mass_g: next === "mass" ? 100 : null }, "measure");
        }}
      >
        <option value="weighed">as its lines weigh</option>
        <option value="share">a share of the batch</option>
        <option value="mass">of its own mass</option>
      </select>
      {measure !== "weighed" && (
        <span>
          <KeptNumber
            label={measure === "share" ? "Share of the batch in per cent" : "Mass of the portion in grams"}
            className="w-14 text-right"
            value={size ?? null}
            least={0.001}
            most={measure === "share" ? 100 : 1e6}
            empty={false}
            onKeep={(value) => patch(measure === "share" ? { share_pct: value } : { mass_g: value }, "size")}
          />{" "}
          {measure === "share" ? "%" : "g"}
        </span>
      )}
      <select
        aria-label="Where the portion is split off"
        className="written"
        value={portion.split ?? ""}
        onChange={(event) => patch({ split: (event.target.value || null) as typeof portion.split }, "split")}
      >
        <option value="">made by itself</option>
        <option value="dry">split off dry</option>
        <option value="wet">split off wet</option>
      </select>
      <button
        type="button"
        className="border-b border-ink"
        onClick={() => {
          change((before) => removePortion(before, inHand));
          onGone();
        }}
      >
        Take it out
      </button>
    </p>
  );
}
