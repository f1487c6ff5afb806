import { useRef, useState } from "react";

/**
 * Hands presses on one after the other: what is pressed while the one before is on its way waits for its turn, none is
 * lost. `nameOf` says which press this is: the same one pressed again while it is on its way is one press and answers
 * false; null for those that count each time.
 */
export function inTurn<Told>(
  send: (told: Told) => Promise<boolean>,
  nameOf: (told: Told) => string | null,
): (told: Told) => Promise<boolean> {
  let before: Promise<unknown> = Promise.resolve();
  const onTheWay = new Set<string>();
  return (told) => {
    const name = nameOf(told);
    if (name !== null && onTheWay.has(name)) return Promise.resolve(false);
    if (name !== null) onTheWay.add(name);
    const sent = before
      .then(() => send(told))
      .finally(() => {
        if (name !== null) onTheWay.delete(name);
      });
    before = sent.catch(() => undefined); // who pressed hears of it; the next one goes on
    return sent;
  };
}

/** The same for a component: `send` is the one of its latest drawing. */
export function useInTurn<Told>(
  send: (told: Told) => Promise<boolean>,
  nameOf: (told: Told) => string | null,
): (told: Told) => Promise<boolean> {
  const latest = useRef(send);
  latest.current = send;
  const [turn] = useState(() => inTurn<Told>((told) => latest.current(told), nameOf));
  return turn;
}
