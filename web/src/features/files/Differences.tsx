import type { Imported } from "../../api";
import { HeadRow } from "../../ui";

type Side = Record<string, unknown>;

/** Both sides of what was not the same in the two studios: only what differs, side by side. */
export function Differences({ found }: { found: Imported }) {
  if (found.differences.length === 0)
    return <p className="pt-4 text-body">Nothing differed between the two studios.</p>;
  return (
    <section aria-label="What differed" className="pt-4">
      <h3 className="text-row italic text-soft">What differed, both sides</h3>
      <table className="w-full text-label">
        <HeadRow columns={["What", "here", "there", "done"]} />
        <tbody>
          {found.differences.map((each, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a difference is known by its place in the answer
            <tr key={index} className="border-b-[0.9px] border-ink align-top">
              <th scope="row" className="py-1 pr-4 text-left font-medium">
                {each.name} <span className="text-soft">({each.noun})</span>
              </th>
              <td className="pr-4">{onlyIn(each.here, each.there)}</td>
              <td className="pr-4">{onlyIn(each.there, each.here)}</td>
              <td>{each.done}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The fields of one side that the other has not so; of a formula the lines. */
function onlyIn(one: Side, other: Side): string {
  const lines = (side: Side) => linesOf(side);
  if (Array.isArray(one.portions)) {
    const theirs = new Set(lines(other));
    return (
      lines(one)
        .filter((line) => !theirs.has(line))
        .join("; ") || "the same lines, other settings"
    );
  }
  return Object.keys(one)
    .filter((key) => JSON.stringify(one[key]) !== JSON.stringify(other[key]))
    .map((key) => `${key.replaceAll("_", " ")}: ${short(one[key])}`)
    .join("; ");
}

const linesOf = (side: Side): string[] =>
  (
    (side.portions as { lines: { ingredient: string | null; amount: string; unit: string }[] }[]) ?? []
  ).flatMap((portion) =>
    portion.lines.map((line) => `${line.ingredient ?? "?"} ${line.amount} ${line.unit}`),
  );

function short(value: unknown): string {
  const text = typeof value === "string" ? value : JSON.stringify(value);
  return text.length > 120 ? `${text.slice(0, 117)}…` : text;
}
