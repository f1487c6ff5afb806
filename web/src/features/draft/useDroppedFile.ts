import type { DragEvent } from "react";
import {
  ApiError,
  type FormulaFile,
  messageOf,
  type RecipeLine,
  readRecipe,
  useCreateFormula,
} from "../../api";
import { useNotice } from "../../ui";

const LARGEST_FILE_BYTES = 1_000_000;

/** A file dropped on the Desk: a formula file opens beside this one, a list of lines joins it. */
export function useDroppedFile(
  onLines: (lines: readonly RecipeLine[]) => void,
  leave: (path: string) => Promise<void>,
) {
  const create = useCreateFormula();
  const say = useNotice();
  const take = async (file: File) => {
    if (file.size > LARGEST_FILE_BYTES)
      return say(`"${file.name}" is larger than 1 MB; a formula is a small text file.`, { asks: true });
    const text = await file.text();
    try {
      if (text.trimStart().startsWith("{")) {
        const made = await create.mutateAsync(JSON.parse(text) as FormulaFile);
        return await leave(`/formulas/${made.id}`);
      }
      const read = await readRecipe(text);
      if (read.lines.length === 0)
        return say(`Nothing in "${file.name}" reads as an ingredient.`, { asks: true });
      onLines(read.lines);
      const several =
        read.recipes.length > 1 ? ` It holds ${read.recipes.length} recipes; this is the first.` : "";
      say(`${read.lines.length} lines from "${file.name}"; Ctrl Z takes them out again.${several}`);
    } catch (error) {
      const unread = `"${file.name}" is neither a formula file nor a list of lines.`;
      say(error instanceof ApiError ? messageOf(error) : unread, { asks: true });
    }
  };
  return {
    onDragOver: (event: DragEvent) => event.preventDefault(),
    onDrop: (event: DragEvent) => {
      const file = event.dataTransfer.files[0];
      if (!file) return;
      event.preventDefault();
      void take(file);
    },
  };
}
