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
import { figure, massFigure, sayMass } from "../../lib/numbers";
import { Button, useNotice } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";

/** The history of a formula as a line; any two versions side by side, and which change moved what. */
export function VersionsPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  if (formula.error && !formula.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(formula.error)}</p>;
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
  const [third, setThird] = useState<number>();
  const comparison = useComparison(answer.id, first, second);
  const also = useComparison(answer.id, first, third ?? second, third !== undefined);
  const thirdShown = third !== undefined && third !== first && third !== second ? also.data : undefined;
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
      <History
        answer={answer}
        picked={[first, second, third]}
        onPick={[setFirst, setSecond, (number) => setThird(number === third ? undefined : number)]}
      />
      {comparison.error && <p className="pt-4 text-body text-rosy">{messageOf(comparison.error)}</p>}
      {comparison.data && first !== second && (
        <SideBySide
          comparison={comparison.data}
          also={thirdShown}
          numbers={thirdShown && third !== undefined ? [first, second, third] : [first, second]}
        />
      )}
      {first !== answer.version && <Act answer={answer} number={first} />}
    </div>
  );
}

const STEP = 130;
const PLACES = ["from", "to", "also"] as const;

/** The line of versions: a knot for each, kept ones tied, the open one a ring. */
function History({
  answer,
  picked,
  onPick,
}: {
  answer: FormulaAnswer;
  picked: readonly (number | undefined)[];
  onPick: readonly ((number: number) => void)[];
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
                stroke={picked.includes(version.number) ? "var(--rosy)" : "var(--ink)"}
                strokeWidth="2.2"
              />
            </svg>
            <p className="text-body font-bold">Version {version.number}</p>
            <p className="text-caption text-soft">
              {version.note || (version.frozen_at ? "kept" : "being worked on")}
            </p>
            <p className="flex gap-3 text-caption">
              {PLACES.map((label, place) => (
                <Pick
                  key={label}
                  label={label}
                  number={version.number}
                  on={version.number === picked[place]}
                  onPick={(number) => onPick[place]?.(number)}
                />
              ))}
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
  also,
  numbers,
}: {
  comparison: Comparison;
  also: Comparison | undefined;
  numbers: readonly number[];
}) {
  const shown = (value: number | null | undefined) => (typeof value === "number" ? figure(value) : "–");
  const grammes = (mass_g: number | undefined) => (mass_g ? sayMass(mass_g) : "–");
  const alsoLines = new Map(also?.lines.map((line) => [line.ingredient, line]));
  const added = (also?.lines ?? []).filter(
    (line) => !comparison.lines.some((each) => each.ingredient === line.ingredient),
  );
  const alsoReadings = new Map(also?.readings.map((reading) => [reading.reading, reading]));
  return (
    <div className="grid grid-cols-2 gap-14 pt-8 max-[1000px]:grid-cols-1">
      <table className="w-full self-start text-body">
        <caption className="text-left text-row italic text-soft">Lines</caption>
        <HeadRow columns={headsOf(numbers)} />
        <tbody>
          {[...comparison.lines, ...added.map((line) => ({ ...line, second_g: line.first_g }))].map(
            (line) => {
              const third = alsoLines.get(line.ingredient);
              return (
                <tr
                  key={line.ingredient}
                  className={`border-b-[0.9px] border-ink ${line.changed || third?.changed ? "font-bold" : "text-soft"}`}
                >
                  <th scope="row" className="py-0.5 text-left [font-weight:inherit]">
                    {line.name}
                  </th>
                  <td className="text-right">{grammes(line.first_g)}</td>
                  <td className="text-right">{grammes(line.second_g)}</td>
                  {also && <td className="text-right">{grammes(third?.second_g)}</td>}
                  <td className="text-right">
                    {line.changed ? signed(line.second_g - line.first_g, massFigure) : ""}
                  </td>
                </tr>
              );
            },
          )}
        </tbody>
      </table>
      <table className="w-full self-start text-body">
        <caption className="text-left text-row italic text-soft">
          Readings, and which change alone moves them
        </caption>
        <HeadRow columns={headsOf(numbers)} />
        <tbody>
          {comparison.readings.map((reading) => {
            const third = alsoReadings.get(reading.reading);
            const moved = shown(reading.first) !== shown(reading.second);
            const thirdMoved = third !== undefined && shown(third.first) !== shown(third.second);
            return (
              <tr
                key={reading.reading}
                className={`border-b-[0.9px] border-ink align-baseline ${moved || thirdMoved ? "" : "text-soft"}`}
              >
                <th
                  scope="row"
                  className={`py-0.5 text-left ${moved || thirdMoved ? "font-bold" : "font-medium"}`}
                >
                  {reading.label} <span className="text-caption font-medium text-soft">{reading.unit}</span>
                  {moved && <Causes causes={reading.causes} before="" />}
                  {thirdMoved && (
                    <Causes causes={third.causes} before={moved ? `to version ${numbers[2]}: ` : ""} />
                  )}
                </th>
                <td className="text-right">{shown(reading.first)}</td>
                <td className="text-right">{shown(reading.second)}</td>
                {also && <td className="text-right">{shown(third?.second)}</td>}
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

function Causes({ causes, before }: { causes: Comparison["readings"][number]["causes"]; before: string }) {
  if (causes.length === 0) return null;
  return (
    <span className="block text-caption font-medium text-soft">
      {before}
      {causes
        .slice(0, 3)
        .map((cause) => `${cause.name} ${signed(cause.moves, figure)}`)
        .join(", ")}
    </span>
  );
}

const headsOf = (numbers: readonly number[]) => [
  "",
  ...numbers.map((number) => ({ says: `version ${number}`, right: true, className: "w-24" })),
  { says: numbers.length > 2 ? `${numbers[0]} to ${numbers[1]}` : "moved", right: true, className: "w-20" },
];

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
