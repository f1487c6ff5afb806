import { useState } from "react";
import { Link } from "react-router";
import { messageOf, useCards } from "../../api";
import { TextureTile } from "./TextureTile";

/** Quick cards: a dough squeezed and dropped, what is it called? What is taken for what is drawn below. */
export function EyePage() {
  const [seed, setSeed] = useState(1);
  const [given, setGiven] = useState<readonly string[]>([]);
  const cards = useCards(seed);
  if (cards.error && !cards.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(cards.error)}</p>;
  if (!cards.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  const { items, states } = cards.data;
  const card = items[given.length];
  const last = items[given.length - 1];
  const right = given.filter((each, index) => each === items[index]?.state).length;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Train the eye</h1>
      <p className="text-row text-soft">
        On the left squeezed, on the right dropped from a hand's height. What is it?{" "}
        <Link className="underline underline-offset-4" to="/practice">
          Practice
        </Link>
      </p>
      {card ? (
        <>
          <div className="max-w-[520px] pt-4">
            <TextureTile state={card.state} seed={String(card.saturation)} large />
          </div>
          <p className="flex flex-wrap gap-3 pt-4">
            {states.map((state) => (
              <button
                key={state}
                type="button"
                className="min-h-12 border border-ink bg-lit px-4 text-reading font-semibold"
                onClick={() => setGiven([...given, state])}
              >
                {state}
              </button>
            ))}
          </p>
          <p role="status" className="min-h-8 pt-3 text-reading">
            {last &&
              (given.at(-1) === last.state ? (
                <b className="text-verd">Right, {last.state}.</b>
              ) : (
                <b className="text-rosy">
                  That was {last.state}, not {given.at(-1)}.
                </b>
              ))}{" "}
            <span className="text-soft">
              {given.length} of {items.length}
            </span>
          </p>
        </>
      ) : (
        <p className="pt-4 text-reading">
          {right} of {items.length} right.{" "}
          <button
            type="button"
            className="min-h-12 border-b-2 border-ink font-semibold"
            onClick={() => {
              setSeed(seed + 1);
              setGiven([]);
            }}
          >
            Another pack
          </button>
        </p>
      )}
      {given.length > 0 && <Confusion states={states} items={items} given={given} />}
    </div>
  );
}

/** What was taken for what: a dot grows with how often; the diagonal is right. */
function Confusion({
  states,
  items,
  given,
}: {
  states: readonly string[];
  items: readonly { state: string }[];
  given: readonly string[];
}) {
  const STEP = 44;
  const LEFT = 130;
  const count = (is: string, said: string) =>
    given.filter((each, index) => each === said && items[index]?.state === is).length;
  const wrong = given.filter((each, index) => each !== items[index]?.state).length;
  return (
    <figure className="pt-6">
      <figcaption className="text-row italic text-soft">
        What you take for what: down what it was, across what you said
      </figcaption>
      <svg
        role="img"
        aria-label={`${given.length} cards seen, ${wrong} taken for something else.`}
        width={LEFT + STEP * states.length + 10}
        height={STEP * states.length + 90}
        fontSize="13"
      >
        {states.map((state, row) => (
          <g key={state}>
            <text x={LEFT - 10} y={STEP * row + STEP / 2 + 5} textAnchor="end" fill="var(--ink)">
              {state}
            </text>
            <text
              transform={`translate(${LEFT + STEP * row + STEP / 2 - 4} ${STEP * states.length + 8}) rotate(40)`}
              fill="var(--ink)"
            >
              {state}
            </text>
            <path d={`M${LEFT} ${STEP * row + STEP / 2}h${STEP * states.length}`} stroke="var(--shade)" />
            {states.map((said, column) => {
              const times = count(state, said);
              return times > 0 ? (
                <circle
                  key={said}
                  cx={LEFT + STEP * column + STEP / 2}
                  cy={STEP * row + STEP / 2}
                  r={5 + 4 * times}
                  fill={state === said ? "var(--verd)" : "var(--rosy)"}
                />
              ) : null;
            })}
          </g>
        ))}
      </svg>
    </figure>
  );
}
