import { useState } from "react";
import { Link } from "react-router";
import { useDesigns } from "../../api";
import { Button, NamedList, PageHead } from "../../ui";
import { DesignSheet } from "./DesignSheet";

/** Designs of mini-batches, the newest first. */
export function DesignsPage() {
  const [designing, setDesigning] = useState(false);
  const designs = useDesigns();
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
      <NamedList
        asked={designs}
        to={(row) => `/learning/trials/${row.id}`}
        said={(row) =>
          `${row.bounds.map((bound) => bound.name).join(", ")}: ${row.wanted} ${row.label.toLowerCase()}`
        }
        state={(row) => `${row.response.n} of ${row.trials.length} read back`}
        empty="No trials yet. Choose a formula, the ingredients you are unsure of, and the reading that should become better."
      />
      {designing && <DesignSheet onClose={() => setDesigning(false)} />}
    </div>
  );
}
