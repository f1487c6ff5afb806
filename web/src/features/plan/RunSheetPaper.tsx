import type { RunSheet } from "../../api";
import { fixed, gramsAsWeighed, sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { HeadRow } from "../../ui";

/** The sheet that goes to the bench: one page of A4 or Letter. */
export function RunSheetPaper({ sheet }: { sheet: RunSheet }) {
  const portions = new Set(sheet.groups.map((group) => group.portion)).size;
  return (
    <article
      aria-label="Run sheet"
      className="one-page mt-6 grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-x-12 bg-lit px-10 py-8 max-[900px]:grid-cols-1 print:mt-0 print:grid-cols-[5fr_6fr] print:gap-x-8 print:p-0"
    >
      <header className="col-span-full flex items-baseline justify-between border-b-2 border-ink pb-2">
        <h2 className="text-heading font-[350] print:text-[20pt]">{sheet.name}</h2>
        <p className="text-reading">
          {sheet.pieces} × {sayMass(sheet.piece_mass_g)}, {sheet.method_name.toLowerCase()}
        </p>
      </header>
      <section aria-label="Weigh everything first" className="pt-4">
        <h3 className="text-reading italic">Weigh everything first</h3>
        <table className="mt-1 w-full text-body">
          <HeadRow
            columns={[
              { says: <span className="sr-only">Ingredient</span> },
              { says: "g", right: true },
              { says: "oz", right: true },
              { says: "weighed", right: true, className: "w-20" },
            ]}
          />
          {sheet.groups.map((group) => (
            <tbody key={`${group.portion}${group.phase}`}>
              <tr>
                <th
                  scope="colgroup"
                  colSpan={4}
                  className="pt-2 text-left text-caption font-normal italic text-soft"
                >
                  {portions > 1 ? `${group.portion}: ${group.label.toLowerCase()}` : group.label}
                </th>
              </tr>
              {group.lines.map((line, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the same ingredient may stand twice
                <tr key={`${line.ingredient}${index}`} className="border-b-[0.9px] border-ink">
                  <td className="py-0.5">
                    {line.name}
                    {line.note && <span className="block text-hint text-soft">{line.note}</span>}
                  </td>
                  <td className="text-right text-reading font-semibold">{gramsAsWeighed(line.mass_g)}</td>
                  <td className="text-right text-caption">{fixed(line.mass_oz, 2)}</td>
                  <td />
                </tr>
              ))}
            </tbody>
          ))}
          <tfoot>
            <tr className="border-t-2 border-ink text-reading font-semibold">
              <td className="pt-1">All together</td>
              <td className="pt-1 text-right">{gramsAsWeighed(sheet.batch_g)}</td>
              <td className="pt-1 text-right text-caption">{fixed(sheet.batch_oz, 2)}</td>
              <td />
            </tr>
          </tfoot>
        </table>
        <h3 className="pt-4 text-caption italic text-soft">What happened</h3>
        <div aria-hidden="true">
          {["a", "b", "c"].map((rule) => (
            <div key={rule} className="h-6 border-b-[0.9px] border-soft" />
          ))}
        </div>
        {sheet.left_out.length > 0 && (
          <p className="pt-2 text-label font-semibold text-rosy">
            Not on this sheet: {sheet.left_out.join("; ")}.
          </p>
        )}
      </section>
      <section aria-label="Then, in this order" className="pt-4">
        <h3 className="text-reading italic">Then, in this order</h3>
        <ol className="mt-1">
          {sheet.steps.map((step) => (
            <li key={step.number} className="grid grid-cols-[26px_1fr] border-b-[0.9px] border-ink py-1.5">
              <span className="text-reading font-semibold">{step.number}</span>
              <span className="text-body">
                {inUnits(step.text)}
                {step.caution && <b className="block text-label font-semibold text-rosy">{step.caution}</b>}
              </span>
            </li>
          ))}
        </ol>
        <h3 className="pt-3 text-caption italic text-soft">Always</h3>
        <ul className="text-caption">
          {sheet.cautions.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      </section>
    </article>
  );
}
