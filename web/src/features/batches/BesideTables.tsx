import type { BatchComparison } from "../../api";
import { figure, percent } from "../../lib/numbers";
import { HeadRow } from "../../ui/HeadRow";

/** The same in figures: what is otherwise and what it moves, the two records, readings, lines. */
export function BesideTables({
  comparison,
  numbers,
}: {
  comparison: BatchComparison;
  numbers: readonly [number, number];
}) {
  const moved = comparison.readings.filter((reading) => said(reading.first) !== said(reading.second));
  return (
    <div className="grid grid-cols-2 gap-x-14 gap-y-8 pt-6 max-[1000px]:grid-cols-1">
      <section aria-label="What the difference moves">
        <h2 className="text-row italic text-soft">Each difference alone, the heaviest first</h2>
        {comparison.differences.length === 0 && (
          <p className="text-body text-soft">None that a maker would notice.</p>
        )}
        <ol className="text-body">
          {comparison.differences.map((each) => (
            <li key={each.ingredient ?? "settings"} className="border-b-[0.9px] border-ink py-1">
              <b>{each.name}</b>
              {each.first_pct !== null &&
                each.second_pct !== null &&
                `, ${percent(each.first_pct)} to ${percent(each.second_pct)} %`}
              <span className="block text-caption text-soft">
                {each.moves
                  .map((move) => `${move.label} ${signed(move.by)} ${move.unit}`.trimEnd())
                  .join(", ")}
              </span>
            </li>
          ))}
        </ol>
      </section>
      <Table
        caption="What stands in the two records"
        numbers={numbers}
        rows={comparison.facts.map((fact) => ({
          key: fact.id,
          label: fact.label,
          unit: fact.unit,
          first: plain(fact.first),
          second: plain(fact.second),
          differs: fact.differs,
        }))}
      />
      <Table
        caption="Readings as made, a kilo of each"
        numbers={numbers}
        rows={moved.map((reading) => ({
          key: reading.reading,
          label: reading.label,
          unit: reading.unit,
          first: said(reading.first),
          second: said(reading.second),
          differs: true,
        }))}
      />
      <Table
        caption="Lines as made, in per cent"
        numbers={numbers}
        rows={comparison.lines.map((line) => ({
          key: line.ingredient,
          label: line.name,
          unit: "%",
          first: percent(line.first_pct),
          second: percent(line.second_pct),
          differs: percent(line.first_pct) !== percent(line.second_pct),
        }))}
      />
    </div>
  );
}

const said = (value: number | null) => (value === null ? "–" : figure(value));
const plain = (value: string | number | null) => (typeof value === "number" ? figure(value) : (value ?? "–"));
const signed = (value: number) => (value > 0 ? `+${figure(value)}` : figure(value).replace("-", "−"));

interface TableRow {
  key: string;
  label: string;
  unit: string;
  first: string;
  second: string;
  differs: boolean;
}

function Table({
  caption,
  numbers,
  rows,
}: {
  caption: string;
  numbers: readonly [number, number];
  rows: readonly TableRow[];
}) {
  return (
    <table className="w-full self-start text-body">
      <caption className="text-left text-row italic text-soft">{caption}</caption>
      <HeadRow
        columns={[
          "",
          ...numbers.map((number) => ({ says: `batch ${number}`, right: true, className: "w-36" })),
        ]}
      />
      <tbody>
        {rows.map((row) => (
          <tr
            key={row.key}
            className={`border-b-[0.9px] border-ink align-baseline ${row.differs ? "font-bold" : "text-soft"}`}
          >
            <th scope="row" className="py-0.5 text-left [font-weight:inherit]">
              {row.label} <span className="text-caption font-medium text-soft">{row.unit}</span>
            </th>
            <td className="text-right">{row.first}</td>
            <td className="text-right">{row.second}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
