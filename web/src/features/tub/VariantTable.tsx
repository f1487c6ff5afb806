import { Link } from "react-router";
import type { Series, SeriesVariant } from "../../api";
import { fixed, percent } from "../../lib/numbers";

const MOST_LINES = 5;

/** All variants on one sheet: figures of every reading, cost, and what differs from the first. */
export function VariantTable({
  series,
  said,
}: {
  series: Series;
  said: (variant: SeriesVariant) => number | null;
}) {
  const { variants } = series;
  const rows: [string, (variant: SeriesVariant) => string][] = [
    ["The Desk said", (variant) => inUnit(said(variant), series.reading.unit)],
    ...series.readings
      .filter((reading) => variants.some((variant) => variant.figures[reading.id]))
      .map((reading): [string, (variant: SeriesVariant) => string] => [
        `${reading.label}, seen`,
        (variant) => {
          const figures = variant.figures[reading.id];
          return figures ? `${fixed(figures.mean, 2)} ${reading.unit} in ${figures.n}` : "–";
        },
      ]),
    [
      "A bath costs",
      (variant) => (variant.cost_bath ? `${variant.cost_bath} ${variant.currency}` : "not known"),
    ],
    [
      "Differs from A",
      (variant) =>
        variant.differs.length === 0
          ? variant.letter === "A"
            ? "–"
            : "in no line"
          : variant.differs
              .slice(0, MOST_LINES)
              .map((line) => `${line.name} ${percent(line.first_pct)} → ${percent(line.second_pct)} %`)
              .join("; "),
    ],
  ];
  return (
    <table className="mt-8 w-full text-body">
      <caption className="text-left text-row italic text-soft">On one sheet</caption>
      <thead>
        <tr className="border-b-[0.9px] border-ink text-left">
          <td />
          {variants.map((variant) => (
            <th key={variant.letter} scope="col" className="py-1 font-medium">
              {variant.letter}{" "}
              <Link className="underline underline-offset-4" to={`/formulas/${variant.formula_id}`}>
                {variant.name}
              </Link>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([label, cell]) => (
          <tr key={label} className="border-b-[0.9px] border-ink align-top">
            <th scope="row" className="py-1 pr-6 text-left font-normal italic text-soft">
              {label}
            </th>
            {variants.map((variant) => (
              <td key={variant.letter} className="pr-4">
                {cell(variant)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const inUnit = (value: number | null, unit: string) => (value === null ? "–" : `${fixed(value, 1)} ${unit}`);
