import { useState } from "react";
import { Dialog } from "../../ui";

const PAGES = import.meta.glob("../../../../docs/science/*.md", { query: "?raw", import: "default" });

/** The page that derives a reading, as it is written. */
export function SciencePage({ page }: { page: string }) {
  const [text, setText] = useState<string | null>(null);
  const load = PAGES[`../../../../docs/science/${page}.md`];
  if (!load) return null;
  return (
    <>
      <button
        type="button"
        className="mt-1 border-b border-ink"
        onClick={() => void load().then((found) => setText(plain(String(found))))}
      >
        How it is worked out
      </button>
      <Dialog open={text !== null} onOpenChange={() => setText(null)} title="How it is worked out">
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a long text must be scrollable by keyboard */}
        <div className="mt-4 whitespace-pre-wrap text-label" tabIndex={0}>
          {text}
        </div>
      </Dialog>
    </>
  );
}

/** The text without what only the tests read. */
function plain(markdown: string): string {
  return markdown
    .replace(/<!-- worked example -->[\s\S]*?<!-- end of worked example -->/g, "")
    .replace(/<!--.*?-->\n?/g, "")
    .replace(/^#+ /gm, "")
    .replace(/\*\*/g, "")
    .trim();
}
