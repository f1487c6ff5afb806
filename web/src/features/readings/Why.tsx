import { createContext, useContext, useMemo } from "react";
import { type Explanation, explainReading, findLevers, type Lever, messageOf, useAnswer } from "../../api";
import { figure, sayMass } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { type Draft, toFile } from "../draft";
import { SciencePage } from "./SciencePage";
import type { StripReading } from "./strips";

/** The formula in hand, for what opens under a strip; the strips themselves do not hang on it. */
export const DraftInHand = createContext<Draft | null>(null);

interface Props {
  reading: StripReading;
  onTake: (lever: Lever) => void;
  /** Whose dough is shown, where the formula has several. */
  portion?: number;
  /** Opens the curve a reading is read off. */
  onCurve: (curve: string) => void;
}

const LEVERS_SHOWN = 3;
const MOST_BARS = 7;

/** Why a reading is what it is: the ways to mend it, what each line does to it, what it rests on. */
export function Why({ reading, portion = 0, onTake, onCurve }: Props) {
  const draft = useContext(DraftInHand);
  const { low, high } = reading.scale.wanted ?? {};
  const wanted = low !== undefined || high !== undefined;
  const asked = reading.hasWhy && reading.value !== null;
  const file = useMemo(() => (asked && draft ? toFile(draft) : null), [asked, draft]);
  const why = useAnswer(
    useMemo(
      () => file && ((signal: AbortSignal) => explainReading(file, reading.id, portion, signal)),
      [file, reading.id, portion],
    ),
  );
  const ways = useAnswer(
    useMemo(
      () =>
        file && wanted
          ? (signal: AbortSignal) =>
              findLevers(file, { reading: reading.id, low: low ?? null, high: high ?? null, portion }, signal)
          : null,
      [file, reading.id, low, high, wanted, portion],
    ),
  );
  const failure = why.error ?? ways.error;
  const failed = failure ? messageOf(failure) : "";
  const explained = why.answer;
  const { curve } = reading;
  return (
    <div className="mt-3 text-label" data-why={reading.id}>
      {failed && <p className="text-rosy">{failed}</p>}
      {wanted && asked && <Levers levers={ways.answer} out={reading.out} onTake={onTake} />}
      {explained && <Contributions explained={explained} reading={reading} />}
      {explained && <RestsOn explained={explained} />}
      {curve && (
        <button
          type="button"
          className="mt-2 min-h-6 underline underline-offset-4"
          onClick={() => onCurve(curve)}
        >
          See its curve
        </button>
      )}
    </div>
  );
}

function Levers({
  levers,
  out,
  onTake,
}: {
  levers: Lever[] | null;
  out: boolean;
  onTake: (lever: Lever) => void;
}) {
  if (levers === null) return <p className="text-soft">Trying what would move it…</p>;
  const best = levers.slice(0, LEVERS_SHOWN);
  return (
    <section aria-label="Ways to move it">
      <h3 className="italic text-soft">{out ? "Ways to mend it" : "Ways to move it"}</h3>
      {best.length === 0 && <p>No single line does it; rebalance the whole formula.</p>}
      <ul>
        {best.map((lever) => (
          <li key={lever.ingredient + String(lever.position)} className="border-b-[0.9px] border-ink py-1">
            <button
              type="button"
              className="min-h-6 text-left font-bold hover:underline hover:underline-offset-4"
              onClick={() => onTake(lever)}
            >
              {inUnits(lever.message)}
            </button>{" "}
            <span>
              → {figure(lever.value)}
              {lever.reaches ? "" : ", not all the way"}
            </span>
            {lever.why_not && (
              <b className="block text-caption font-semibold text-rosy">Against it: {lever.why_not}.</b>
            )}
            <span className="block text-caption text-soft">{sideEffects(lever)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What else would move, the most first: "Foam score 55 → 51". */
export function sideEffects(lever: Pick<Lever, "effects">): string {
  const moved = lever.effects
    .filter(
      (effect) =>
        effect.after === null || Math.abs(effect.after - effect.before) > 0.02 * Math.abs(effect.before),
    )
    .filter((effect) => effect.after === null || figure(effect.after) !== figure(effect.before));
  if (moved.length === 0) return "Nothing else moves to speak of.";
  return moved
    .map(
      (effect) =>
        `${effect.label} ${figure(effect.before)} → ${effect.after === null ? "–" : figure(effect.after)}`,
    )
    .join(", ");
}

function Contributions({ explained, reading }: { explained: Explanation; reading: StripReading }) {
  const rows = explained.contributions
    .filter((row) => row.adds !== null && Math.abs(row.adds) > 1e-9)
    .slice(0, MOST_BARS);
  const largest = Math.max(...rows.map((row) => Math.abs(row.adds ?? 0)), 1e-9);
  if (rows.length === 0) return null;
  return (
    <table className="mt-3 w-full border-collapse">
      <caption className="text-left italic text-soft">
        What each line does: the reading with it, less without it
      </caption>
      <tbody>
        {rows.map((row) => (
          <tr key={row.position} className="border-b-[0.9px] border-ink">
            <th scope="row" className="w-32 truncate py-0.5 text-left font-medium">
              {row.name}
            </th>
            <td className="px-1" aria-hidden="true">
              <svg
                viewBox="0 0 120 12"
                className="block h-3 w-full"
                preserveAspectRatio="none"
                aria-hidden="true"
              >
                <rect
                  x={(row.adds ?? 0) < 0 ? 60 - (60 * Math.abs(row.adds ?? 0)) / largest : 60}
                  width={(60 * Math.abs(row.adds ?? 0)) / largest}
                  y="2"
                  height="8"
                  fill={(row.adds ?? 0) < 0 ? "var(--ctint)" : "var(--vtint)"}
                />
                <path d="M60 0V12" stroke="var(--ink)" strokeWidth=".9" />
              </svg>
            </td>
            <td className="w-20 text-right">
              {(row.adds ?? 0) > 0 ? "+" : "−"}
              {reading.format(Math.abs(row.adds ?? 0))}
            </td>
            <td className="w-16 text-right text-soft">{sayMass(row.mass_g)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function RestsOn({ explained }: { explained: Explanation }) {
  return (
    <>
      {explained.learnt.map((sentence) => (
        <p key={sentence} className="mt-2 font-semibold">
          Yours is used: {inUnits(sentence)}
        </p>
      ))}
      <details className="mt-2">
        <summary className="italic text-soft">What it rests on</summary>
        <ul className="mt-1">
          {explained.constants.map((constant) => (
            <li key={constant.name}>
              {constant.name}: {figure(constant.value)} {constant.unit === "-" ? "" : constant.unit}{" "}
              <span className="text-soft">
                ({constant.source}; confidence {constant.confidence})
              </span>
            </li>
          ))}
        </ul>
        <SciencePage page={explained.page} />
      </details>
    </>
  );
}
