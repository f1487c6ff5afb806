import { useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  type Certificate,
  type LotTrace,
  messageOf,
  useCertifyLot,
  useCountLot,
  useHoldLot,
  useLotTrace,
  useNameLot,
  useWithdrawLot,
} from "../../api";
import { benchFigure, sayBenchMass } from "../../lib/numbers";
import { AskedOnce } from "../../lib/plausible";
import { inUnits, massUnit, readTyped } from "../../lib/units";
import { Button, Field, NumberInput, useNotice } from "../../ui";
import { CertificateFields } from "../ingredients";
import { Jar } from "./Jar";

const KIND: Record<string, string> = {
  bought: "bought",
  used: "used",
  stocktake: "counted",
  wasted: "wasted",
  withdrawn: "taken out",
};

/** One lot: what came and went, the batches and pieces it is in, and counting it. */
export function LotPage() {
  const trace = useLotTrace(Number(useParams().lotId));
  if (trace.error && !trace.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(trace.error)}</p>;
  if (!trace.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Sheet trace={trace.data} />;
}

function Sheet({ trace }: { trace: LotTrace }) {
  const { lot, uses, movements } = trace;
  const pieces = uses.reduce((sum, use) => sum + use.pieces, 0);
  const name = useNameLot();
  const say = useNotice();
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>
        {lot.name}, {lot.code}
      </h1>
      <p className="text-row text-soft">
        {lot.supplier && `From ${lot.supplier}. `}
        {lot.bought_on && `Bought ${lot.bought_on}. `}
        {lot.best_before && `Best before ${lot.best_before}. `}
        {lot.price && `${lot.price} ${lot.currency}. `}
        <Link className="underline underline-offset-4" to="/pantry/lots">
          All jars
        </Link>
      </p>
      {lot.said.map((word) => (
        <p key={word.code} className="text-reading font-semibold text-rosy">
          {inUnits(word.text)}
        </p>
      ))}
      <div className="grid grid-cols-[180px_1fr] gap-10 pt-6 max-[800px]:grid-cols-1">
        <Jar lot={lot} />
        <section aria-label="Where it went">
          <h2 className="text-row italic text-soft">
            {uses.length === 0
              ? "No batch has drawn from it."
              : `In ${uses.length} ${uses.length === 1 ? "batch" : "batches"}, ${pieces} pieces`}
          </h2>
          <ul>
            {uses.map((use) => (
              <li
                key={use.batch_id}
                className="flex flex-wrap gap-x-6 border-b-[0.9px] border-ink py-1 text-reading"
              >
                <Link className="underline underline-offset-4" to={`/batches/${use.batch_id}`}>
                  {use.name}, batch {use.batch_id}
                </Link>
                <span>{use.pieces} pieces</span>
                <span>{sayBenchMass(use.mass_g)}</span>
                {use.assumed_g > 0 && (
                  <span className="font-semibold text-rosy">
                    {use.assumed_g >= use.mass_g ? "assumed" : `${sayBenchMass(use.assumed_g)} of it assumed`}{" "}
                    <button
                      type="button"
                      className="min-h-6 border-b border-ink font-medium text-ink"
                      disabled={name.isPending}
                      aria-label={`It was this one: batch ${use.batch_id}`}
                      onClick={() =>
                        void name
                          .mutateAsync({
                            batch: use.batch_id,
                            ingredient: lot.ingredient,
                            code: lot.code,
                            mass_g: use.mass_g,
                          })
                          .catch((error: unknown) => say(messageOf(error), { asks: true }))
                      }
                    >
                      It was this one
                    </button>
                  </span>
                )}
                <span className="text-soft">{use.made_at.slice(0, 10)}</span>
              </li>
            ))}
          </ul>
          <Count trace={trace} />
          <Paper trace={trace} />
          <Held trace={trace} />
        </section>
      </div>
      <table className="mt-8 w-full text-body">
        <caption className="text-left text-row italic text-soft">What came and went</caption>
        <tbody>
          {movements.map((each) => (
            <tr key={each.id} className="border-b-[0.9px] border-ink">
              <td className="py-1">{each.at.slice(0, 16).replace("T", " ")}</td>
              <td>{KIND[each.kind] ?? each.kind}</td>
              <td className="text-right">
                {each.mass_g > 0 ? "+" : ""}
                {sayBenchMass(each.mass_g)}
              </td>
              <td className="pl-6">{each.batch_id ? `batch ${each.batch_id}` : each.reason}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The supplier's paper of this very lot: it goes before the ingredient's, at the Desk and on labels. */
function Paper({ trace }: { trace: LotTrace }) {
  const certify = useCertifyLot(trace.lot.id);
  const say = useNotice();
  return (
    <section aria-label="Certificate of this lot" className="pt-6">
      <h2 className="text-row italic text-soft">Its own certificate, where it is a scent</h2>
      <CertificateFields
        name={trace.lot.code}
        paper={trace.lot.certificate as Certificate | null}
        onChange={(paper) =>
          certify.mutateAsync(paper).catch((error: unknown) => say(messageOf(error), { asks: true }))
        }
      />
    </section>
  );
}

/** Held back or released, with who and why; nothing of it is rubbed out. */
function Held({ trace }: { trace: LotTrace }) {
  const [reason, setReason] = useState("");
  const [who, setWho] = useState("");
  const hold = useHoldLot(trace.lot.id);
  const say = useNotice();
  const state = trace.lot.held ? ("released" as const) : ("held" as const);
  return (
    <section aria-label="Held or released" className="pt-6">
      <h2 className="text-row italic text-soft">{trace.lot.held ? "Held back" : "Hold it back"}</h2>
      <ul className="text-label text-soft">
        {trace.states.map((each) => (
          <li key={each.at}>
            {each.state} {each.at.slice(0, 16).replace("T", " ")}
            {each.who && ` by ${each.who}`}: {each.reason}
          </li>
        ))}
      </ul>
      <form
        className="no-print flex flex-wrap items-end gap-5 text-row"
        onSubmit={(event) => {
          event.preventDefault();
          hold
            .mutateAsync({ state, reason, who })
            .then(() => setReason(""))
            .catch((error: unknown) => say(messageOf(error), { asks: true }));
        }}
      >
        <Field
          className="w-72"
          label={trace.lot.held ? "Why it may be used" : "Why it may not be used"}
          value={reason}
          maxLength={500}
          onChange={(event) => setReason(event.target.value)}
        />
        <Field
          className="w-40"
          label="Who says so"
          value={who}
          maxLength={200}
          onChange={(event) => setWho(event.target.value)}
        />
        <Button type="submit">{trace.lot.held ? "Release it" : "Hold it back"}</Button>
        <Link
          className="underline underline-offset-4"
          to={`/found?code=${encodeURIComponent(trace.lot.code)}`}
        >
          Where it went, as a recall
        </Link>
      </form>
    </section>
  );
}

function Count({ trace }: { trace: LotTrace }) {
  const [left, setLeft] = useState("");
  const [reason, setReason] = useState("");
  const count = useCountLot(trace.lot.id);
  const asked = useRef(new AskedOnce());
  const withdraw = useWithdrawLot(trace.lot.id);
  const say = useNotice();
  const navigate = useNavigate();
  const attempt = async (act: () => Promise<unknown>, done: () => unknown) => {
    try {
      await act();
      await done();
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const onCount = () => {
    const left_g = readTyped(left, "g");
    if (left_g === null || Number.isNaN(left_g)) return say("How much is in it?", { asks: true });
    if (left_g < 0) return say("A jar holds nothing at the least: count it again.", { asks: true });
    const doubt = asked.current.about(left_g, trace.lot.left_g, "g");
    if (doubt) return say(doubt, { asks: true });
    void attempt(
      () => count.mutateAsync({ left_g, reason }),
      () => {
        setLeft("");
        setReason("");
      },
    );
  };
  return (
    <form
      className="no-print flex flex-wrap items-end gap-5 pt-6 text-row"
      onSubmit={(event) => {
        event.preventDefault();
        onCount();
      }}
    >
      <label>
        By the scale{" "}
        <NumberInput
          className="w-24 text-center"
          value={left}
          placeholder={benchFigure(trace.lot.left_g)}
          onChange={(event) => setLeft(event.target.value)}
        />{" "}
        {massUnit()}
      </label>
      <Field
        className="w-64"
        label="Why otherwise"
        placeholder="counted, spilt, gone off"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <Button type="submit">Count it</Button>
      {trace.uses.length === 0 && (
        <Button
          onClick={() =>
            void attempt(
              () => withdraw.mutateAsync(null),
              () => navigate("/pantry/lots"),
            )
          }
        >
          Entered by mistake
        </Button>
      )}
    </form>
  );
}
