import { useState } from "react";
import type { Batch } from "../../api";
import { emptied } from "../../lib/emptied";
import { sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { useJars } from "./jars";
import type { StepProps } from "./step";

/** Which jar the line in hand is taken from: the first to expire, or another by a tap or its code. */
export function LotLine({
  batch,
  ingredient,
  act,
}: {
  batch: Batch;
  ingredient: string;
  act: StepProps["act"];
}) {
  const jars = useJars(batch, ingredient);
  const [open, setOpen] = useState(false);
  const [code, setCode] = useState("");
  const { lot } = jars;
  if (!lot) return null;
  const onTake = async (taken: string) => {
    await act({ kind: "lot", ingredient, code: taken });
    setOpen(false);
    setCode(emptied(code));
  };
  return (
    <section aria-label="Jar" className="text-bench-key">
      <p>
        from jar <b>{lot.code}</b>
        {jars.named ? "," : <span className="font-semibold text-rosy"> (assumed)</span>}{" "}
        {!jars.named && (
          <button
            type="button"
            className="min-h-12 border-b border-ink px-2 font-semibold"
            onClick={() => void onTake(lot.code)}
          >
            It is this one
          </button>
        )}
        {lot.said.map((word) => (
          <span key={word.code} className="font-semibold text-rosy">
            {" "}
            {inUnits(word.text)}
          </span>
        ))}{" "}
        <button type="button" className="min-h-12 border-b border-ink px-2" onClick={() => setOpen(!open)}>
          {open ? "That one" : "Another jar"}
        </button>
      </p>
      {open && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (code.trim()) void onTake(code);
          }}
        >
          {jars.lots
            .filter((each) => each.id !== lot.id)
            .map((each) => (
              <button
                key={each.id}
                type="button"
                className="min-h-12 border border-ink px-4"
                onClick={() => void onTake(each.code)}
              >
                {each.code}, {sayMass(each.left_g)}
              </button>
            ))}
          <label>
            Code{" "}
            <input
              className="written min-h-12 w-40 text-bench-key"
              value={code}
              onChange={(event) => setCode(event.target.value)}
            />
          </label>
          <button type="submit" className="min-h-12 border border-ink px-4">
            Take it
          </button>
        </form>
      )}
    </section>
  );
}
