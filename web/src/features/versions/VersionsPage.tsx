import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  type Comparison,
  type FormulaAnswer,
  getVersion,
  messageOf,
  putFormula,
  useBranch,
  useComparison,
  useFormula,
} from "../../api";
import { figure, grams } from "../../lib/numbers";
import { Button, useNotice } from "../../ui";

/** The history of a formula as a line; any two versions side by side, and which change moved what. */
export function VersionsPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  if (formula.error) return <p className="px-14 py-10 text-reading text-rosy">{messageOf(formula.error)}</p>;
  if (!formula.data || !formula.isFetchedAfterMount)
    return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Versions key={id} answer={formula.data} />;
}

function Versions({ answer }: { answer: FormulaAnswer }) {
  const last = answer.versions.length;
  const [from, setFirst] = useState<number>();
  const [to, setSecond] = useState<number>();
  const first = from ?? answer.versions.at(-2)?.number ?? 1;
  const second = to ?? answer.versions.at(-1)?.number ?? 1;
  const comparison = useComparison(answer.id, first, second);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Versions of {answer.formula.name}</h1>
      <p className="text-row text-soft">
        {last === 1
          ? "One version so far. Keep one on the Desk, and the next change begins another. "
          : `${last} versions. `}
        <Link className="underline underline-offset-4" to={`/formulas/${answer.id}`}>
          Back to its Desk
        </Link>
      </p>
      <History answer={answer} first={first} second={second} onFirst={setFirst} onSecond={setSecond} />
      {comparison.error && <p className="pt-4 text-body text-rosy">{messageOf(comparison.error)}</p>}
      {comparison.data && first !== second && (
        <SideBySide comparison={comparison.data} first={first} second={second} />
      )}
      {first !== answer.version && <Act answer={answer} number={first} />}
    </div>
  );
}

const STEP = 120;

/** The line of versions: a knot for each, kept ones tied, the open one a ring. */
function History({
  answer,
  first,
  second,
  onFirst,
  onSecond,
}: {
  answer: FormulaAnswer;
  first: number;
  second: number;
  onFirst: (number: number) => void;
  onSecond: (number: number) => void;
}) {
  return (
    <div className="overflow-x-auto pt-6">
      <ol className="relative flex" style={{ minWidth: answer.versions.length * STEP }}>
        <svg className="absolute left-0 top-3 h-3 w-full" aria-hidden="true" preserveAspectRatio="none">
          <path d="M8 6H10000" stroke="var(--ink)" strokeWidth="1.4" />
        </svg>
        {answer.versions.map((version) => (
          <li key={version.number} className="relative shrink-0 pr-4" style={{ width: STEP }}>
            <svg width="20" height="36" aria-hidden="true" className="block">
              <circle
                cx="8"
                cy="18"
                r="6"
                fill={version.frozen_at ? "var(--ink)" : "var(--paper)"}
                stroke={version.number === first || version.number === second ? "var(--rosy)" : "var(--ink)"}
                strokeWidth="2.2"
              />
            </svg>
            <p className="text-body font-bold">Version {version.number}</p>
            <p className="text-caption text-soft">
              {version.note || (version.frozen_at ? "kept" : "being worked on")}
            </p>
            <p className="flex gap-3 text-caption">
              <Pick label="from" number={version.number} on={version.number === first} onPick={onFirst} />
              <Pick label="to" number={version.number} on={version.number === second} onPick={onSecond} />
            </p>
          </li>
        ))}
      </ol>
    </div>
  );
}

function Pick({
  label,
  number,
  on,
  onPick,
}: {
  label: string;
  number: number;
  on: boolean;
  onPick: (number: number) => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`Compare ${label} version ${number}`}
      className={`min-h-6 border-b ${on ? "border-b-2 border-rosy font-bold text-rosy" : "border-ink"}`}
      onClick={() => onPick(number)}
    >
      {label}
    </button>
  );
}

function SideBySide({
  comparison,
  first,
  second,
}: {
  comparison: Comparison;
  first: number;
  second: number;
}) {
  const shown = (value: number | null) => (value === null ? "–" : figure(value));
  return (
    <div className="grid grid-cols-2 gap-14 pt-8 max-[1000px]:grid-cols-1">
      <table className="w-full self-start text-body">
        <caption className="text-left text-row italic text-soft">Lines</caption>
        <thead>
          <Heads first={first} second={second} />
        </thead>
        <tbody>
          {comparison.lines.map((line) => (
            <tr
              key={line.ingredient}
              className={`border-b-[0.9px] border-ink ${line.changed ? "font-bold" : "text-soft"}`}
            >
              <th scope="row" className="py-0.5 text-left [font-weight:inherit]">
                {line.name}
              </th>
              <td className="text-right">{line.first_g ? `${grams(line.first_g)} g` : "–"}</td>
              <td className="text-right">{line.second_g ? `${grams(line.second_g)} g` : "–"}</td>
              <td className="text-right">
                {line.changed ? signed(line.second_g - line.first_g, grams) : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="w-full self-start text-body">
        <caption className="text-left text-row italic text-soft">
          Readings, and which change alone moves them
        </caption>
        <thead>
          <Heads first={first} second={second} />
        </thead>
        <tbody>
          {comparison.readings.map((reading) => {
            const moved = shown(reading.first) !== shown(reading.second);
            return (
              <tr
                key={reading.reading}
                className={`border-b-[0.9px] border-ink align-baseline ${moved ? "" : "text-soft"}`}
              >
                <th scope="row" className={`py-0.5 text-left ${moved ? "font-bold" : "font-medium"}`}>
                  {reading.label} <span className="text-caption font-medium text-soft">{reading.unit}</span>
                  {moved && reading.causes.length > 0 && (
                    <span className="block text-caption font-medium text-soft">
                      {reading.causes
                        .slice(0, 3)
                        .map((cause) => `${cause.name} ${signed(cause.moves, figure)}`)
                        .join(", ")}
                    </span>
                  )}
                </th>
                <td className="text-right">{shown(reading.first)}</td>
                <td className="text-right">{shown(reading.second)}</td>
                <td className="text-right">
                  {moved && reading.first !== null && reading.second !== null
                    ? signed(reading.second - reading.first, figure)
                    : ""}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Heads({ first, second }: { first: number; second: number }) {
  return (
    <tr className="text-right text-caption italic text-soft">
      <td />
      <th scope="col" className="w-24 font-normal">
        version {first}
      </th>
      <th scope="col" className="w-24 font-normal">
        version {second}
      </th>
      <th scope="col" className="w-20 font-normal">
        moved
      </th>
    </tr>
  );
}

const signed = (value: number, format: (value: number) => string) =>
  `${value < 0 ? "−" : "+"}${format(Math.abs(value))}`;

/** Take an old version up again, or begin a formula of its own from it. */
function Act({ answer, number }: { answer: FormulaAnswer; number: number }) {
  const navigate = useNavigate();
  const say = useNotice();
  const branch = useBranch();
  const onRestore = async () => {
    try {
      const old = await getVersion(answer.id, number);
      await putFormula(answer.id, answer.revision, old);
      say(`Version ${number} is on the Desk again.`);
      await navigate(`/formulas/${answer.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const onBranch = async () => {
    try {
      const made = await branch.mutateAsync({
        id: answer.id,
        number,
        name: `${answer.formula.name}, another way`,
      });
      await navigate(`/formulas/${made.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <p className="flex gap-8 pt-8">
      <Button onClick={() => void onRestore()}>Put version {number} on the Desk again</Button>
      <Button onClick={() => void onBranch()}>Begin another formula from version {number}</Button>
    </p>
  );
}
