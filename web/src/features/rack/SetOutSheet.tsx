import { useState } from "react";
import { type Rack, useSetOut } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Field, FormulaChoice, NumberInput, Sheet } from "../../ui";

interface Props {
  places: Rack["places"];
  onClose: () => void;
}

/** Pieces that no batch set out: made elsewhere, or before there was a rack. */
export function SetOutSheet({ places, onClose }: Props) {
  const [name, setName] = useState("");
  const [formula, setFormula] = useState("");
  const [pieces, setPieces] = useState("");
  const [trays, setTrays] = useState("1");
  const [place, setPlace] = useState(places[0]?.name ?? "rack");
  const [ago, setAgo] = useState("0");
  const setOut = useSetOut();
  const onSet = async () => {
    const [count, onTrays, hoursAgo] = [readDecimal(pieces), readDecimal(trays), readDecimal(ago)];
    if (count === null || !Number.isInteger(count) || count < 1) return "How many pieces? A whole number.";
    if (onTrays === null || !Number.isInteger(onTrays) || onTrays < 1)
      return "How many trays? A whole number.";
    if (hoursAgo === null || !(hoursAgo >= 0)) return "How many hours ago? A number, 0 for now.";
    await setOut.mutateAsync({
      pieces: count,
      trays: onTrays,
      place,
      name,
      ...(formula ? { formula_id: Number(formula) } : {}),
      ...(hoursAgo > 0 ? { set_out_at: new Date(Date.now() - hoursAgo * 3_600_000).toISOString() } : {}),
    });
    onClose();
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title="Set pieces out"
      lead="From a formula of yours, or from elsewhere."
      submit="Set them out"
      onSubmit={onSet}
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
    </Sheet>
  );
}
