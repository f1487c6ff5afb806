import { useState } from "react";
import { messageOf, type Rack, useSetOut } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Button, Dialog, Field, FormulaChoice, NumberInput } from "../../ui";

interface Props {
  places: Rack["places"];
  onClose: () => void;
}

/** Pieces that no batch set out: made elsewhere, or before there was a rack. */
export function SetOutSheet({ places, onClose }: Props) {
  const [name, setName] = useState("");
  const [formula, setFormula] = useState("");
  const [pieces, setPieces] = useState("6");
  const [trays, setTrays] = useState("1");
  const [place, setPlace] = useState(places[0]?.name ?? "rack");
  const [ago, setAgo] = useState("0");
  const [refused, setRefused] = useState("");
  const setOut = useSetOut();
  const onSet = async () => {
    const [count, onTrays, hoursAgo] = [readDecimal(pieces), readDecimal(trays), readDecimal(ago)];
    if (count === null || !Number.isInteger(count) || count < 1)
      return setRefused("How many pieces? A whole number.");
    if (onTrays === null || !Number.isInteger(onTrays) || onTrays < 1)
      return setRefused("How many trays? A whole number.");
    if (hoursAgo === null || !(hoursAgo >= 0)) return setRefused("How many hours ago? A number, 0 for now.");
    try {
      await setOut.mutateAsync({
        pieces: count,
        trays: onTrays,
        place,
        name,
        ...(formula ? { formula_id: Number(formula) } : {}),
        ...(hoursAgo > 0 ? { set_out_at: new Date(Date.now() - hoursAgo * 3_600_000).toISOString() } : {}),
      });
      onClose();
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Set pieces out"
      lead="From a formula of yours, or from elsewhere."
    >
      <form
        className="mt-4 flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void onSet();
        }}
      >
        <FormulaChoice value={formula} onChoose={setFormula} none="from elsewhere" />
        <Field
          className="w-80"
          label="Name"
          placeholder="as the formula"
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="flex flex-wrap items-end gap-8 text-row">
          <label>
            Pieces{" "}
            <NumberInput
              whole
              className="w-16 text-center"
              value={pieces}
              onChange={(event) => setPieces(event.target.value)}
            />
          </label>
          <label>
            on{" "}
            <NumberInput
              whole
              className="w-12 text-center"
              value={trays}
              onChange={(event) => setTrays(event.target.value)}
            />{" "}
            trays
          </label>
          <label>
            in{" "}
            <select
              className="written text-row"
              value={place}
              onChange={(event) => setPlace(event.target.value)}
            >
              {places.map((each) => (
                <option key={each.name}>{each.name}</option>
              ))}
            </select>
          </label>
          <label>
            since{" "}
            <NumberInput
              className="w-14 text-center"
              value={ago}
              onChange={(event) => setAgo(event.target.value)}
            />{" "}
            hours
          </label>
        </div>
        {refused && (
          <p role="alert" className="text-body text-rosy">
            {refused}
          </p>
        )}
        <p>
          <Button primary type="submit" hint="Enter" disabled={setOut.isPending}>
            Set them out
          </Button>
        </p>
      </form>
    </Dialog>
  );
}
