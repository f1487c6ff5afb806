import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import {
  type FormulaAnswer,
  type Money,
  messageOf,
  putFormula,
  tellMoney,
  useAnswer,
  useFormula,
} from "../../api";
import { figure, fixed, sayMass } from "../../lib/numbers";
import { inUnits, massUnit, signed, toShown } from "../../lib/units";
import { Button, HeadRow, KeptNumber, Plot, useNotice } from "../../ui";
import { PieceDrawing } from "./PieceDrawing";

type Making = FormulaAnswer["formula"]["making"];

/** What a piece costs all in, what is left of its price, and what another size of the batch would change. */
export function MoneyPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>{formula.data ? `Money of ${formula.data.formula.name}` : "Money"}</h1>
      <p className="text-row text-soft">
        <Link className="underline underline-offset-4" to={`/formulas/${id}`}>
          Back to its Desk
        </Link>
      </p>
      {formula.error && <p className="pt-6 text-reading text-rosy">{messageOf(formula.error)}</p>}
      {formula.isFetchedAfterMount && formula.data && (
        <Reckoned answer={formula.data} key={formula.data.revision} />
      )}
    </div>
  );
}

function Reckoned({ answer }: { answer: FormulaAnswer }) {
  const [making, setMaking] = useState<Making>(answer.formula.making);
  const file = useMemo(() => ({ ...answer.formula, making }), [answer, making]);
  const told = useAnswer(
    useMemo(() => (signal: AbortSignal) => tellMoney(file, signal), [file]),
    120,
  );
  const money = told.answer;
  return (
    <>
      <MakingSentence making={making} currency={money?.currency ?? ""} onChange={setMaking} />
      <Keep answer={answer} making={making} />
      {told.error ? (
        <p role="alert" className="pt-4 text-reading text-rosy">
          {messageOf(told.error)}
        </p>
      ) : null}
      {money && <Told money={money} name={answer.formula.name} />}
    </>
  );
}

/** Everything beside the ingredients, in one sentence; money stays decimal text. */
function MakingSentence({
  making,
  currency,
  onChange,
}: {
  making: Making;
  currency: string;
  onChange: (making: Making) => void;
}) {
  const paid = (name: keyof Making, label: string) => (
    <KeptNumber
      label={label}
      className="w-16 text-center font-semibold"
      value={Number(making[name])}
      shown={signed(making[name])}
      least={0}
      empty={false}
      onKeep={(value) => value !== null && onChange({ ...making, [name]: String(value) })}
    />
  );
  return (
    <p className="pt-3 text-row leading-9">
      A piece is sold for {paid("price_per_piece", "Price of a piece")} {currency}. Its packaging costs{" "}
      {paid("packaging_per_piece", "Packaging of a piece")} {currency}. A batch takes{" "}
      {paid("labour_minutes", "Minutes of work on a batch")} minutes,{" "}
      {paid("fixed_minutes", "Minutes whatever the size")} of them whatever its size, at{" "}
      {paid("labour_per_hour", "Pay of an hour")} {currency} an hour;{" "}
      {paid("overhead_pct", "Overhead in per cent")} % goes on top.
    </p>
  );
}

function Keep({ answer, making }: { answer: FormulaAnswer; making: Making }) {
  const say = useNotice();
  const formula = useFormula(answer.id);
  const [busy, setBusy] = useState(false);
  const moved = JSON.stringify(making) !== JSON.stringify(answer.formula.making);
  if (!moved) return null;
  const put = async (revision: number, kept: Making) => {
    const after = await putFormula(answer.id, revision, { ...answer.formula, making: kept });
    await formula.refetch();
    return after;
  };
  const onKeep = async () => {
    setBusy(true);
    try {
      const after = await put(answer.revision, making);
      say("Kept with the formula.", {
        action: { label: "Take it back", run: () => void put(after.revision, answer.formula.making) },
      });
    } catch (error) {
      say(messageOf(error), { asks: true });
    } finally {
      setBusy(false);
    }
  };
  return (
    <p className="pt-1">
      <Button primary onClick={() => void onKeep()} disabled={busy}>
        Keep it with the formula
      </Button>
    </p>
  );
}

