import type { Reference } from "../../api";
import { massUnit } from "../../lib/units";
import { KeptNumber, NumberInput } from "../../ui";
import { AS_WRITTEN, OWN_MASS, type WishDraft } from "./wishes";

interface Props {
  wish: WishDraft;
  index: number;
  /** The mass decides how many. */
  counted: boolean;
  tools: Reference["tools"];
  /** How many of each mould there are, by tool. */
  moulds: Readonly<Record<string, number>>;
  onMoulds: (tool: string, count: number | null) => void;
  onChange: (patch: Partial<WishDraft>) => void;
  onRemove: (() => void) | undefined;
}

const MOULDS = new Set(["ball-mould", "cavity", "mould", "pot"]);

/** One wish as a sentence: how many, of which shape. */
export function WishRow({ wish, index, counted, tools, moulds, onMoulds, onChange, onRemove }: Props) {
  const tool = tools.find((each) => each.id === wish.shape);
  const of = index === 0 ? "" : `, kind ${index + 1}`;
  return (
    <p className="text-state font-[400] leading-10">
      {counted ? (
        <>All the pieces it gives, </>
      ) : (
        <>
          <NumberInput
            aria-label={`Number of pieces${of}`}
            whole
            className="w-20 text-center font-semibold"
            value={wish.pieces}
            onChange={(event) => onChange({ pieces: event.target.value.replace(/\D/g, "") })}
          />{" "}
          pieces,{" "}
        </>
      )}
      <select
        aria-label={`Shape of a piece${of}`}
        className="written max-w-[420px] font-semibold"
        value={wish.shape}
        onChange={(event) => onChange({ shape: event.target.value })}
      >
        <option value={AS_WRITTEN}>as the formula says</option>
        <option value={OWN_MASS}>of my own mass</option>
        {tools.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </select>
      {wish.shape === OWN_MASS && (
        <>
          {" "}
          <NumberInput
            aria-label={`Mass of a piece in grams${of}`}
            className="w-24 text-center font-semibold"
            value={wish.mass}
            onChange={(event) => onChange({ mass: event.target.value })}
          />{" "}
          {massUnit()}
        </>
      )}
      {tool && MOULDS.has(tool.type) && !counted && (
        <Moulds
          name={`${tool.name}${of}`}
          count={moulds[tool.id] ?? null}
          onCount={(count) => onMoulds(tool.id, count)}
          onFill={(count) => onChange({ pieces: String(count) })}
        />
      )}
      {tool?.type === "scoop" && (
        <>
          ,{" "}
          <select
            aria-label={`How the scoop is filled${of}`}
            className="written font-semibold"
            value={wish.fill}
            onChange={(event) => onChange({ fill: event.target.value as WishDraft["fill"] })}
          >
            <option value="level">level</option>
            <option value="rounded">rounded</option>
            <option value="domed">domed</option>
          </select>
        </>
      )}
      {tool?.type === "roll-and-slice" && (
        <>
          , rolled from{" "}
          <NumberInput
            aria-label={`Sheets on top of each other${of}`}
            whole
            className="w-10 text-center font-semibold"
            value={wish.layers}
            onChange={(event) => onChange({ layers: event.target.value.replace(/\D/g, "") })}
          />{" "}
          sheets of{" "}
          <NumberInput
            aria-label={`Thickness of a sheet in millimetres${of}`}
            className="w-12 text-center font-semibold"
            value={wish.sheet}
            onChange={(event) => onChange({ sheet: event.target.value })}
          />{" "}
          mm, cut by{" "}
          <select
            aria-label={`Cut by${of}`}
            className="written font-semibold"
            value={wish.cut}
            onChange={(event) => onChange({ cut: event.target.value as WishDraft["cut"] })}
          >
            <option value="thread">thread</option>
            <option value="knife">knife</option>
          </select>
        </>
      )}
      {onRemove && (
        <button type="button" className="ml-4 min-h-7 border-b border-ink text-caption" onClick={onRemove}>
          Take out
        </button>
      )}
    </p>
  );
}

/** How many there are, kept for every plan; one press fills them all. */
function Moulds({
  name,
  count,
  onCount,
  onFill,
}: {
  name: string;
  count: number | null;
  onCount: (count: number | null) => void;
  onFill: (count: number) => void;
}) {
  return (
    <>
      ; there are{" "}
      <KeptNumber
        label={`How many there are of ${name}`}
        whole
        placeholder="?"
        className="w-14 text-center font-semibold"
        value={count}
        least={1}
        most={99999}
        onKeep={onCount}
      />{" "}
      of them
      {count !== null && (
        <button
          type="button"
          className="ml-3 min-h-7 border-b border-ink text-caption"
          onClick={() => onFill(count)}
        >
          Fill them all
        </button>
      )}
    </>
  );
}
