import { useRef } from "react";
import { Link } from "react-router";
import type { Debriefing, PracticeRun } from "../../api";
import { figure, fixed, sayMass } from "../../lib/numbers";
import { inUnits, signed } from "../../lib/units";
import { DrawingTools, Plot } from "../../ui";

const PARTS = [
  ["dough", "the dough as it was shaped", 60],
  ["foam", "foam and fizz kept", 10],
  ["hours", "hours it will dry", 10],
  ["waste", "what had to be added", 10],
  ["minutes", "minutes at the bowl", 10],
] as const;

/** The truth: what was hidden, where the dough was at each moment, what each correction did, what the best hand would have done. */
export function Debrief({ run, found }: { run: PracticeRun; found: Debriefing }) {
  const drawing = useRef<SVGSVGElement>(null);
  const end = found.path.at(-1)?.minutes ?? 1;
  const most = Math.max(found.wanted_high, ...found.path.map((each) => each.now)) * 1.15;
  const says = `The dough over ${fixed(end, 0)} minutes: wanted ${fixed(found.wanted_low, 2)} to ${fixed(found.wanted_high, 2)}; it settles at ${fixed(found.settles_at, 2)}.`;
  return (
    <div className="pt-4">
      <p className="text-figure font-[350] leading-none">
        {fixed(found.score.whole ?? 0, 0)} <span className="text-state">of 100</span>
      </p>
      <p className="pt-1 text-reading">
        The best hand: {found.best.words.map(inUnits).join(", then ")}: {fixed(found.best.score, 0)} of 100.
      </p>
      <section aria-label="What was hidden" className="pt-4">
        <h2 className="text-row italic text-soft">What was hidden</h2>
        {found.truth.map((each) => (
          <p key={each} className="text-reading font-semibold">
            {inUnits(each)}
          </p>
        ))}
      </section>
      <div className="grid grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] gap-14 pt-6 max-[1000px]:grid-cols-1">
        <figure>
          <figcaption className="flex justify-between text-row italic text-soft">
            Where the dough was
            <DrawingTools
              name={`Practice: ${run.title}`}
              columns={["min", "as it felt, S", "where it would settle, S"]}
              rows={found.path
                .filter((_, index) => index % 4 === 0)
                .map((each) => [fixed(each.minutes, 1), fixed(each.now, 3), fixed(each.settles_at, 3)])}
              svg={() => drawing.current}
            />
          </figcaption>
          <Plot
            ref={drawing}
            text={says}
            x={{ min: 0, max: Math.max(1, end), label: "min" }}
            y={{ min: 0, max: most, label: "S" }}
            lane={{ name: "wanted", from: found.wanted_low, to: found.wanted_high }}
            lines={[
              {
                name: "as it felt",
                points: found.path.map((each) => [each.minutes, each.now]),
                style: "ink",
              },
              {
                name: "settles at",
                points: found.path.map((each) => [each.minutes, each.settles_at]),
                style: "dashed",
              },
            ]}
            posts={found.called.slice(-6).map((each) => ({ name: each.called, at: each.minutes }))}
          />
        </figure>
        <section aria-label="Points">
          <h2 className="text-row italic text-soft">Points</h2>
          <ul className="text-body">
            {PARTS.map(([name, words, of]) => (
              <li key={name} className="flex justify-between border-b-[0.9px] border-ink py-1">
                <span>{words}</span>
                <b>
                  {signed(String(found.score[name] ?? 0))} of {of}
                </b>
              </li>
            ))}
            {(found.score.hint ?? 0) < 0 && (
              <li className="flex justify-between border-b-[0.9px] border-ink py-1">
                <span>the hint</span>
                <b>{signed(`−${fixed(-(found.score.hint ?? 0), 0)}`)}</b>
              </li>
            )}
          </ul>
          <h2 className="pt-5 text-row italic text-soft">What you took it for</h2>
          {found.called.length === 0 && <p className="text-body">It was not judged.</p>}
          <ul className="text-body">
            {found.called.map((each) => (
              <li key={each.minutes} className="border-b-[0.9px] border-ink py-1">
                At {fixed(each.minutes, 1)} min {each.called}:{" "}
                {each.called === each.was ? (
                  <b className="text-verd">it was</b>
                ) : (
                  <>
                    it was <b className="text-rosy">{each.was}</b>
                  </>
                )}
                , S {fixed(each.saturation, 2)}
              </li>
            ))}
          </ul>
          <h2 className="pt-5 text-row italic text-soft">What each correction did</h2>
          {found.effects.length === 0 && <p className="text-body">Nothing was added.</p>}
          <ul className="text-body">
            {found.effects.map((each) => (
              <li key={`${each.minutes}${each.ingredient}`} className="border-b-[0.9px] border-ink py-1">
                At {fixed(each.minutes, 1)} min {sayMass(each.mass_g)} {each.name.toLowerCase()}:{" "}
                {figure(each.before)} →{" "}
                <b className={nearer(each, found) ? "text-verd" : "text-rosy"}>{figure(each.after)}</b>
              </li>
            ))}
          </ul>
        </section>
      </div>
      <p className="pt-6">
        <Link className="min-h-12 border-b-2 border-ink text-reading font-semibold" to="/practice">
          Another bowl
        </Link>
      </p>
    </div>
  );
}

/** Whether a correction brought the dough nearer to what is wanted. */
function nearer(effect: Debriefing["effects"][number], found: Debriefing): boolean {
  const off = (value: number) => Math.max(found.wanted_low - value, value - found.wanted_high, 0);
  return off(effect.after) <= off(effect.before);
}