function Told({ money, name }: { money: Money; name: string }) {
  const written = money.written;
  const lots = Object.entries(money.lots).map(([currency, cost]) => `${signed(cost)} ${currency}`);
  if (!written)
    return (
      <p className="pt-4 text-reading text-soft">Nothing is in the bowl yet, so there is nothing to sell.</p>
    );
  return (
    <>
      <p className="pt-2 text-reading">
        {figure(written.pieces)} pieces of {sayMass(money.piece_mass_g)} cost{" "}
        <b>
          {signed(Number(written.whole).toFixed(2))} {money.currency}
        </b>{" "}
        each, all in
        {written.margin === null ? (
          "."
        ) : (
          <>
            ;{" "}
            <b className={Number(written.margin) < 0 ? "text-rosy" : "text-verd"}>
              {signed(Number(written.margin).toFixed(2))} {money.currency} or{" "}
              {fixed(written.margin_pct ?? 0, 0)} %
            </b>{" "}
            {Number(written.margin) < 0 ? "are missing at that price." : "of the price are left."}
          </>
        )}
      </p>
      <PieceDrawing money={money} name={name} />
      <div className="grid grid-cols-2 gap-x-14 pt-6 max-[1100px]:grid-cols-1">
        <Sizes money={money} />
        <section aria-label="The dearest ingredients">
          <h2 className="text-row italic text-soft">The dearest grams</h2>
          <table className="mt-1 w-full text-body">
            <tbody>
              {money.dearest.map((each) => (
                <tr key={each.ingredient} className="border-b-[0.9px] border-ink">
                  <th scope="row" className="py-1 text-left font-medium">
                    <Link className="hover:underline" to={`/pantry/${each.ingredient}`}>
                      {each.name}
                    </Link>
                  </th>
                  <td className="text-right">{sayMass(each.mass_g)}</td>
                  <td className="text-right text-soft">
                    {signed((Number(each.per_gram) * 1000).toFixed(2))} {money.currency} a kg
                  </td>
                  <td className="text-right font-semibold">
                    {signed(each.cost)} {money.currency}
                  </td>
                  <td className="text-right">{fixed(each.share_pct, 0)} %</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="pt-3 text-body">
            {lots.length > 0
              ? `By the jars it would be made from now, first expiring first: ${lots.join(" and ")} for the batch.`
              : "No jar on the shelf has a price yet."}
            {money.not_priced.length > 0 && (
              <span className="text-soft"> Without a priced jar: {money.not_priced.join(", ")}.</span>
            )}
          </p>
          {money.note && <p className="pt-2 text-caption text-soft">{inUnits(money.note)}</p>}
        </section>
      </div>
    </>
  );
}

/** A piece over the size of the batch: work that is the same for every batch thins out, large packs are cheaper. */
function Sizes({ money }: { money: Money }) {
  const most = Math.max(...money.sizes.map((each) => Number(each.whole)), Number(money.price));
  const points = (key: "whole" | "ingredients") =>
    money.sizes.map((each) => [each.batch_g / 1000, Number(each[key])] as [number, number]);
  const largest = money.sizes.at(-1)?.batch_g ?? 1000;
  return (
    <section aria-label="What a larger batch would change">
      <h2 className="text-row italic text-soft">If the batch were smaller or larger</h2>
      <Plot
        text={`Cost of a piece for batches up to ${sayMass(largest)}.`}
        x={{ min: 0, max: largest / 1000, label: "kg" }}
        y={{ min: 0, max: most * 1.1, label: money.currency }}
        lines={[
          { name: "all in", points: points("whole"), style: "wet" },
          { name: "ingredients", points: points("ingredients"), style: "ink" },
        ]}
        levels={Number(money.price) > 0 ? [{ name: "price", at: Number(money.price) }] : []}
        posts={[{ name: "as written", at: money.written_g / 1000 }]}
      />
      <table className="mt-1 w-full text-label">
        <HeadRow
          columns={[
            `batch, ${massUnit()}`,
            { says: "pieces", right: true },
            { says: `a piece, ${money.currency}`, right: true },
            { says: "left, %", right: true },
          ]}
        />
        <tbody>
          {money.sizes.map((each) => (
            <tr key={each.batch_g} className="border-b-[0.9px] border-ink text-right">
              <td className="text-left">{figure(toShown(each.batch_g, "g"))}</td>
              <td>{figure(Math.floor(each.pieces))}</td>
              <td>{signed(each.whole)}</td>
              <td>{each.margin_pct === null ? "–" : fixed(each.margin_pct, 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
