import { useState } from "react";
import { Link } from "react-router";
import { ApiError, type PlannedOrder, useBatches, useChangeOrder } from "../../api";
import { inUnits } from "../../lib/units";
import { Sheet, useNotice } from "../../ui";
import { type Purpose, PurposeChoice } from "./PurposeChoice";

interface Block {
  rule: string;
  text: string;
}

/** Which batches an order was made from: what is sold or given away has to be cleared, and found again. */
export function MadeSheet({ order, onClose }: { order: PlannedOrder; onClose: () => void }) {
  const [purpose, setPurpose] = useState<Purpose>(order.order.for as Purpose);
  const [chosen, setChosen] = useState<readonly number[]>(order.order.batch_ids);
  const [blocks, setBlocks] = useState<readonly Block[]>([]);
  const batches = useBatches("", order.order.formula_id);
  const change = useChangeOrder();
  const say = useNotice();
  const rows = batches.data?.pages.flatMap((page) => page.batches) ?? [];
  return (
    <Sheet
      onClose={onClose}
      title={`Made: ${order.order.pieces} ${order.name} for ${order.order.who}`}
      lead="From which batches? So that they can be found again."
      submit="Made"
      onSubmit={async () => {
        try {
          await change.mutateAsync({
            order: order.order.id,
            body: { state: "made", free: false, batch_ids: [...chosen], for: purpose },
          });
        } catch (error) {
          if (error instanceof ApiError && error.code === "blocked")
            setBlocks((error.details.blocks as Block[] | undefined) ?? []);
          throw error;
        }
        say("Made.");
        onClose();
        return "";
      }}
    >
      <PurposeChoice value={purpose} onChoose={setPurpose} />
      <fieldset className="flex max-h-60 flex-col overflow-y-auto">
        <legend className="text-body text-soft">Batches of this formula</legend>
        {batches.data && rows.length === 0 && <p className="text-body">None has been made yet.</p>}
        {rows.map((row) => (
          <span key={row.id} className="flex min-h-8 items-center gap-2">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={chosen.includes(row.id)}
                onChange={(event) =>
                  setChosen(
                    event.target.checked ? [...chosen, row.id] : chosen.filter((each) => each !== row.id),
                  )
                }
              />
              batch {row.id}, {row.created_at.slice(0, 10)}
            </label>
            <Link className="text-label underline underline-offset-4" to={`/batches/${row.id}/label`}>
              its clearance
            </Link>
          </span>
        ))}
      </fieldset>
      {blocks.length > 1 && (
        <ul className="text-body">
          {blocks.map((block) => (
            <li key={block.rule + block.text}>
              {inUnits(block.text)} <span className="text-soft">{block.rule}</span>
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}
