import type { MouseEvent, RefObject } from "react";
import { Link } from "react-router";
import { hairGrams } from "../../lib/hairs";
import { figure, fixed, massFigure, sayMass } from "../../lib/numbers";
import { massUnit } from "../../lib/units";
import { DrawingTools } from "../../ui";
import { useDesk } from "./DeskContext";

const PAGE_WORDS = { ledger: "Skin ledger", curves: "Curves", versions: "Versions" };

/** The keys, what a hair weighs, and the ways on from here. */
export function DeskFoot({ wide, drawing }: { wide: boolean; drawing: RefObject<SVGSVGElement | null> }) {
  const { answer, draft, evaluation, ingredients, leaveTo } = useDesk();
  const onLeave = (event: MouseEvent, path: string) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    void leaveTo(path);
  };
  return (
    <footer className="no-print flex h-10 items-center justify-between pl-14 pr-9 text-caption text-soft">
      <p className="flex gap-6 whitespace-nowrap max-[1199px]:hidden">
        <Hint keys="↑ ↓" word="line" />
        <Hint keys="N" word="new line" />
        <Hint keys="Alt H" word="hold" />
        <Hint keys="Alt S" word="swap" />
        <Hint keys="Alt B" word="rebalance" />
        <Hint keys="Ctrl Z" word="undo" />
      </p>
      <p className="ml-auto flex gap-6 whitespace-nowrap italic max-[640px]:flex-wrap">
        {wide && <span>One hair is {sayMass(hairGrams(evaluation?.mass_g ?? 0))}.</span>}
        <span className="not-italic">
          <DrawingTools
            name={`${draft.name}, the bowl`}
            columns={["Ingredient", massUnit(), "% of the batch", "mL in the bowl"]}
            rows={(evaluation?.lines ?? []).map((line) => [
              ingredients.get(line.ingredient)?.short_name ?? line.ingredient,
              massFigure(line.mass_g),
              fixed(line.pct, 1),
              line.heaped_ml === null ? "not known" : figure(line.heaped_ml),
            ])}
            svg={() => drawing.current}
          />
        </span>
        {(["ledger", "curves", "versions"] as const).map((page) => (
          <Link
            key={page}
            className="border-b border-ink not-italic text-ink"
            to={`/formulas/${answer.id}/${page}`}
            onClick={(event) => onLeave(event, `/formulas/${answer.id}/${page}`)}
          >
            {PAGE_WORDS[page]}
          </Link>
        ))}
        <Link className="border-b border-ink not-italic text-ink" to={`/bench?formula=${answer.id}`}>
          Batches
        </Link>
        <Link className="border-b border-ink not-italic text-ink" to={`/journal?formula=${answer.id}`}>
          Journal
        </Link>
        <Link
          className="border-b border-ink not-italic text-ink"
          to={`/plan/${answer.id}`}
          onClick={(event) => onLeave(event, `/plan/${answer.id}`)}
        >
          Plan a batch
        </Link>
      </p>
    </footer>
  );
}

function Hint({ keys, word }: { keys: string; word: string }) {
  return (
    <span>
      <kbd className="border-b border-ink font-sans text-hint text-ink">{keys}</kbd> {word}
    </span>
  );
}
