import { useCombobox } from "downshift";
import { type ChangeEvent, type KeyboardEvent, useState } from "react";

interface Given<T> {
  /** What screen readers call the field, and the list under it. */
  label: string;
  listLabel: string;
  typed: string;
  onType: (typed: string) => void;
  found: readonly T[];
  onPick: (item: T) => void;
  /** Whether the first hit is taken by Enter without an arrow; a text that is no name yet leaves it false. */
  firstIsMeant?: boolean;
}

/**
 * Type, arrow, Enter: the field and its list as sets of properties, after the combobox pattern of the WAI-ARIA practices.
 * Downshift does the keys and the roles; what is typed, what is found and what a pick does stay with the caller.
 */
export function useFinder<T>({
  label,
  listLabel,
  typed,
  onType,
  found,
  onPick,
  firstIsMeant = true,
}: Given<T>) {
  const [moved, setMoved] = useState<number | null>(null);
  const at = found.length === 0 ? -1 : Math.min(moved ?? (firstIsMeant ? 0 : -1), found.length - 1);
  const box = useCombobox<T>({
    items: [...found],
    isOpen: true,
    selectedItem: null,
    inputValue: typed,
    highlightedIndex: at,
    itemToString: () => "",
    onHighlightedIndexChange: ({ highlightedIndex }) =>
      setMoved(highlightedIndex >= 0 ? highlightedIndex : null),
    onSelectedItemChange: ({ selectedItem }) => selectedItem && onPick(selectedItem),
    // Only picking changes anything here; the field itself says what is typed.
    stateReducer: (_state, { changes }) => ({ ...changes, inputValue: typed }),
  });
  return {
    /** The item Enter takes, if any. */
    chosen: found[at],
    at,
    forget: () => setMoved(null),
    inputProps: (own?: (event: KeyboardEvent<HTMLInputElement>) => void) =>
      box.getInputProps({
        "aria-label": label,
        "aria-labelledby": undefined,
        "aria-expanded": found.length > 0,
        autoComplete: "off",
        onChange: (event: ChangeEvent<HTMLInputElement>) => {
          setMoved(null);
          onType(event.target.value);
        },
        onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
          own?.(event);
          const meant = found[at];
          if (
            event.key === "Enter" &&
            !event.defaultPrevented &&
            !event.nativeEvent.isComposing &&
            meant !== undefined
          ) {
            // Taken here and now: told later, after another line was typed, it would be taken with that line's words.
            event.preventDefault();
            onPick(meant);
          }
          // A key the caller has used, and Escape, which closes what the field stands in, are not the list's.
          if (event.defaultPrevented || event.key === "Escape")
            (event.nativeEvent as Event & { preventDownshiftDefault?: boolean }).preventDownshiftDefault =
              true;
        },
      }),
    listProps: () => box.getMenuProps({ "aria-label": listLabel, "aria-labelledby": undefined }),
    optionProps: (item: T, index: number) =>
      box.getItemProps({
        item,
        index,
        "aria-selected": index === at,
        onPointerDown: (event) => event.preventDefault(),
      }),
  };
}
