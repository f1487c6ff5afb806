import { useState } from "react";
import { Link, useParams } from "react-router";
import { messageOf, type PracticeAct, type PracticeRun, useActInRun, usePracticeRun } from "../../api";
import { benchFigure, fixed, sayMass, sayTemperature } from "../../lib/numbers";
import { inUnits, massUnit, readTyped } from "../../lib/units";
import { NumberInput, useNotice } from "../../ui";
import { Press } from "../bench";
import { Debrief } from "./Debrief";
import { TextureTile } from "./TextureTile";

const AMOUNTS_G = [2, 5, 10, 20, 40];

/** At a practice bowl: what the hands say, what can be done, one thing at a time. Marked on every side. */
export function RunPage() {
  const run = usePracticeRun(Number(useParams().runId));
  if (run.error && !run.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(run.error)}</p>;
  if (!run.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <p className="border-y-2 border-dashed border-rosy py-1 text-center text-body font-bold text-rosy">
        Practice: nothing here is weighed from your jars, written in your journal, or learnt from.
      </p>
      <h1>{run.data.title}</h1>
      <p className="max-w-[860px] text-row text-soft">
        {run.data.story}{" "}
        <Link className="underline underline-offset-4" to="/practice">
          All bowls
        </Link>
      </p>
      {run.data.ended && run.data.debrief ? (
        <Debrief run={run.data} found={run.data.debrief} />
      ) : (
        <Bowl run={run.data} />
      )}
    </div>
  );
}

function Bowl({ run }: { run: PracticeRun }) {
  const act = useActInRun(run.id);
  const say = useNotice();
  const last = run.felt.at(-1);
  const fresh = last !== undefined && run.minutes - last.minutes < 0.1;
  const onAct = (what: Partial<PracticeAct> & Pick<PracticeAct, "kind">) =>
    void act
      .mutateAsync({ after: run.done, act: { ingredient: "", value: 0, ...what } })
      .catch((error: unknown) => say(messageOf(error), { asks: true }));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-14 pt-4 max-[1000px]:grid-cols-1">
      <section aria-label="The dough">
        <p className="flex items-baseline gap-8 text-state">
          <span>
            {fixed(run.minutes, 1, true)} <span className="text-body">min</span>
          </span>
          <span>{sayTemperature(run.temperature_c)}</span>
          <span className="text-body text-soft">
            room {sayTemperature(run.room_c)}, {run.humidity_pct} % RH
          </span>
        </p>
        <div className="pt-3">
          {last ? (
            <TextureTile state={last.state} large />
          ) : (
            <p className="text-reading text-soft">Not judged yet.</p>
          )}
          <p className="text-state font-semibold" role="status">
            {last
              ? fresh
                ? last.state
                : `${last.state}, ${fixed(run.minutes - last.minutes, 1, true)} min ago`
              : "–"}
          </p>
          <p className="text-body text-soft">Wanted: {run.wanted.join(" or ")}.</p>
        </div>
        <p className="pt-4 text-body">
          {run.hint ? (
            <i>{run.hint}</i>
          ) : (
            <button
              type="button"
              disabled={act.isPending}
              className="min-h-12 border-b border-ink"
              onClick={() => onAct({ kind: "hint" })}
            >
              A hint, for {fixed(run.hint_costs, 0)} points
            </button>
          )}
        </p>
        <Recipe run={run} />
      </section>
      <section aria-label="What to do" className="flex flex-col gap-4">
        <Press disabled={act.isPending} next={!fresh} onClick={() => onAct({ kind: "feel" })}>
          Judge it with the hands
        </Press>
        <div className="grid grid-cols-2 gap-4">
          <Press disabled={act.isPending} onClick={() => onAct({ kind: "mix", value: 1 })}>
            Mix 1 minute
          </Press>
          <Press disabled={act.isPending} onClick={() => onAct({ kind: "mix", value: 3 })}>
            Mix 3 minutes
          </Press>
          <Press disabled={act.isPending} onClick={() => onAct({ kind: "rest", value: 5 })}>
            Rest 5 minutes
          </Press>
          <Press disabled={act.isPending} onClick={() => onAct({ kind: "rest", value: 10 })}>
            Rest 10 minutes
          </Press>
        </div>
        {[run.wet, run.dry].map((jar) => (
          <Add
            key={jar}
            name={run.jars.find((each) => each.ingredient === jar)?.name ?? jar}
            busy={act.isPending}
            onAdd={(mass_g) => onAct({ kind: "add", ingredient: jar, value: mass_g })}
          />
        ))}
        <Press
          disabled={act.isPending}
          next={fresh && run.wanted.includes(last?.state ?? "")}
          onClick={() => onAct({ kind: "shape" })}
        >
          It holds: shape it
        </Press>
      </section>
    </div>
  );
}

function Add({ name, busy, onAdd }: { name: string; busy: boolean; onAdd: (mass_g: number) => void }) {
  const [typed, setTyped] = useState("");
  const mass_g = readTyped(typed, "g");
  const good = mass_g !== null && mass_g > 0;
  return (
    <form
      className="flex flex-wrap items-stretch gap-3 text-state"
      onSubmit={(event) => {
        event.preventDefault();
        if (good) onAdd(mass_g);
        setTyped("");
      }}
    >
      <span className="w-44 self-center text-reading">Add {name.toLowerCase()}</span>
      {AMOUNTS_G.map((grams) => (
        <button
          key={grams}
          type="button"
          disabled={busy}
          className="min-h-12 min-w-14 border border-ink px-2 text-reading"
          onClick={() => onAdd(grams)}
        >
          {benchFigure(grams).replace(/[.,]0+$/, "")} {massUnit()}
        </button>
      ))}
      <label className="flex items-center gap-2 text-reading">
        <NumberInput
          aria-label={`${name}, how much`}
          className="h-12 w-20 text-center"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />{" "}
        {massUnit()}
      </label>
      <button type="submit" disabled={busy || !good} className="min-h-12 border border-ink px-3 text-reading">
        Add it
      </button>
    </form>
  );
}

function Recipe({ run }: { run: PracticeRun }) {
  return (
    <details className="pt-4 text-body" open>
      <summary className="min-h-8 text-soft">What the recipe says, and what was added</summary>
      <table className="w-full max-w-[420px]">
        <tbody>
          {run.jars.map((jar) => {
            const added = run.added.find((each) => each.ingredient === jar.ingredient)?.mass_g ?? 0;
            return (
              <tr key={jar.ingredient} className="border-b-[0.9px] border-ink">
                <th scope="row" className="py-0.5 text-left font-medium">
                  {inUnits(jar.name)}
                </th>
                <td className="text-right">{jar.mass_g === null ? "–" : sayMass(jar.mass_g)}</td>
                <td className="w-28 text-right font-bold">{added > 0 ? `+ ${sayMass(added)}` : ""}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
