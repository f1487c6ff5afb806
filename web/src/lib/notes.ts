/** Whether a note of the reader asks for a hand instead of telling what was taken for granted. */
export const asksForHand = (note: string) =>
  note.includes("?") || note.includes("enter ") || note.startsWith("no amount");
