import { type ClipboardEvent, forwardRef, type KeyboardEvent, useState } from "react";
import { type IngredientSummary, messageOf, type RecipeLine, readRecipe } from "../../api";
import { searchIngredients } from "../../lib/searchIngredients";
import { useFinder, useNotice } from "../../ui";

const AMOUNT_FIRST =
  /^\s*(?:\d[\d\s.,/½⅓⅔¼¾⅛–-]*|[½⅓⅔¼¾⅛])\s*(?:g|kg|mg|oz|lb|ml|l|fl oz|cups?|tbsps?|tsps?|drops?|sprays?|parts?|%)?(?=\s|$)\s*(?:of\s+)?/i;

interface Props {
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onAdd: (lines: readonly RecipeLine[]) => void;
  onUp: () => void;
}

/** Type "120 g cocoa but", press Enter. A pasted list comes in whole. */
export const QuickEntry = forwardRef<HTMLInputElement, Props>(function QuickEntry(
  { ingredients, onAdd, onUp },
  ref,
) {
  const [text, setText] = useState("");
  const say = useNotice();
  const amount = AMOUNT_FIRST.exec(text)?.[0] ?? "";
  const name = text.slice(amount.length).trim();
  const found = name.length > 1 ? searchIngredients([...ingredients.values()], name, 6) : [];
  const isName = !/[;,\n\d]/.test(name);

  const add = async (recipe: string) => {
    // The line is free at once: who types fast is on the next one before this one is read.
    const typed = text;
    const giveBack = () => setText((now) => now || typed);
    setText("");
    finder.forget();
    try {
      const read = await readRecipe(recipe);
      if (read.recipes.length > 1)
        say(
          `${read.recipes.length} recipes stand there; only the first is taken. Read a recipe takes each.`,
          {
            asks: true,
          },
        );
      if (read.lines.length > 0) return onAdd(read.lines);
      say(`Nothing in "${recipe.slice(0, 60)}" reads as an ingredient.`, { asks: true });
      giveBack();
    } catch (error) {
      giveBack();
      say(messageOf(error), { asks: true });
    }
  };
  const finder = useFinder({
    label: "New line",
    listLabel: "Ingredients",
    typed: text,
    onType: setText,
    found,
    onPick: (item) => void add(`${amount || "0 g"} ${item.id}`),
    firstIsMeant: isName,
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const leaves = event.key === "ArrowUp" && finder.at <= 0;
    if (event.key === "Escape") setText("");
    else if (leaves) onUp();
    else if (event.key === "Enter" && !finder.chosen && text.trim()) void add(text);
    else if (event.key !== "Enter" || finder.chosen) return;
    event.preventDefault();
  };
  const onPaste = (event: ClipboardEvent) => {
    const pasted = event.clipboardData.getData("text");
    if (!pasted.trim().includes("\n")) return;
    event.preventDefault();
    void add(pasted);
  };
  return (
    <div className="relative pt-2">
      <input
        {...finder.inputProps(onKeyDown)}
        ref={ref}
        placeholder="New line: 120 g cocoa but…"
        className="written w-full py-1 text-row placeholder:italic placeholder:text-soft"
        onPaste={onPaste}
      />
      <div
        {...finder.listProps()}
        className={`absolute left-0 right-0 top-full z-30 border-b-2 border-ink bg-lit ${found.length ? "" : "hidden"}`}
      >
        {found.map((item, at) => (
          <div
            key={item.id}
            {...finder.optionProps(item, at)}
            className="flex items-baseline justify-between gap-3 px-3 py-1.5 aria-selected:bg-shade"
          >
            <span className="text-body">{item.short_name}</span>
            <span className="truncate text-hint text-soft">{item.inci}</span>
          </div>
        ))}
      </div>
    </div>
  );
});
