import { useState } from "react";
import type { Settings } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Button, KeptNumber, NumberInput } from "../../ui";
import { TakeOut } from "./TakeOut";
import type { Change } from "./useWorkshop";

type Tub = NonNullable<Settings["tubs"]>[number];

/** The tubs tests are made in. */
export function Tubs({ tubs, change }: { tubs: readonly Tub[]; change: Change }) {
  const [typed, setTyped] = useState({ name: "", litres: "", area: "" });
  const set = (index: number, some: Partial<Tub>) =>
    void change((now) => ({
      tubs: (now.tubs ?? []).map((tub, at) => (at === index ? { ...tub, ...some } : tub)),
    }));
  const onAdd = async () => {
    const [tub_l, tub_area_m2] = [readDecimal(typed.litres), readDecimal(typed.area)];
    if (!typed.name.trim() || !tub_l || !tub_area_m2) return;
    if (await change({ tubs: [...tubs, { name: typed.name.trim(), tub_l, tub_area_m2 }] }))
      setTyped({ name: "", litres: "", area: "" });
  };
  return (
    <section aria-label="Tubs" className="text-row">
      <h2 className="text-label italic text-soft">Tubs to test in</h2>
      <ul>
        {tubs.map((tub, index) => (
          <li
            key={tub.name}
            className="flex flex-wrap items-baseline gap-x-3 border-b-[0.9px] border-ink py-1"
          >
            <span className="min-w-56 flex-1">{tub.name}</span>
            <KeptNumber
              label={`Water in ${tub.name}, litres`}
              value={tub.tub_l}
              least={1}
              most={2000}
              empty={false}
              className="w-16 text-center"
              onKeep={(tub_l) => set(index, { tub_l: Number(tub_l) })}
            />
            L,
            <KeptNumber
              label={`Surface of ${tub.name}, square metres`}
              value={tub.tub_area_m2}
              least={0.01}
              most={10}
              empty={false}
              className="w-16 text-center"
              onKeep={(tub_area_m2) => set(index, { tub_area_m2: Number(tub_area_m2) })}
            />
            m²
            {tubs.length > 1 && (
              <TakeOut
                name={tub.name}
                onTake={() => void change({ tubs: tubs.filter((_, at) => at !== index) })}
              />
            )}
          </li>
        ))}
      </ul>
      <form
        className="flex flex-wrap items-end gap-3 pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          void onAdd();
        }}
      >
        <input
          aria-label="Name of another tub"
          className="written w-44"
          placeholder="another tub"
          maxLength={200}
          value={typed.name}
          onChange={(event) => setTyped({ ...typed, name: event.target.value })}
        />
        <NumberInput
          aria-label="Its water in litres"
          className="w-16 text-center"
          value={typed.litres}
          onChange={(event) => setTyped({ ...typed, litres: event.target.value })}
        />
        L
        <NumberInput
          aria-label="Its surface in square metres"
          className="w-16 text-center"
          value={typed.area}
          onChange={(event) => setTyped({ ...typed, area: event.target.value })}
        />
        m²
        <Button type="submit">Add the tub</Button>
      </form>
    </section>
  );
}
