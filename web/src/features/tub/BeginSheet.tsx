import { useState } from "react";
import { useNavigate } from "react-router";
import { messageOf, type TubTestSave, useBeginTest } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { Button, Dialog, Field, FormulaChoice, NumberInput, WaterOptions } from "../../ui";

/** Baths of most homes: litres and surface; a bucket counts as well, with a thirtieth of the dose. */
const BATHS = [
  { id: "standard", words: "a usual bath", tub_l: 150, tub_area_m2: 0.8 },
  { id: "small", words: "a small or half-full bath", tub_l: 90, tub_area_m2: 0.65 },
  { id: "bucket", words: "a bucket, poured from 1 m", tub_l: 5, tub_area_m2: 0.05 },
] as const;
const WAYS = ["crumbled", "held", "whole"] as const;

/** A piece and a bath; begun once, however often it is pressed. */
export function BeginSheet({ onClose }: { onClose: () => void }) {
  const [formula, setFormula] = useState("");
  const [name, setName] = useState("");
  const [dose, setDose] = useState("25");
  const [bath, setBath] = useState<(typeof BATHS)[number]["id"]>("standard");
  const [celsius, setCelsius] = useState("38");
  const [water, setWater] = useState("moderate");
  const [way, setWay] = useState<(typeof WAYS)[number]>("crumbled");
  const [refused, setRefused] = useState("");
  const [key] = useState(askingKey);
  const begin = useBeginTest();
  const navigate = useNavigate();
  const onBegin = async () => {
    const [dose_g, bath_c] = [readDecimal(dose), readDecimal(celsius)];
    if (dose_g === null || !(dose_g > 0)) return setRefused("How many grams go into the bath?");
    if (bath_c === null || !(bath_c >= 5 && bath_c <= 60)) return setRefused("How warm is the bath, in °C?");
    const chosen = BATHS.find((each) => each.id === bath) ?? BATHS[0];
    const ask: TubTestSave = {
      dose_g,
      bath_c,
      tub_l: chosen.tub_l,
      tub_area_m2: chosen.tub_area_m2,
      hardness: water,
      way,
      name,
      key,
      ...(formula ? { formula_id: Number(formula) } : {}),
    };
    try {
      const made = await begin.mutateAsync(ask);
      await navigate(`/tub/${made.id}`);
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Begin a test"
      lead="What goes into which bath; what the Desk says of it is kept beside what you will see."
    >
      <form
        className="mt-4 flex flex-col gap-4 text-row"
        onSubmit={(event) => {
          event.preventDefault();
          void onBegin();
        }}
      >
        <FormulaChoice value={formula} onChoose={setFormula} none="a piece from elsewhere" />
        <Field
          className="w-80"
          label="Name"
          placeholder="as the formula"
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <label>
            <NumberInput
              className="w-20 text-center"
              value={dose}
              onChange={(event) => setDose(event.target.value)}
            />{" "}
            g,
          </label>
          <label>
            <span className="sr-only">Way</span>
            <select
              className="written text-row"
              value={way}
              onChange={(event) => setWay(event.target.value as (typeof WAYS)[number])}
            >
              {WAYS.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
          <label>
            into{" "}
            <select
              className="written text-row"
              value={bath}
              onChange={(event) => setBath(event.target.value as (typeof BATHS)[number]["id"])}
            >
              {BATHS.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.words}, {each.tub_l} L
                </option>
              ))}
            </select>
          </label>
          <label>
            of{" "}
            <NumberInput
              className="w-14 text-center"
              value={celsius}
              onChange={(event) => setCelsius(event.target.value)}
            />{" "}
            °C,
          </label>
          <label>
            <span className="sr-only">Water</span>
            <select
              className="written text-row"
              value={water}
              onChange={(event) => setWater(event.target.value)}
            >
              <WaterOptions />
            </select>
          </label>
        </div>
        {bath === "bucket" && (
          <p className="text-body text-soft">
            A bucket takes a thirtieth of the dose: what is 25 g in a bath is 0.8 g in it.
          </p>
        )}
        {refused && (
          <p role="alert" className="text-body text-rosy">
            {refused}
          </p>
        )}
        <p>
          <Button primary type="submit" hint="Enter" disabled={begin.isPending}>
            To the bath
          </Button>
        </p>
      </form>
    </Dialog>
  );
}
