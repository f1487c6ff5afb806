import { type ClipboardEvent, forwardRef, type KeyboardEvent, useId, useState } from "react";
import { type IngredientSummary, messageOf, type RecipeLine, readRecipe } from "../../api";
import { searchIngredients } from "../../lib/searchIngredients";
import { useNotice } from "../../ui";

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
  const [index, setIndex] = useState(-1);
  const say = useNotice();
  const list = useId();
  const amount = AMOUNT_FIRST.exec(text)?.[0] ?? "";
  const name = text.slice(amount.length).trim();
  const found = name.length > 1 ? searchIngredients([...ingredients.values()], name, 6) : [];
  const chosen =
    found[index] ?? (found.length && !/[;,\n]/.test(name) && !/\d/.test(name) ? found[0] : undefined);

  const add = async (recipe: string) => {
    // The line is free at once: who types fast is on the next one before this one is read.
    const typed = text;
    const giveBack = () => setText((now) => now || typed);
    setText("");
    setIndex(-1);
    try {
      const read = await readRecipe(recipe);
      if (read.lines.length > 0) return onAdd(read.lines);
      say(`Nothing in "${recipe.slice(0, 60)}" reads as an ingredient.`, { asks: true });
      giveBack();
    } catch (error) {
      giveBack();
      say(messageOf(error), { asks: true });
    }
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") {
      event.preventDefault();
      if (text.trim()) void add(chosen ? `${amount || "0 g"} ${chosen.id}` : text);
    } else if (event.key === "ArrowDown" && found.length) {
      event.preventDefault();
      setIndex(Math.min(found.length - 1, index + 1));
    } else if (event.key === "ArrowUp") {
      event.preventDefault();
      if (index > 0 || (index === 0 && found.length)) setIndex(index - 1);
      else onUp();
    } else if (event.key === "Escape") {
      setText("");
      setIndex(-1);
    }
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
        ref={ref}
        role="combobox"
        aria-label="New line"
        aria-expanded={found.length > 0}
        aria-controls={list}
        aria-activedescendant={chosen && found.length ? `${list}-${found.indexOf(chosen)}` : undefined}
        aria-autocomplete="list"
        placeholder="New line: 120 g cocoa but…"
        className="written w-full py-1 text-row placeholder:italic placeholder:text-soft"
        value={text}
        autoComplete="off"
        onChange={(event) => {
          setText(event.target.value);
          setIndex(-1);
        }}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
      />
      <div
        id={list}
        role="listbox"
        aria-label="Ingredients"
        className={`absolute left-0 right-0 top-full z-30 border-b-2 border-ink bg-lit ${found.length ? "" : "hidden"}`}
      >
        {found.map((item, at) => (
          <div
            key={item.id}
            id={`${list}-${at}`}
            role="option"
            tabIndex={-1}
            aria-selected={item === chosen}
            className="flex items-baseline justify-between gap-3 px-3 py-1.5 aria-selected:bg-shade"
            onPointerDown={(event) => event.preventDefault()}
            onClick={() => void add(`${amount || "0 g"} ${item.id}`)}
            onKeyDown={onKeyDown}
          >
            <span className="text-body">{item.short_name}</span>
            <span className="truncate text-hint text-soft">{item.inci}</span>
          </div>
        ))}
      </div>
    </div>
  );
});
