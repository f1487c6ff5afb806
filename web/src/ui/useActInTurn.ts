import { useRef } from "react";
import { ApiError, messageOf } from "../api";
import { useInTurn } from "../lib/inTurn";
import { useNotice } from "./Notice";

/** What happens to it is numbered, and the studio takes the next only after the last that was known. */
interface Numbered {
  id: number;
  state: { seq: number };
}

/**
 * Lets things happen to a batch, a tray or a test, each in its turn and after the newest that is known of it; false where it
 * was refused, and why is said.
 */
export function useActInTurn<Thing extends Numbered, Happening>(
  thing: Thing,
  send: (after: number, event: Happening) => Promise<Numbered>,
  movedOn: string,
): (event: Happening) => Promise<boolean> {
  const say = useNotice();
  const newest = useRef<Numbered>(thing);
  if (thing.id !== newest.current.id || thing.state.seq > newest.current.state.seq) newest.current = thing;
  return useInTurn<Happening>(async (event) => {
    try {
      newest.current = await send(newest.current.state.seq, event);
      return true;
    } catch (error) {
      const conflict = error instanceof ApiError && error.code === "conflict";
      say(conflict ? movedOn : messageOf(error), { asks: true });
      return false;
    }
  }, JSON.stringify);
}
