import { type RefObject, useEffect, useRef } from "react";

interface Actions {
  undo: () => void;
  redo: () => void;
  rebalance: () => void;
  entry: RefObject<HTMLInputElement | null>;
}

/** Keys that work anywhere on the Desk. */
export function useDeskKeys(actions: Actions): void {
  const latest = useRef(actions);
  latest.current = actions;
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const ctrl = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (ctrl && (key === "y" || (key === "z" && event.shiftKey))) {
        event.preventDefault();
        latest.current.redo();
      } else if (ctrl && key === "z") {
        event.preventDefault();
        latest.current.undo();
      } else if (event.altKey && key === "b") {
        event.preventDefault();
        latest.current.rebalance();
      } else if (key === "n" && !ctrl && !event.altKey && !isWriting(event.target)) {
        event.preventDefault();
        latest.current.entry.current?.focus();
      }
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
}

function isWriting(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}
