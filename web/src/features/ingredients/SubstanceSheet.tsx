import { useState } from "react";
import { type Certificate, readSheet, type SheetRow } from "../../api";
import { Button, Sheet } from "../../ui";

type Substance = Certificate["substances"][number];

interface Props {
  name: string;
  kept: readonly Substance[];
  onKeep: (substances: Substance[]) => void;
}

/** The substances of a scent: how many are kept, and the supplier's sheet pasted, every row looked at before it counts. */
export function SubstanceSheet({ name, kept, onKeep }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <p className="flex w-full flex-wrap items-baseline gap-x-4 text-soft">
      {kept.length > 0 && (
        <span>
          {kept.length} {kept.length === 1 ? "substance" : "substances"} by its sheet
        </span>
      )}
      <Button aria-label={`Paste its sheet: ${name}`} onClick={() => setOpen(true)}>
        Paste its sheet
      </Button>
      {kept.length > 0 && (
        <Button aria-label={`Forget it: the sheet of ${name}`} onClick={() => onKeep([])}>
          Forget it
        </Button>
      )}
      {open && <Pasting name={name} onKeep={onKeep} onClose={() => setOpen(false)} />}
    </p>
  );
}

function Pasting({ name, onKeep, onClose }: { name: string; onKeep: Props["onKeep"]; onClose: () => void }) {
  const [text, setText] = useState("");
  const [rows, setRows] = useState<readonly SheetRow[]>();
  const [taken, setTaken] = useState<Record<number, string>>({});
  const known = (rows ?? []).map((row, at) => row.known_as ?? taken[at] ?? "");
  return (
    <Sheet
      onClose={onClose}
      title={`Allergen sheet of ${name}`}
      lead="Paste the table as it is. A name nobody knows is asked, and never printed on a label."
      submit={rows ? "Keep these rows" : "Read it"}
      onSubmit={async () => {
        if (!rows) {
          const found = await readSheet(text);
          if (found.length === 0)
            return "No substance was found in it; a row is a name or CAS number, and a share.";
          setRows(found);
          return "";
        }
        const listed = rows.flatMap((row, at) =>
          row.pct === null || taken[at] === LEFT_OUT
            ? []
            : [{ name: known[at] || row.name || (row.cas ?? ""), cas: row.cas, pct: row.pct }],
        );
        onKeep(listed);
        onClose();
        return "";
      }}
    >
      {!rows && (
        <label>
          <span className="text-body text-soft">The sheet</span>
          <textarea
            className="written block h-48 w-full text-body"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
      )}
      {rows && (
        <table className="w-full text-body">
          <caption className="sr-only">Rows of the sheet</caption>
          <tbody>
            {rows.map((row, at) => (
              <tr key={row.text} className="border-b-[0.9px] border-ink align-baseline">
                <th scope="row" className="py-1 text-left font-medium">
                  {row.known_as ?? row.name}
                </th>
                <td className="text-soft">{row.cas}</td>
                <td className="text-right">{row.pct === null ? "no share" : `${row.pct} %`}</td>
                <td>
                  {!row.known_as && (
                    <select
                      aria-label={`What is ${row.name}?`}
                      className="written"
                      value={taken[at] ?? ""}
                      onChange={(event) => setTaken({ ...taken, [at]: event.target.value })}
                    >
                      <option value="">not known, ask the supplier</option>
                      {row.nearest && <option value={row.nearest}>it is {row.nearest}</option>}
                      <option value={LEFT_OUT}>no substance, leave it out</option>
                    </select>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sheet>
  );
}

const LEFT_OUT = "-";
