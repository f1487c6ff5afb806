import type { ReactNode } from "react";
import type { Batch, Happening } from "../../api";
import type { Told } from "../../lib/benchQueue";
import { inUnits } from "../../lib/units";

const clock = (iso: string) =>
  new Date(iso).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** What another device had done and what no longer follows, beside what the record has: put in, or set aside. */
export function HeldList({ batch, act }: { batch: Batch; act: (event: Happening) => Promise<boolean> }) {
  if (batch.held.length === 0) return null;
  return (
    <section aria-label="Does not follow" className="border-y-2 border-rosy py-2">
      <h2 className="text-bench-note font-semibold text-rosy">
        Two devices say different things. Which is right?
      </h2>
      <ul className="flex flex-col gap-3">
        {batch.held.map((held) => (
          <li
            key={held.id}
            className="grid grid-cols-2 gap-x-8 gap-y-1 text-bench-key max-[700px]:grid-cols-1"
          >
            <p>
              <span className="block italic text-soft">
                The device that came back{held.made_at && `, ${clock(held.made_at)}`}
              </span>
              {inUnits(held.text)}
            </p>
            <p>
              <span className="block italic text-soft">In the record meanwhile</span>
              {held.beside.length === 0 && "The batch was closed."}
              {held.beside.map((entry) => (
                <span key={entry.seq} className="block">
                  {inUnits(entry.text)} <span className="text-soft">{clock(entry.made_at ?? entry.at)}</span>
                </span>
              ))}
            </p>
            <p className="col-span-full flex flex-wrap gap-3">
              <Choice onChoose={() => act({ kind: "settled", of: held.id, put_in: true })}>Put it in</Choice>
              <Choice onChoose={() => act({ kind: "settled", of: held.id, put_in: false })}>
                Set it aside
              </Choice>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What waited on this tablet and was refused then, with the reason: nothing leaves it unread. */
export function RefusedList({
  refused,
  onSetAside,
}: {
  refused: readonly Told[];
  onSetAside: (id: string) => void;
}) {
  if (refused.length === 0) return null;
  return (
    <section aria-label="Refused" className="border-y-2 border-rosy py-2 text-bench-key">
      <h2 className="text-bench-note font-semibold text-rosy">
        The studio did not take this from the tablet:
      </h2>
      <ul>
        {refused.map((told) => (
          <li key={told.id} className="flex flex-wrap items-baseline gap-x-4">
            <span>
              {clock(told.made_at)}, {saidOf(told.event)}: {told.why}
            </span>
            <Choice onChoose={() => onSetAside(told.id)}>I have read it</Choice>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Choice({ onChoose, children }: { onChoose: () => unknown; children: ReactNode }) {
  return (
    <button
      type="button"
      className="min-h-12 border-b-2 border-ink px-3 text-bench-key font-semibold"
      onClick={() => void onChoose()}
    >
      {children}
    </button>
  );
}

/** An event in its own few words, where the studio has told no sentence of it. */
function saidOf(event: Happening): string {
  const { kind, ...rest } = event as unknown as Record<string, unknown>;
  const told = Object.entries(rest).filter(([name]) => !["id", "made_at", "source"].includes(name));
  return [kind, ...told.map(([, value]) => String(value))].join(" ");
}
