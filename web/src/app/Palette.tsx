import { lazy, Suspense, useEffect, useState } from "react";
import { Dialog } from "../ui";

const PaletteSearch = lazy(() => import("./PaletteSearch"));

/** One key over everything: formulas, ingredients, places, what can be done here. */
export function Palette() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKeyDown = (event: globalThis.KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setOpen((before) => !before);
      }
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
  return (
    <>
      <button type="button" className="text-caption text-soft hover:text-ink" onClick={() => setOpen(true)}>
        Go to <kbd className="border-b border-ink font-sans text-hint">Ctrl K</kbd>
      </button>
      <Dialog open={open} onOpenChange={setOpen} title="Go to, or do">
        {open && (
          <Suspense fallback={<p className="text-body text-soft">Opening…</p>}>
            <PaletteSearch onDone={() => setOpen(false)} />
          </Suspense>
        )}
      </Dialog>
    </>
  );
}
