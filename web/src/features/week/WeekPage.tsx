import { useRef, useState } from "react";
import { Link } from "react-router";
import { calendarAddress, messageOf, type PlannedOrder, useChangeOrder, useWeek, type Week } from "../../api";
import { fixed, sayMass } from "../../lib/numbers";
import { byClockOf } from "../../lib/zone";
import { Button, DrawingTools, PageHead, useNotice } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { MadeSheet } from "./MadeSheet";
import { OrderSheet } from "./OrderSheet";
import { ShoppingList } from "./ShoppingList";
import { WeekDrawing } from "./WeekDrawing";

const DAYS = [7, 14] as const;
const SEARCH_SECONDS = 8;

/** The open orders in the week's hours: hands, bowls and the rack shared, each dry by its day. */
export function WeekPage() {
  const [days, setDays] = useState<number>(7);
  const [searching, setSearching] = useState(false);
  const [taking, setTaking] = useState(false);
  const first = useWeek(days, 0);
  const better = useWeek(days, searching ? SEARCH_SECONDS : 0);
  const week = searching && better.data?.searched ? better.data : first.data;
  const problem = first.error ?? (searching ? better.error : null);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead title="Week" lead={week ? summary(week) : problem ? "" : "Working it out…"}>
        <label className="text-body">
          <span className="sr-only">How many days</span>
          <select
            className="written text-body"
            value={days}
            onChange={(event) => setDays(Number(event.target.value))}
          >
            {DAYS.map((each) => (
              <option key={each} value={each}>
                {each} days
              </option>
            ))}
          </select>
        </label>
        {searching && better.isFetching ? (
          <Button onClick={() => setSearching(false)}>Stop looking</Button>
        ) : (
          <Button onClick={() => setSearching(true)}>Look for a better week</Button>
        )}
        <a className="border-b-[0.9px] border-ink text-body" href={calendarAddress()}>
          Calendar
        </a>
        <Button onClick={() => window.print()}>Print</Button>
        <Button primary onClick={() => setTaking(true)}>
          Take an order
        </Button>
      </PageHead>
      {searching && better.isFetching && (
        <p role="status" className="text-body text-soft">
          Looking for a better week, up to {SEARCH_SECONDS} seconds; the one below is good to work by.
        </p>
      )}
      {problem && (
        <p role="alert" className="pt-6 text-reading text-rosy">
          {messageOf(problem)}{" "}
          <Link className="underline underline-offset-4" to="/settings">
            To the settings
          </Link>
        </p>
      )}
      {week && week.orders.length === 0 && (
        <p className="pt-8 text-reading">
          No order is open. Take one: for whom, what, how many, by when; or a market day, to fill the table.
        </p>
      )}
      {week && week.orders.length > 0 && <Drawn week={week} />}
      {week && week.orders.length > 0 && <ShoppingList />}
      {taking && <OrderSheet onClose={() => setTaking(false)} />}
    </div>
  );
}

function summary(week: Week): string {
  const placed = week.orders.filter((each) => each.starts_at !== null).length;
  const trays =
    week.trays === null ? "trays not counted" : `${week.trays_taken} of ${week.trays} trays taken`;
  const hands = `${week.hands} ${week.hands === 1 ? "pair" : "pairs"} of hands`;
  const best =
    week.gap === null
      ? ""
      : week.gap < 0.0005
        ? " Proven: no week is better."
        : ` At most ${fixed(100 * week.gap, 1)} % from the best there is.`;
  return `${placed} of ${week.orders.length} orders have their place. ${hands}, ${trays}.${best}`;
}

function Drawn({ week }: { week: Week }) {
  const drawing = useRef<SVGSVGElement>(null);
  const change = useChangeOrder();
  const say = useNotice();
  const put = async (
    order: PlannedOrder,
    body: Parameters<typeof change.mutateAsync>[0]["body"],
    said: string,
  ) => {
    try {
      await change.mutateAsync({ order: order.order.id, body });
      say(said);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const [making, setMaking] = useState<PlannedOrder>();
  const onDrag = (order: PlannedOrder, starts_at: string) =>
    void put(order, { starts_at, free: false }, `${order.name} stays there; the rest follows.`);
  return (
    <>
      <WeekDrawing week={week} ref={drawing} onDrag={onDrag} />
      <DrawingTools
        svg={() => drawing.current}
        name="Week"
        columns={["for", "what", "begins", "hands until", "dry", "due"]}
        rows={week.orders.map((each) => [
          each.order.who,
          each.name,
          moment(each.starts_at, week.zone),
          moment(each.hands_end_at, week.zone),
          moment(each.dry_at, week.zone),
          moment(each.order.due_at, week.zone),
        ])}
      />
      <table className="mt-6 w-full text-body">
        <HeadRow ruled columns={["For", "What", "Hands", "Dry", "By", ""]} />
        <tbody>
          {week.orders.map((each) => (
            <tr key={each.order.id} className="border-b-[0.9px] border-ink align-baseline">
              <th scope="row" className="py-2 text-left font-medium">
                {each.order.who}
              </th>
              <td>
                <Link
                  className="underline underline-offset-4"
                  to={`/plan/${each.order.formula_id}?pieces=${each.order.pieces}`}
                >
                  {each.order.pieces} {each.name}
                </Link>
                , {sayMass(each.batch_g)}
                {each.bowls > 1 && ` in ${each.bowls} bowls`}
                {each.fillings > 1 && `, moulds filled ${each.fillings} times`}
              </td>
              <td>
                {each.starts_at ? (
                  `${moment(each.starts_at, week.zone)}, ${each.hands_h} h`
                ) : (
                  <span className="font-semibold text-rosy">No place: {each.why_not}.</span>
                )}
              </td>
              <td>{moment(each.dry_at, week.zone)}</td>
              <td>{moment(each.order.due_at, week.zone)}</td>
              <td className="no-print flex flex-wrap gap-3 py-1">
                <Move order={each} onMove={(starts_at) => onDrag(each, starts_at)} />
                {each.fixed && (
                  <Button
                    aria-label={`Let it go: the week places ${each.name} for ${each.order.who}`}
                    onClick={() => void put(each, { free: true }, "The week finds its place again.")}
                  >
                    Let it go
                  </Button>
                )}
                <Button
                  aria-label={`Made: ${each.name} for ${each.order.who}`}
                  onClick={() => setMaking(each)}
                >
                  Made
                </Button>
                <Button
                  aria-label={`Cancel ${each.name} for ${each.order.who}`}
                  onClick={() => void put(each, { state: "cancelled", free: false }, "Cancelled.")}
                >
                  Cancel
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {making && <MadeSheet order={making} onClose={() => setMaking(undefined)} />}
    </>
  );
}

/** The keyboard's way of dragging: an hour earlier or later. */
function Move({ order, onMove }: { order: PlannedOrder; onMove: (starts_at: string) => void }) {
  const starts = order.starts_at;
  if (starts === null) return null;
  const by = (hours: number) => onMove(new Date(Date.parse(starts) + 3_600_000 * hours).toISOString());
  return (
    <>
      <Button aria-label={`−1 h: ${order.name} an hour earlier`} onClick={() => by(-1)}>
        −1 h
      </Button>
      <Button aria-label={`+1 h: ${order.name} an hour later`} onClick={() => by(1)}>
        +1 h
      </Button>
    </>
  );
}

/** A moment by the clock the week is planned by. */
const moment = (at: string | null, zone: string) =>
  at === null
    ? "–"
    : byClockOf(zone, at, {
        weekday: "short",
        day: "numeric",
        month: "short",
        hour: "2-digit",
        minute: "2-digit",
      });
