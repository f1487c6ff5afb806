import type { Tray, TrayHappening } from "../../api";
import { benchFigure } from "../../lib/numbers";
import { massUnit } from "../../lib/units";
import { HeadRow } from "../../ui/HeadRow";
import { hours } from "./shelf";

interface Props {
  tray: Tray;
  act: (event: TrayHappening, undo?: TrayHappening) => Promise<void>;
}

/** What was weighed, oldest first; what does not belong is said, and can be left out or taken back in. */
export function WeighInList({ tray, act }: Props) {
  const { weighings } = tray.state;
  if (weighings.length === 0) return null;
  const counted = weighings.filter((each) => !each.left_out);
  const excluded = new Map(tray.reading.fit?.excluded.map((each) => [counted[each.index]?.seq, each.reason]));
  return (
    <details className="text-label">
      <summary className="min-h-8 text-soft">
        {weighings.length} weigh-{weighings.length === 1 ? "in" : "ins"}
        {excluded.size > 0 && <b className="text-rosy">, {excluded.size} set aside</b>}
      </summary>
      <table className="mt-1">
        <HeadRow
          columns={[
            "after",
            massUnit(),
            "pieces",
            "by",
            <span key="remark" className="sr-only">
              remark
            </span>,
          ].map((says) => ({ says, className: "pr-6" }))}
        />
        <tbody>
          {weighings.map((each) => (
            <tr key={each.seq} className={each.left_out ? "text-soft line-through" : ""}>
              <td className="pr-6">{hours(each.hours)}</td>
              <td className="pr-6">{benchFigure(each.mass_g)}</td>
              <td className="pr-6">{each.pieces}</td>
              <td className="pr-6">{each.source}</td>
              <td>
                {excluded.has(each.seq) && (
                  <b className="pr-3 text-rosy">set aside: {excluded.get(each.seq)}</b>
                )}
                <button
                  type="button"
                  className="min-h-8 underline underline-offset-4"
                  onClick={() =>
                    void act({ kind: "amended", of: each.seq, left_out: !each.left_out, why: "" })
                  }
                >
                  {each.left_out ? "Count it again" : "Leave it out"}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
