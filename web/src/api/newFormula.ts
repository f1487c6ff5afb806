import { useQueryClient } from "@tanstack/react-query";
import { referenceQuery } from "./queries";
import type { FormulaFile } from "./types";
import { settingsQuery } from "./week";

/** An empty formula as the studio has it, in the workshop's air of this month, where the maker has said it. */
export function useNewFormula() {
  const queries = useQueryClient();
  return async (name?: string): Promise<FormulaFile> => {
    const [{ empty_formula: empty }, { rooms }] = await Promise.all([
      queries.fetchQuery(referenceQuery),
      queries.fetchQuery(settingsQuery),
    ]);
    return { ...empty, name: name ?? empty.name, room: rooms?.[new Date().getMonth()] ?? empty.room };
  };
}
