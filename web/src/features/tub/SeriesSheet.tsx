import { useState } from "react";
import { useNavigate } from "react-router";
import { type Series, useBeginSeries } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { Button, Field, FormulaChoice, NumberInput, Sheet } from "../../ui";
import { BathFields, useBath } from "./BathFields";

const LETTERS = "ABCDEF";

/** A claim and its variants; which bath is which is shuffled, and kept under codes. */
export function SeriesSheet({ readings, onClose }: { readings: Series["reading"][]; onClose: () => void }) {
  const [name, setName] = useState("");
  const [chosen, setChosen] = useState<string[]>(["", ""]);
  const [claim, setClaim] = useState<Claim>({ reading: "", way: "", better: "B", than: "A", worth: "" });
  const [each, setEach] = useState("3");
  const [key] = useState(askingKey);
  const bath = useBath();
  const begin = useBeginSeries();
  const navigate = useNavigate();
  const letters = LETTERS.slice(0, chosen.length).split("");
  const onBegin = async () => {
    const [into, worth, baths] = [bath.read(), readDecimal(claim.worth), readDecimal(each)];
    if (chosen.some((id) => !id)) return "Choose a formula for every letter.";
    if (!claim.reading) return "Choose the reading the claim is about.";
    if (!claim.way) return "Say which way the claim goes: more or less.";
    if (Number.isNaN(worth)) return "How much would matter? A number, or nothing.";
    if (baths === null || !(baths >= 1)) return "How many baths of each?";
    if (typeof into === "string") return into;
    const made = await begin.mutateAsync({
      ...into,
      name,
      key,
      each: Math.round(baths),
      formula_ids: chosen.map(Number),
      claim: {
        reading: claim.reading,
        better: claim.better,
        than: claim.than,
        lower_is_better: claim.way === "less",
        worth,
      },
    });
    await navigate(`/tub/series/${made.id}`);
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Put a claim to the test"
      lead="The same bath for all, the order shuffled, and nobody knows which piece is which until the answer is read."
      submit="Shuffle and begin"
      onSubmit={onBegin}
    >
      <Field
        className="w-80"
        label="Name of the series"
        value={name}
        maxLength={200}
        onChange={(event) => setName(event.target.value)}
      />
      {letters.map((letter, index) => (
        <fieldset key={letter} className="flex flex-wrap items-end gap-x-5 gap-y-2">
          <legend className="float-left pr-2 text-state">{letter}</legend>
          <FormulaChoice
            value={chosen[index] ?? ""}
            onChoose={(id) => setChosen(chosen.map((before, at) => (at === index ? id : before)))}
            none="choose"
          />
        </fieldset>
      ))}
      <p className="flex gap-4">
        {chosen.length < LETTERS.length && (
          <Button onClick={() => setChosen([...chosen, ""])}>One more variant</Button>
        )}
        {chosen.length > 2 && (
          <Button onClick={() => setChosen(chosen.slice(0, -1))}>Leave the last out</Button>
        )}
      </p>
      <ClaimFields readings={readings} letters={letters} claim={claim} onClaim={setClaim} />
      <BathFields bath={bath} />
      <label>
        <NumberInput
          className="w-12 text-center"
          value={each}
          onChange={(event) => setEach(event.target.value)}
        />{" "}
        baths of each; without repeats nobody can tell.
      </label>
    </Sheet>
  );
}

interface Claim {
  reading: string;
  /** Asked, never preset: a claim that goes the other way is another claim. */
  way: "" | "more" | "less";
  better: string;
  than: string;
  worth: string;
}

function ClaimFields({
  readings,
  letters,
  claim,
  onClaim,
}: {
  readings: Series["reading"][];
  letters: string[];
  claim: Claim;
  onClaim: (claim: Claim) => void;
}) {
  const choice = (part: "better" | "than", label: string) => (
    <label>
      <span className="sr-only">{label}</span>
      <select
        className="written text-row"
        value={claim[part]}
        onChange={(event) => onClaim({ ...claim, [part]: event.target.value })}
      >
        {letters.map((letter) => (
          <option key={letter}>{letter}</option>
        ))}
      </select>
    </label>
  );
  const unit = readings.find((each) => each.id === claim.reading)?.unit ?? "";
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label>
        <span className="sr-only">Reading</span>
        <select
          className="written text-row"
          value={claim.reading}
          onChange={(event) => onClaim({ ...claim, reading: event.target.value })}
        >
          <option value="">choose</option>
          {readings.map((each) => (
            <option key={each.id} value={each.id}>
              {each.label}
            </option>
          ))}
        </select>
      </label>
      <span>
        is{" "}
        <label>
          <span className="sr-only">Which way</span>
          <select
            className="written text-row"
            value={claim.way}
            onChange={(event) => onClaim({ ...claim, way: event.target.value as Claim["way"] })}
          >
            <option value="">more or less?</option>
            <option>more</option>
            <option>less</option>
          </select>
        </label>
      </span>
      for {choice("better", "The better one")} than for {choice("than", "The other one")}
      <label>
        ; worth{" "}
        <NumberInput
          className="w-16 text-center"
          value={claim.worth}
          onChange={(event) => onClaim({ ...claim, worth: event.target.value })}
        />{" "}
        {unit}
      </label>
    </div>
  );
}
