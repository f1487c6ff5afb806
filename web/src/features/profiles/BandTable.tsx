import type { Band, Reading } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Button, NumberInput } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";

/** A band while it is typed. */
export interface BandRow {
  reading: string;
  low: string;
  high: string;
}

const text = (value: number | null) => (value === null ? "" : String(value));

export const rowOf = (band: Band): BandRow => ({
  reading: band.reading,
  low: text(band.low),
  high: text(band.high),
});

/** The ends as numbers: null where empty, NaN where it is no number. */
export const bandOf = (row: BandRow): Band => ({
  reading: row.reading,
  low: readDecimal(row.low),
  high: readDecimal(row.high),
});

interface Props {
  rows: readonly BandRow[];
  aims: readonly Reading[];
  onChange: (rows: BandRow[]) => void;
}

/** A reading a row, with the least and the most that is wanted of it. */
export function BandTable({ rows, aims, onChange }: Props) {
  const set = (index: number, patch: Partial<BandRow>) =>
    onChange(rows.map((row, at) => (at === index ? { ...row, ...patch } : row)));
  return (
    <>
      <table className="mt-5 w-full text-body">
        <HeadRow
          columns={[
            "Reading",
            { says: "at least", className: "w-28" },
            { says: "at most", className: "w-28" },
            { says: "unit", className: "w-24" },
            { says: "", className: "w-24" },
          ]}
        />
        <tbody>
          {rows.map((row, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place while it is edited
            <tr key={index} className="border-b-[0.9px] border-ink">
              <td>
                <select
                  aria-label={`Reading ${index + 1}`}
                  className="written w-full text-body"
                  value={row.reading}
                  onChange={(event) => set(index, { reading: event.target.value })}
                >
                  {aims.map((reading) => (
                    <option key={reading.id} value={reading.id}>
                      {reading.label}
                    </option>
                  ))}
                </select>
              </td>
              {(["low", "high"] as const).map((end) => (
                <td key={end}>
                  <NumberInput
                    aria-label={`${end === "low" ? "At least" : "At most"}, reading ${index + 1}`}
                    className="w-20"
                    value={row[end]}
                    onChange={(event) => set(index, { [end]: event.target.value })}
                  />
                </td>
              ))}
              <td className="text-soft">{aims.find((reading) => reading.id === row.reading)?.unit}</td>
              <td className="text-right">
                <button
                  type="button"
                  className="border-b border-ink text-caption"
                  onClick={() => onChange(rows.filter((_, at) => at !== index))}
                >
                  Take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        className="mt-2"
        onClick={() => onChange([...rows, { reading: "lather.score", low: "", high: "" }])}
      >
        Another band
      </Button>
    </>
  );
}
