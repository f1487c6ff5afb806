import { useState } from "react";
import { useFeels } from "../../api";
import { figure, sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { FeelTile } from "./FeelTile";
import { OtherAmount } from "./OtherAmount";
import { Back, Press } from "./parts";
import type { StepProps } from "./step";

/** How does it feel? Tiles, then what to do, what it costs. */
export function FeelStep({ batch, step, ingredients, act, onBack, hand, judged = true }: StepProps) {
  const feels = useFeels();
  const answer = batch.feel;
  const [again, setAgain] = useState(false);
  const [other, setOther] = useState(false);
  if (!answer || again)
    return (
      <div className="flex flex-col gap-3">
        {hand ?? (
          <p className="text-bench-word">Squeeze a handful, then let it drop from a hand's breadth.</p>
        )}
        <ul className="grid grid-cols-4 gap-3 max-[900px]:grid-cols-2" aria-label="How does it feel?">
          {(feels.data?.feels ?? []).map((feel) => (
            <li key={feel.state}>
              <button
                type="button"
                disabled={!judged}
                className="grid h-full min-h-[88px] w-full grid-cols-[72px_minmax(0,1fr)] items-start gap-x-3 border-t-2 border-ink bg-lit px-3 py-2 text-left"
                onClick={async () => {
                  setAgain(false);
                  await act({ kind: "felt", state: feel.state });
                }}
              >
                <FeelTile state={feel.state} />
                <span className="text-bench-key leading-[1.1]">
                  <b className="block text-bench-note">{feel.state}</b>
                  {feel.squeeze}; dropped, it {feel.drop}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <Back onBack={onBack} />
      </div>
    );
  const onAdded = async (ingredient: string, mass_g: number) => {
    await act({ kind: "corrected", ingredient, mass_g, why: `felt ${answer.felt}` });
    setOther(false);
    setAgain(true);
  };
  if (other)
    return (
      <OtherAmount
        batch={batch}
        first={answer.mends.find((mend) => mend.ingredient)?.ingredient ?? null}
        ingredients={ingredients}
        onAdded={onAdded}
        onBack={() => setOther(false)}
      />
    );
  const fits = answer.mends.some((mend) => mend.kind === "go-on");
  return (
    <div className="flex flex-col gap-3">
      <p className="text-bench-word" role="status">
        {inUnits(answer.sentence)}
      </p>
      <ul className="flex max-h-[52vh] flex-col gap-2 overflow-y-auto" aria-label="What to do">
        {answer.mends
          .filter((mend) => mend.kind !== "go-on")
          .map((mend) => (
            <li key={mend.text}>
              <button
                type="button"
                className="min-h-[88px] w-full border-t-2 border-ink bg-lit px-4 py-2 text-left text-state font-semibold"
                onClick={async () => {
                  if (mend.ingredient && mend.mass_g) return onAdded(mend.ingredient, mend.mass_g);
                  if (mend.kind === "rest") await act({ kind: "timer", step: step.key, minutes: 5 });
                  setAgain(true);
                }}
              >
                {inUnits(mend.text)}
                <span className="block text-bench-key font-medium text-soft">
                  {mend.effects
                    .filter(
                      (effect) => effect.after !== null && figure(effect.before) !== figure(effect.after),
                    )
                    .slice(0, 4)
                    .map(
                      (effect) => `${effect.label} ${figure(effect.before)} to ${figure(effect.after ?? 0)}`,
                    )
                    .join(", ")}
                  {mend.in_all_g !== null && ` · about ${sayMass(mend.in_all_g)} in all`}
                  {mend.comes_to && ` · then by your hands: ${mend.comes_to}`}
                </span>
              </button>
            </li>
          ))}
      </ul>
      <div className="flex gap-3">
        <Press onClick={() => setAgain(true)}>Judge again</Press>
        <Press onClick={() => setOther(true)}>Another amount</Press>
        <Press next={fits} onClick={() => void act({ kind: "done", step: step.key })}>
          {fits ? "As meant: go on" : "Leave it so, go on"}
        </Press>
      </div>
    </div>
  );
}
