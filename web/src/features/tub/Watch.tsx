import { type Dispatch, type SetStateAction, useEffect, useState } from "react";
import type { TubHappening, TubTest } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { emptied } from "../../lib/emptied";
import { Button, NumberInput } from "../../ui";

const ASKED = [1, 5, 10, 20] as const; // minutes the foam is measured at

interface Props {
  test: TubTest;
  height: string;
  onHeight: Dispatch<SetStateAction<string>>;
  act: (event: TubHappening) => Promise<boolean>;
}

/** The watch runs from when the tap is opened; at its minutes it asks how high the foam stands. */
export function Watch({ test, height, onHeight, act }: Props) {
  const minutes = useMinutesSince(test.state.opened_at ?? null);
  const [at, setAt] = useState("");
  const measured = new Set(test.state.heights.map((each) => each.minutes));
  const next = ASKED.find((each) => !measured.has(each));
  const asked = readDecimal(at) ?? next ?? Math.round(minutes ?? 0);
  const [refused, setRefused] = useState("");
  if (test.closed_at) return null;
  const onKeep = async () => {
    const height_cm = readDecimal(height);
    if (height_cm === null || Number.isNaN(height_cm) || height_cm < 0)
      return setRefused("How high does it stand, in centimetres? Drag it on the rule, or type it.");
    if (Number.isNaN(asked) || asked < 0) return setRefused("After how many minutes? A number.");
    setRefused("");
    if (await act({ kind: "foam", minutes: asked, height_cm })) {
      onHeight(emptied(height));
      setAt(emptied(at));
    }
  };
  return (
    <section aria-label="Watch" className="flex flex-wrap items-end gap-x-8 gap-y-3 pt-4">
      {test.state.opened_at ? (
        <p className="min-w-28 text-figure leading-none" role="timer" aria-live="off">
          {minutes === null ? "–" : clock(minutes)}
        </p>
      ) : (
        <Button primary className="min-h-12" onClick={() => void act({ kind: "opened" })}>
          The tap is open
        </Button>
      )}
      <form
        className="flex flex-wrap items-end gap-5 text-reading"
        onSubmit={(event) => {
          event.preventDefault();
          void onKeep();
        }}
      >
        <label>
          Foam{" "}
          <NumberInput
            className="w-20 text-center text-state"
            aria-label="Height of the foam in centimetres"
            value={height}
            onChange={(event) => onHeight(event.target.value)}
          />{" "}
          cm
        </label>
        <label>
          at{" "}
          <NumberInput
            className="w-16 text-center text-state"
            aria-label="Minutes since the tap was opened"
            placeholder={String(asked)}
            value={at}
            onChange={(event) => setAt(event.target.value)}
          />{" "}
          min
        </label>
        <Button primary type="submit" className="min-h-12">
          Keep it
        </Button>
      </form>
      <p className="text-body text-soft">
        {next === undefined
          ? "Measured at all its minutes; more are welcome."
          : due(next, minutes)
            ? `Now: how high does it stand at ${next} min?`
            : `Asked next at ${next} min.`}
      </p>
      {refused && (
        <p role="alert" className="w-full text-body text-rosy">
          {refused}
        </p>
      )}
    </section>
  );
}

const due = (next: number, minutes: number | null) => minutes !== null && minutes >= next;

const clock = (minutes: number) =>
  minutes >= 100
    ? `${Math.floor(minutes / 60)} h`
    : `${Math.floor(minutes)}:${String(Math.floor((minutes % 1) * 60)).padStart(2, "0")}`;

/** Minutes since a moment, told once a second. */
function useMinutesSince(iso: string | null): number | null {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    if (iso === null) return;
    const ticking = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(ticking);
  }, [iso]);
  return iso === null ? null : Math.max(0, (now - new Date(iso).getTime()) / 60_000);
}
