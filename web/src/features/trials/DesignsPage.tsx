import { useState } from "react";
import { Link } from "react-router";
import { messageOf, useDesigns } from "../../api";
import { Button, PageHead } from "../../ui";
import { DesignSheet } from "./DesignSheet";

/** Designs of mini-batches, the newest first. */
export function DesignsPage() {
  const [designing, setDesigning] = useState(false);
  const designs = useDesigns();
  const rows = designs.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead
        title="Next trials"
        lead="Few small batches that teach the most about two or three ingredients."
      >
        <Link className="border-b-[0.9px] border-ink text-body" to="/learning">
          Learning
        </Link>
        <Button primary onClick={() => setDesigning(true)}>
          Design trials
        </Button>
      </PageHead>
      {designs.error && <p className="pt-6 text-reading text-rosy">{messageOf(designs.error)}</p>}
      {designs.data && rows.length === 0 && (
        <p className="pt-8 text-reading">
          No trials yet. Choose a formula, the ingredients you are unsure of, and the reading that should
          become better.
        </p>
      )}
      <ul className="pt-6">
        {rows.map((row) => (
          <li
            key={row.id}
            className="flex flex-wrap items-baseline gap-x-8 border-b-[0.9px] border-ink py-3 hover:bg-lit"
          >
            <Link
              className="w-80 text-state hover:underline hover:underline-offset-4"
              to={`/learning/trials/${row.id}`}
            >
              {row.name}
            </Link>
            <span className="flex-1 text-body">
              {row.bounds.map((bound) => bound.name).join(", ")}: {row.wanted} {row.label.toLowerCase()}
            </span>
            <span className="text-body font-semibold">
              {row.response.n} of {row.trials.length} read back
            </span>
          </li>
        ))}
      </ul>
      {designs.hasNextPage && <Button onClick={() => void designs.fetchNextPage()}>Older ones</Button>}
      {designing && <DesignSheet onClose={() => setDesigning(false)} />}
    </div>
  );
}
