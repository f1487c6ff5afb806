import { useEffect, useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import {
  assessorFolderAddress,
  drawLabels,
  type LabelDrawing,
  labelAddress,
  messageOf,
  productRecordAddress,
  useAnswer,
  useBatch,
  useFormula,
  useLabels,
  useSettings,
} from "../../api";
import { readDecimal } from "../../lib/decimals";
import { fixed } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { NumberInput } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { DrawnLots } from "../batches/DrawnLots";
import { Clearances } from "../sales";
import { FactsForm, factsOf, NOTHING_TYPED, type TypedFacts } from "./FactsForm";
import { LabelView } from "./LabelView";
import { PrintForm } from "./PrintForm";

type Market = "US" | "EU" | "UK";
const MARKETS: readonly Market[] = ["US", "EU", "UK"];

/** The label of a formula, or of a batch as it was really made: markets side by side at true size. */
export function LabelPage() {
  const params = useParams();
  return params.batchId ? (
    <OfBatch id={Number(params.batchId)} />
  ) : (
    <OfFormula id={Number(params.formulaId)} />
  );
}

function OfFormula({ id }: { id: number }) {
  const formula = useFormula(id);
  if (formula.error && !formula.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(formula.error)}</p>;
  return (
    <Labels
      of={{ formula_id: id }}
      name={formula.data?.formula.name ?? ""}
      back={`/formulas/${id}`}
      word="Its Desk"
    />
  );
}

function OfBatch({ id }: { id: number }) {
  const batch = useBatch(id);
  if (batch.error && !batch.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(batch.error)}</p>;
  const name = batch.data ? `${batch.data.name}, batch ${id}` : "";
  return <Labels of={{ batch_id: id }} name={name} back={`/batches/${id}`} word="Its record" />;
}

interface Props {
  of: { formula_id?: number; batch_id?: number };
  name: string;
  back: string;
  word: string;
}

function Labels({ of, name, back, word }: Props) {
  const settings = useSettings();
  const [markets, setMarkets] = useState<readonly Market[]>();
  const [typed, setTyped] = useState<TypedFacts>(NOTHING_TYPED);
  const [size, setSize] = useState({ width: "90", height: "70" });
  const chosen = markets ?? (settings.data?.markets as readonly Market[] | undefined);
  const [width_mm, height_mm] = [readDecimal(size.width), readDecimal(size.height)];
  const sized = width_mm !== null && height_mm !== null && width_mm > 0 && height_mm > 0;
  const { formula_id, batch_id } = of;
  const ask = useMemo(
    () =>
      chosen && sized
        ? (signal: AbortSignal) =>
            drawLabels(
              {
                formula_id: formula_id ?? null,
                batch_id: batch_id ?? null,
                markets: [...chosen],
                width_mm,
                height_mm,
                facts: factsOf(typed),
              },
              signal,
            )
        : null,
    [formula_id, batch_id, chosen, sized, width_mm, height_mm, typed],
  );
  const told = useAnswer(ask);
  const drawing = told.answer;
  useEffect(() => {
    document.title = name ? `Label of ${name}` : "Label";
  }, [name]);
  const onMarket = (market: Market, on: boolean) => {
    const next = MARKETS.filter((each) => (each === market ? on : chosen?.includes(each)));
    if (next.length > 0) setMarkets(next);
  };
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Label of {name}</h1>
      <p className="flex flex-wrap items-baseline gap-x-6 text-row text-soft">
        <Link className="underline underline-offset-4" to={back}>
          {word}
        </Link>
        {MARKETS.map((market) => (
          <label key={market} className="flex min-h-8 items-center gap-2 text-ink">
            <input
              type="checkbox"
              checked={chosen?.includes(market) ?? false}
              onChange={(event) => onMarket(market, event.target.checked)}
            />
            {market}
          </label>
        ))}
        <span className="text-ink">
          <NumberInput
            aria-label="Width of the label in millimetres"
            className="w-14 text-center"
            value={size.width}
            onChange={(event) => setSize({ ...size, width: event.target.value })}
          />{" "}
          by{" "}
          <NumberInput
            aria-label="Height of the label in millimetres"
            className="w-14 text-center"
            value={size.height}
            onChange={(event) => setSize({ ...size, height: event.target.value })}
          />{" "}
          mm
        </span>
        {batch_id !== undefined && (
          <a className="underline underline-offset-4" href={productRecordAddress(batch_id)} download>
            Product record as PDF
          </a>
        )}
        {batch_id !== undefined && (
          <a className="underline underline-offset-4" href={assessorFolderAddress(batch_id)} download>
            Assessor's folder as zip
          </a>
        )}
      </p>
      <FactsForm
        typed={typed}
        said={drawing?.facts}
        onType={(some) => setTyped((before) => ({ ...before, ...some }))}
      />
      {told.error ? (
        <p role="alert" className="pt-4 text-reading text-rosy">
          {messageOf(told.error)}
        </p>
      ) : null}
      {drawing && (
        <>
          <div className="flex flex-wrap items-start gap-x-10 gap-y-8 pt-5">
            {drawing.labels.map((label) => (
              <LabelView
                key={label.market}
                label={label}
                drawing={drawing}
                name={name}
                onSize={(width, height) => setSize({ width: String(width), height: String(height) })}
              />
            ))}
          </div>
          <PrintForm of={of} typed={typed} drawing={drawing} />
          <Known drawing={drawing} />
          {batch_id !== undefined && <Clearances batch={batch_id} />}
          {batch_id !== undefined && <DrawnLots batch={batch_id} />}
          <Differences drawing={drawing} />
          <Kept of={of} />
        </>
      )}
    </div>
  );
}

