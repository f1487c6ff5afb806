import { useState } from "react";
import { type Settings, useMoulds, useReference, useSaveMoulds } from "../../api";
import { emptied } from "../../lib/emptied";
import { readTyped, unitShown } from "../../lib/units";
import { Button, KeptNumber, NumberInput } from "../../ui";
import { TakeOut } from "./TakeOut";
import type { Change } from "./useWorkshop";

type OwnTool = NonNullable<Settings["tools"]>[number];

const TYPES: readonly (readonly [OwnTool["type"], string])[] = [
  ["scoop", "scoop"],
  ["mould", "mould"],
  ["cavity", "silicone cavity"],
  ["press", "press"],
  ["pot", "pot"],
];
const COUNTED = new Set(["ball-mould", "cavity", "mould", "pot"]);

/** What shapes a piece: the studio's own by the volume it measured, and how many there are of each mould. */
export function Tools({ own, change }: { own: readonly OwnTool[]; change: Change }) {
  const moulds = useMoulds();
  const reference = useReference();
  const counts = moulds.data?.counts ?? {};
  const tools = reference.data?.tools ?? [];
  const isOwn = new Set(own.map((each) => each.id));
  const shown = tools.filter((tool) => isOwn.has(tool.id) || tool.id in counts);
  const more = tools.filter((tool) => COUNTED.has(tool.type) && !shown.includes(tool));
  const save = useSaveMoulds();
  return (
    <section aria-label="Tools" className="text-row">
      <h2 className="text-label italic text-soft">Moulds, scoops and presses</h2>
      <ul>
        {shown.map((tool) => (
          <li
            key={tool.id}
            className="flex flex-wrap items-baseline gap-x-3 border-b-[0.9px] border-ink py-1"
          >
            <span className="min-w-52 flex-1">{tool.name}</span>
            {isOwn.has(tool.id) ? (
              <KeptNumber
                label={`Volume of ${tool.name}`}
                unit="mL"
                value={tool.volume_ml}
                least={0.5}
                most={5000}
                empty={false}
                className="w-20 text-center"
                onKeep={(volume_ml) =>
                  void change((now) => ({
                    tools: (now.tools ?? []).map((each) =>
                      each.id === tool.id ? { ...each, volume_ml: Number(volume_ml) } : each,
                    ),
                  }))
                }
              />
            ) : (
              <span className="w-20 text-center">{Number(tool.volume_ml.toPrecision(3))}</span>
            )}
            {unitShown("mL")}
            {COUNTED.has(tool.type) && (
              <>
                <KeptNumber
                  label={`How many of ${tool.name}`}
                  value={counts[tool.id] ?? null}
                  least={1}
                  most={10000}
                  whole
                  placeholder="?"
                  className="w-14 text-center"
                  onKeep={(count) => save.mutate({ tool: tool.id, count })}
                />
                of them
              </>
            )}
            {isOwn.has(tool.id) && (
              <TakeOut
                name={tool.name}
                onTake={() => void change({ tools: own.filter((each) => each.id !== tool.id) })}
              />
            )}
          </li>
        ))}
      </ul>
      <label className="block pt-3 text-body">
        Count a mould of the list{" "}
        <select
          className="written text-body"
          value=""
          onChange={(event) => save.mutate({ tool: event.target.value, count: 1 })}
        >
          <option value="">choose</option>
          {more.map((tool) => (
            <option key={tool.id} value={tool.id}>
              {tool.name}
            </option>
          ))}
        </select>
      </label>
      <OwnToolForm own={own} change={change} />
    </section>
  );
}

/** Another tool: its volume is what it holds of water, in grams. */
function OwnToolForm({ own, change }: { own: readonly OwnTool[]; change: Change }) {
  const [name, setName] = useState("");
  const [type, setType] = useState<OwnTool["type"]>("scoop");
  const [volume, setVolume] = useState("");
  const onAdd = async () => {
    const volume_ml = readTyped(volume, "mL");
    if (!name.trim() || !volume_ml) return;
    const made = { id: freeId(name, own), name: name.trim(), type, volume_ml };
    if (await change({ tools: [...own, made] })) {
      setName(emptied(name));
      setVolume(emptied(volume));
    }
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void onAdd();
      }}
    >
      <select
        aria-label="Kind of tool"
        className="written"
        value={type}
        onChange={(event) => setType(event.target.value as OwnTool["type"])}
      >
        {TYPES.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
      <input
        aria-label="Name of a tool of your own"
        className="written w-44"
        placeholder="a tool of your own"
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <NumberInput
        aria-label="Its volume"
        className="w-20 text-center"
        value={volume}
        onChange={(event) => setVolume(event.target.value)}
      />
      {unitShown("mL")}
      <Button type="submit">Add the tool</Button>
    </form>
  );
}

/** An id from the name; it stays when the name or the volume changes. */
function freeId(name: string, own: readonly OwnTool[]): string {
  const bare =
    name
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "tool";
  const taken = new Set(own.map((each) => each.id));
  for (let number = 1; ; number += 1) {
    const id = number === 1 ? `own-${bare}` : `own-${bare}-${number}`;
    if (!taken.has(id)) return id;
  }
}
