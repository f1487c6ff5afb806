import type { RecipeAnswer } from "../../api";

interface Props {
  read: RecipeAnswer | null;
  dropped: number;
  onBringBack: () => void;
}

/** What does not come along: lines left out by hand, instructions, and how many pieces the recipe says. */
export function LeftAside({ read, dropped, onBringBack }: Props) {
  return (
    <>
      {dropped > 0 && (
        <p className="pt-3 text-label text-soft">
          {dropped} left out.{" "}
          <button type="button" className="border-b border-ink text-ink" onClick={onBringBack}>
            Bring back
          </button>
        </p>
      )}
      {read?.pieces && (
        <p className="pt-3 text-label text-soft">
          It says it makes {read.pieces} pieces: the Plan opens with {read.pieces}.
        </p>
      )}
      {read && read.aside.length > 0 && (
        <details className="pt-3 text-label text-soft">
          <summary>
            {read.aside.length} {read.aside.length === 1 ? "line" : "lines"} of instructions left aside
          </summary>
          <ul className="pl-4 pt-1">
            {read.aside.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