/** What the batch says of itself, and from where. */
function Known({ drawing }: { drawing: LabelDrawing }) {
  if (drawing.known.length === 0) return null;
  return (
    <section aria-label="What the batch knows" className="pt-8">
      <h2 className="text-row italic text-soft">What the batch knows</h2>
      <ul className="text-body">
        {drawing.known.map((each) => (
          <li key={each.fact + each.value}>
            {each.fact.replaceAll("_", " ")}: <b>{inUnits(each.value)}</b>{" "}
            <span className="text-soft">{inUnits(each.source)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where two markets part, and by which rule. */
function Differences({ drawing }: { drawing: LabelDrawing }) {
  const [first, second] = drawing.labels;
  if (!first || !second) return null;
  const rules = new Map(drawing.rules.map((rule) => [rule.id, rule]));
  return (
    <section aria-label="What differs" className="pt-8">
      <h2 className="text-row italic text-soft">What differs, and by which rule</h2>
      <table className="w-full text-label">
        <HeadRow
          columns={[
            <span key="element" className="sr-only">
              Element
            </span>,
            first.market,
            second.market,
            "by",
          ].map((says) => ({ says, className: "pr-6" }))}
        />
        <tbody>
          {drawing.differences.map((each) => (
            <tr key={each.element} className="border-b-[0.9px] border-ink align-top">
              <th scope="row" className="py-1 pr-6 text-left font-medium">
                {each.element.replaceAll("_", " ")}
              </th>
              <td className="pr-6">
                {each.first ? `${each.first} (${fixed(each.first_mm ?? 0, 2)} mm)` : "not there"}
              </td>
              <td className="pr-6">
                {each.second ? `${each.second} (${fixed(each.second_mm ?? 0, 2)} mm)` : "not there"}
              </td>
              <td className="text-soft">
                {each.rules.map((rule) => rules.get(rule)?.citation ?? rule).join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Labels that were printed, as they were. */
function Kept({ of }: { of: Props["of"] }) {
  const kept = useLabels(of);
  if (!kept.data || kept.data.items.length === 0) return null;
  return (
    <section aria-label="Printed labels" className="pt-8">
      <h2 className="text-row italic text-soft">Printed, and kept as they were</h2>
      <ul className="text-body">
        {kept.data.items.map((label) => (
          <li key={label.id} className="flex flex-wrap gap-x-5 border-b-[0.9px] border-ink py-1">
            <b>Label {label.id}</b>
            <span>
              {label.market}, {label.width_mm} × {label.height_mm} mm, {label.copies} printed{" "}
              {label.created_at.slice(0, 10)}
            </span>
            {label.draft && <span className="text-rosy">a draft</span>}
            <a className="underline underline-offset-4" href={labelAddress(label.id, "pdf")} download>
              PDF
            </a>
            <a className="underline underline-offset-4" href={labelAddress(label.id, "svg")} download>
              SVG
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
