import { createContext, useContext } from "react";
import type { DeskState } from "./useDeskState";

export const DeskContext = createContext<DeskState | null>(null);

/** What every part of the Desk shares: the formula in hand, its readings, and what can be done to it. */
export function useDesk(): DeskState {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error("useDesk is for parts of the Desk only.");
  return desk;
}
