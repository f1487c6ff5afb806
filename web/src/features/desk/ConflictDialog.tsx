import type { FormulaAnswer } from "../../api";
import { Button, Dialog } from "../../ui";
import type { Draft } from "../draft";

interface Props {
  mine: Draft;
  theirs: FormulaAnswer;
  onMine: (theirs: FormulaAnswer) => void;
  onTheirs: (theirs: FormulaAnswer) => void;
}

/** Two tabs changed one formula: both sides, and a choice. */
export function ConflictDialog({ mine, theirs, onMine, onTheirs }: Props) {
  return (
    <Dialog
      open
      onOpenChange={() => undefined}
      title="Changed in another tab"
      lead="This formula was saved elsewhere since you opened it here. Nothing is lost yet: choose which one goes on."
    >
      <div className="mt-5 grid grid-cols-2 gap-8">
        <Side title="Here" lines={mine.portions.flatMap((portion) => portion.lines)} name={mine.name}>
          <Button primary onClick={() => onMine(theirs)}>
            Go on with this
          </Button>
        </Side>
        <Side
          title="In the other tab"
          lines={theirs.formula.portions.flatMap((portion) => portion.lines)}
          name={theirs.formula.name}
        >
          <Button onClick={() => onTheirs(theirs)}>Go on with that</Button>
        </Side>
      </div>
    </Dialog>
  );
}

function Side({
  title,
  name,
  lines,
  children,
}: {
  title: string;
  name: string;
  lines: readonly { ingredient: string | null; text: string; amount: string; unit: string }[];
  children: React.ReactNode;
}) {
  return (
    <section aria-label={title}>
      <h3 className="text-label italic text-soft">{title}</h3>
      <p className="text-reading">{name}</p>
      <ul className="my-3">
        {lines.map((line, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: shown once, never reordered
          <li key={index} className="flex justify-between border-b-[0.9px] border-ink py-1 text-label">
            <span>{line.ingredient ?? line.text}</span>
            <span>
              {line.amount} {line.unit}
            </span>
          </li>
        ))}
      </ul>
      {children}
    </section>
  );
}
