import type { PracticeAct, PracticeRun } from "../../api";
import { fixed } from "../../lib/numbers";
import { Press } from "../bench";
import { TextureTile } from "./TextureTile";

interface Props {
  run: PracticeRun;
  onDo: (what: PracticeAct) => void;
}

/** The handful as the eye meets it, without a word for it, and what a real bowl needs no button for. */
export function Hand({ run, onDo }: Props) {
  const last = run.felt.at(-1);
  const did =
    (kind: PracticeAct["kind"], value = 0) =>
    () =>
      onDo({ kind, value, ingredient: "", word: "" });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-6 max-[900px]:grid-cols-1">
      <div>
        {last ? (
          <div className={`max-w-[330px] ${run.fresh ? "" : "opacity-50"}`}>
            <TextureTile state={last.state} seed={String(last.minutes)} />
          </div>
        ) : (
          <p className="text-bench-note text-soft">{run.story}</p>
        )}
        <p className="text-bench-key" role="status">
          {last === undefined
            ? "The bowl is weighed and mixed as its sheet says."
            : run.fresh
              ? "In the hand, and dropped beside it. What is it?"
              : `That was at ${fixed(last.minutes, 1, true)} min; squeeze another.`}
        </p>
      </div>
      <div className="flex flex-col gap-2">
        <div className="flex">
          <Press next={!run.fresh} onClick={did("feel")}>
            Squeeze a handful
          </Press>
        </div>
        <div className="grid grid-cols-4 gap-2">
          {(["mix", "rest"] as const).flatMap((kind) =>
            (kind === "mix" ? [1, 3] : [5, 10]).map((minutes) => (
              <button
                key={`${kind}${minutes}`}
                type="button"
                className="min-h-12 border-t-2 border-ink bg-lit px-2 text-bench-key font-semibold"
                onClick={did(kind, minutes)}
              >
                {kind === "mix" ? "Mix" : "Rest"} {minutes} min
              </button>
            )),
          )}
        </div>
        <p className="text-bench-key">
          {run.hint ? (
            <i>{run.hint}</i>
          ) : (
            <button type="button" className="min-h-12 border-b border-ink" onClick={did("hint")}>
              A hint, for {fixed(run.hint_costs, 0)} points
            </button>
          )}
        </p>
      </div>
    </div>
  );
}
