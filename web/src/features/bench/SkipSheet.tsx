import { useState } from "react";
import type { BenchStep } from "../../api";
import { Dialog } from "../../ui";
import { Press } from "./parts";

const REASONS = ["there is none left", "left out on purpose", "comes in later"];

/** Nothing is passed in silence: leaving out asks why, and the record keeps the answer. */
export function SkipSheet({
  step,
  onSkip,
  onClose,
}: {
  step: BenchStep;
  onSkip: (why: string) => void;
  onClose: () => void;
}) {
  const [why, setWhy] = useState("");
  return (
    <Dialog open onOpenChange={onClose} title={`${step.title}: leave it out?`} lead="The record keeps why.">
      <div className="flex flex-col gap-3 pt-4">
        {REASONS.map((reason) => (
          <Press key={reason} onClick={() => onSkip(reason)}>
            {reason}
          </Press>
        ))}
        <form
          className="flex gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (why.trim()) onSkip(why.trim());
          }}
        >
          <input
            aria-label="Another reason"
            placeholder="another reason"
            maxLength={200}
            className="min-h-[88px] flex-1 border-t-2 border-ink bg-lit px-4 text-state placeholder:text-soft"
            value={why}
            onChange={(event) => setWhy(event.target.value)}
          />
          <Press type="submit" disabled={!why.trim()} className="max-w-[220px]">
            Leave it out
          </Press>
        </form>
      </div>
    </Dialog>
  );
}
