import { Popover } from "radix-ui";
import { memo, type ReactNode, useState } from "react";
import { type Searchable, searchIngredients } from "../lib/searchIngredients";
import { useFinder } from "./useFinder";

const OPTION = "flex items-baseline justify-between gap-3 px-4 py-1.5 aria-selected:bg-shade";

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
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger aria-label={label} className={`text-left ${className}`}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="z-50 w-80 border-y-2 border-ink bg-lit py-2">
          <Search
            ingredients={ingredients}
            first={first}
            label={label}
            onPick={(id) => {
              onPick(id);
              setOpen(false);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Search({
  ingredients,
  first,
  label,
  onPick,
}: Required<Pick<Props, "ingredients" | "label" | "onPick">> & { first: readonly string[] }) {
  const [typed, setTyped] = useState("");
  const suggested = first.flatMap((id) => ingredients.find((item) => item.id === id) ?? []);
  const found = typed.trim() || suggested.length === 0 ? searchIngredients(ingredients, typed, 9) : suggested;
  const finder = useFinder({
    label,
    listLabel: "Ingredients",
    typed,
    onType: setTyped,
    found,
    onPick: (item) => onPick(item.id),
  });
  return (
    <>
      <input
        {...finder.inputProps()}
        placeholder="Name, everyday name or INCI"
        className="written mx-4 mb-2 w-72 text-row placeholder:text-soft"
      />
      <div {...finder.listProps()} className="max-h-72 overflow-y-auto">
        {found.map((item, at) => (
          <div key={item.id} {...finder.optionProps(item, at)} className={OPTION}>
            <span className="text-body">{item.short_name}</span>
            <span className="truncate text-hint text-soft">{item.inci}</span>
          </div>
        ))}
      </div>
      {found.length === 0 && (
        <p className="px-4 text-label text-soft">Nothing by that name; add it in the Pantry.</p>
      )}
    </>
  );
}
