import { Link } from "react-router";
import { useReopened } from "../../api";
import { inUnits } from "../../lib/units";

/** What was signed, and something has come up against it since; nothing where all is well. */
export function Reopened() {
  const told = useReopened();
  return (told.data ?? []).map((each) => (
    <p key={each.batch_id + each.market} role="status" className="max-w-[860px] pt-1 text-body text-rosy">
      {each.name}, batch {each.batch_id}, was cleared for {each.market} and is open again:{" "}
      {inUnits(each.blocks[0]?.text ?? "")}{" "}
      <Link className="underline underline-offset-4" to={`/batches/${each.batch_id}/label`}>
        Its clearance
      </Link>
    </p>
  ));
}
