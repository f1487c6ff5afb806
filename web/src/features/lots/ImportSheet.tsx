import { useState } from "react";
import {
  type ImportSave,
  messageOf,
  type StockImport,
  stopList,
  useListProgress,
  useStockImport,
  useTakeImportBack,
} from "../../api";
import { askingKey } from "../../lib/askingKey";
import { sayMass } from "../../lib/numbers";
import { unitShown } from "../../lib/units";
import { Button, Dialog, HowFar, useNotice } from "../../ui";

/** A list of stock or prices: looked at row by row, taken over in one go, taken back in one go. */
export function ImportSheet({ onClose }: { onClose: () => void }) {
  const [ask, setAsk] = useState<ImportSave | null>(null);
  const [seen, setSeen] = useState<StockImport | null>(null);
  const [refused, setRefused] = useState("");
  const take = useStockImport();
  const back = useTakeImportBack();
  const say = useNotice();
  const look = async (next: ImportSave) => {
    setAsk(next);
    try {
      setSeen(await take.mutateAsync({ ...next, dry: true }));
      setRefused("");
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  const onFile = async (file: File) => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    let text = "";
    for (let at = 0; at < bytes.length; at += 32768)
      text += String.fromCharCode(...bytes.subarray(at, at + 32768));
    await look({
      content: btoa(text),
      key: askingKey(),
      currency: unitShown("USD"),
      meanings: {},
      dry: true,
    });
  };
  const onTake = async () => {
    if (!ask) return;
    try {
      const made = await take.mutateAsync({ ...ask, dry: false });
      say(`${made.taken} rows taken over${made.asked ? `, ${made.asked} left for another time` : ""}.`, {
        action: { label: "Take it back", run: () => void back.mutateAsync(ask.key) },
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
      title="Take over a list"
      lead="CSV or XLSX, with whatever headings it has. Nothing is kept before you have seen every row's fate."
    >
      <p className="pt-4 text-row">
        <label>
          The file{" "}
          <input
            type="file"
            accept=".csv,.txt,.tsv,.xlsx"
            className="text-body"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void onFile(file);
            }}
          />
        </label>
      </p>
      {refused && (
        <p role="alert" className="pt-3 text-body text-rosy">
          {refused}
        </p>
      )}
      {take.isPending && <Running />}
      {ask && seen && <Preview ask={ask} seen={seen} onLook={(next) => void look(next)} />}
      {seen && (
        <p className="pt-4">
          <Button
            primary
            disabled={take.isPending || seen.asked === seen.in_all}
            onClick={() => void onTake()}
          >
            Take over {seen.in_all - seen.asked} rows
          </Button>
        </p>
      )}
    </Dialog>
  );
}

/** Until it is through, nothing has been kept. */
function Running() {
  const progress = useListProgress(true);
  const { done = 0, whole = 0 } = progress.data ?? {};
  return <HowFar done={done} whole={whole} of="rows" onStop={() => void stopList()} />;
}

function Preview({
  ask,
  seen,
  onLook,
}: {
  ask: ImportSave;
  seen: StockImport;
  onLook: (ask: ImportSave) => void;
}) {
  return (
    <>
      <div className="flex flex-wrap gap-x-6 gap-y-2 pt-4 text-body">
        {seen.known_columns.map((name) => (
          <label key={name}>
            {name.replace("_", " ")}{" "}
            <select
              className="written text-body"
              value={seen.columns[name] ?? ""}
              onChange={(event) => {
                const { [name]: _before, ...others } = seen.columns;
                const columns =
                  event.target.value === "" ? others : { ...others, [name]: Number(event.target.value) };
                onLook({ ...ask, columns });
              }}
            >
              <option value="">none</option>
              {seen.headings.map((heading, index) => (
                <option key={`${heading}${index.toString()}`} value={index}>
                  {heading || `column ${index + 1}`}
                </option>
              ))}
            </select>
          </label>
        ))}
        <label>
          days are written{" "}
          <select
            className="written text-body"
            value={ask.date_order ?? ""}
            onChange={(event) => onLook({ ...ask, date_order: event.target.value || null })}
          >
            <option value="">as they tell</option>
            {seen.date_orders.map((order) => (
              <option key={order}>{order}</option>
            ))}
          </select>
        </label>
        <label>
          decimals are written{" "}
          <select
            className="written text-body"
            value={ask.decimal_sign ?? ""}
            onChange={(event) =>
              onLook({ ...ask, decimal_sign: (event.target.value || null) as ImportSave["decimal_sign"] })
            }
          >
            <option value="">as they tell</option>
            <option value=".">1.5</option>
            <option value=",">1,5</option>
          </select>
        </label>
      </div>
      <p className="pt-3 text-row">
        {seen.in_all} rows, {seen.asked} to be asked about.
      </p>
      <section
        className="max-h-80 overflow-y-auto"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
        tabIndex={0}
        aria-label="Every row's fate"
      >
        <table className="w-full text-body">
          <tbody>
            {seen.rows.map((row) => (
              <tr key={row.row} className="border-b-[0.9px] border-ink align-top">
                <td className="py-1 pr-3 text-soft">{row.row}</td>
                <td className="pr-3">{row.text}</td>
                <td className={row.fate === "asked" ? "font-semibold text-rosy" : ""}>
                  {row.fate === "asked"
                    ? row.why
                    : row.fate === "lot"
                      ? `${sayMass(Number(row.quantity_g))} of ${row.ingredient}${row.price ? `, ${row.price} ${row.currency}` : ""}`
                      : `price of ${row.ingredient}: ${row.price} ${row.currency}`}
                  {row.fate === "asked" &&
                    row.suggestions.map((id) => (
                      <button
                        key={id}
                        type="button"
                        className="ml-3 border-b border-ink font-normal text-ink"
                        onClick={() =>
                          onLook({
                            ...ask,
                            meanings: { ...ask.meanings, [nameIn(row.text)]: id },
                          })
                        }
                      >
                        {id}
                      </button>
                    ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

/** The name stands first in most lists; what is taught is the whole of it. */
const nameIn = (text: string) => text.split(" · ")[0] ?? text;
