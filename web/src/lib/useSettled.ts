import { useEffect, useState } from "react";

const PAUSE_MS = 150;

/** What was typed, once the keys rest: a list is asked for then, not at every letter. */
export function useSettled<T>(typed: T): T {
  const [settled, setSettled] = useState(typed);
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(typed), PAUSE_MS);
    return () => clearTimeout(waiting);
  }, [typed]);
  return settled;
}
