import { Popover } from "radix-ui";
import { type KeyboardEvent, memo, type ReactNode, useId, useState } from "react";
import { type Searchable, searchIngredients } from "../lib/searchIngredients";

interface Props {
  ingredients: readonly Searchable[];
  /** Ids offered before anything is typed. */
  first?: readonly string[] | undefined;
  label: string;
  onPick: (id: string) => void;
  children: ReactNode;
  className?: string;
}

/** Choose an ingredient: type, arrow, Enter. Until it is opened it is a plain button: long formulas hold many. */
export const IngredientPicker = memo(function IngredientPicker(props: Props) {
  const [wanted, setWanted] = useState(false);
  if (wanted) return <OpenPicker {...props} />;
  return (
    <button
      type="button"
      aria-haspopup="dialog"
      aria-expanded="false"
      aria-label={props.label}
      className={`text-left ${props.className ?? ""}`}
      onClick={() => setWanted(true)}
    >
      {props.children}
    </button>
  );
});

function OpenPicker({ ingredients, first = [], label, onPick, children, className = "" }: Props) {
  const [open, setOpen] = useState(true);
  const [query, setQuery] = useState("");
  const [index, setIndex] = useState(0);
  const list = useId();
  const suggested = first.flatMap((id) => ingredients.find((item) => item.id === id) ?? []);
  const found = query.trim() || suggested.length === 0 ? searchIngredients(ingredients, query, 9) : suggested;
  const pick = (id: string) => {
    onPick(id);
    setOpen(false);
    setQuery("");
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      setIndex((before) =>
        Math.max(0, Math.min(found.length - 1, before + (event.key === "ArrowDown" ? 1 : -1))),
      );
    } else if (event.key === "Enter") {
      event.preventDefault();
      const chosen = found[index];
      if (chosen) pick(chosen.id);
    }
  };
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setIndex(0);
      }}
    >
      <Popover.Trigger aria-label={label} className={`text-left ${className}`}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="z-50 w-80 border-y-2 border-ink bg-lit py-2">
          <input
            role="combobox"
            aria-label={label}
            aria-expanded="true"
            aria-controls={list}
            aria-activedescendant={found[index] ? `${list}-${index}` : undefined}
            placeholder="Name, everyday name or INCI"
            className="written mx-4 mb-2 w-72 text-row placeholder:text-soft"
            value={query}
            onChange={(event) => {
              setQuery(event.target.value);
              setIndex(0);
            }}
            onKeyDown={onKeyDown}
          />
          <div id={list} role="listbox" aria-label="Ingredients" className="max-h-72 overflow-y-auto">
            {found.map((item, at) => (
              <div
                key={item.id}
                id={`${list}-${at}`}
                role="option"
                tabIndex={-1}
                aria-selected={at === index}
                className="flex items-baseline justify-between gap-3 px-4 py-1.5 aria-selected:bg-shade"
                onPointerMove={() => setIndex(at)}
                onClick={() => pick(item.id)}
                onKeyDown={onKeyDown}
              >
                <span className="text-body">{item.short_name}</span>
                <span className="truncate text-hint text-soft">{item.inci}</span>
              </div>
            ))}
          </div>
          {found.length === 0 && (
            <p className="px-4 text-label text-soft">Nothing by that name; add it in the Pantry.</p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
