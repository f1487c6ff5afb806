import { useState } from "react";
import type { TubHappening, TubTest } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { fromShown, massUnit, typedOf } from "../../lib/units";
import { Button, NumberInput } from "../../ui";
import { LeftPart } from "./LeftPart";

type Seen = Extract<TubHappening, { kind: "seen" }>;
type Key = Exclude<keyof Seen, "kind" | "gone_after_min">;

/** What is looked at, with words that fit most baths; anything else can be typed. */
const LOOKED_AT: readonly {
  key: Key;
  label: string;
  when: "in the water" | "afterwards";
  words: string[];
}[] = [
  { key: "floats", label: "Floats", when: "in the water", words: ["floats", "sinks, then rises", "sinks"] },
  { key: "spins", label: "Spins", when: "in the water", words: ["spins", "a little", "no"] },
  { key: "tint", label: "Tint", when: "in the water", words: ["none", "pale", "strong"] },
  { key: "cloud", label: "Cloud", when: "in the water", words: ["clear", "hazy", "milky"] },
  { key: "scent", label: "Scent", when: "in the water", words: ["none", "faint", "good", "too much"] },
  {
    key: "ring",
    label: "Ring",
    when: "afterwards",
    words: ["none", "thin, wiped off", "has to be scrubbed"],
  },
  { key: "film", label: "Film", when: "afterwards", words: ["none", "a sheen", "drops of oil"] },
  { key: "slip", label: "Floor", when: "afterwards", words: ["as before", "a little slippery", "slippery"] },
  { key: "skin", label: "Skin", when: "afterwards", words: ["soft", "as before", "dry", "itches"] },
];

/** What was seen beside the foam: a word is chosen or typed, and kept at once. */
export function SeenForm({ test, act }: { test: TubTest; act: (event: TubHappening) => Promise<boolean> }) {
  const [gone, setGone] = useState("");
  const [left, setLeft] = useState("");
  const seen = test.state.seen as Record<string, string | number | undefined>;
  const keepNumber = async (typed: string, event: (value: number) => TubHappening, clear: () => void) => {
    const value = readDecimal(typed);
    if (value !== null && value >= 0 && (await act(event(value)))) clear();
  };
  const shown = LOOKED_AT.filter((each) => !test.closed_at || seen[each.key]);
  return (
    <div className="grid grid-cols-2 gap-x-14 gap-y-6 pt-6 max-[1000px]:grid-cols-1">
      {(["in the water", "afterwards"] as const).map((when) => (
        <section key={when} aria-label={`Seen ${when}`}>
          <h2 className="text-row italic text-soft">Seen {when}</h2>
          <dl>
            {shown
              .filter((each) => each.when === when)
              .map(({ key, label, words }) => (
                <div
                  key={key}
                  className="flex flex-wrap items-baseline gap-x-5 border-b-[0.9px] border-ink py-1"
                >
                  <dt className="w-20 text-body">{label}</dt>
                  <dd className="flex flex-wrap gap-x-5 text-body">
                    {test.closed_at
                      ? seen[key]
                      : words.map((word) => (
                          <button
                            key={word}
                            type="button"
                            aria-pressed={seen[key] === word}
                            className="min-h-8 border-b border-soft aria-pressed:border-b-2 aria-pressed:border-ink aria-pressed:font-bold"
                            onClick={() => void act({ kind: "seen", [key]: word })}
                          >
                            {word}
                          </button>
                        ))}
                  </dd>
                </div>
              ))}
          </dl>
        </section>
      ))}
      <LeftPart test={test} />
      {test.closed_at ? (
        <p className="text-body">
          {seen["gone_after_min"] !== undefined && `Gone after ${seen["gone_after_min"]} min. `}
          {typeof test.state.left_g === "number" && `${test.state.left_g} g were left for the next bath.`}
        </p>
      ) : (
        <>
          <form
            className="flex items-end gap-4 text-body"
            onSubmit={(event) => {
              event.preventDefault();
              void keepNumber(
                gone,
                (value) => ({ kind: "seen", gone_after_min: value }),
                () => setGone(""),
              );
            }}
          >
            <label>
              The piece was gone after{" "}
              <NumberInput
                className="w-16 text-center"
                value={gone}
                placeholder={String(seen["gone_after_min"] ?? "")}
                onChange={(event) => setGone(event.target.value)}
              />{" "}
              min
            </label>
            <Button type="submit">Keep it</Button>
          </form>
          <form
            className="flex items-end gap-4 text-body"
            onSubmit={(event) => {
              event.preventDefault();
              void keepNumber(
                left,
                (value) => ({ kind: "left", mass_g: fromShown(value, "g") }),
                () => setLeft(""),
              );
            }}
          >
            <label>
              Left for the next bath{" "}
              <NumberInput
                className="w-20 text-center"
                value={left}
                placeholder={typedOf(test.state.left_g, "g")}
                onChange={(event) => setLeft(event.target.value)}
              />{" "}
              {massUnit()}
            </label>
            <Button type="submit">Keep it</Button>
          </form>
        </>
      )}
    </div>
  );
}
