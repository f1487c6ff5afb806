import { scaleLinear } from "d3-scale";
import { type Settings, useReference } from "../../api";
import { r } from "../../lib/hairs";
import { MONTHS } from "../../lib/months";
import { toShown, typedOf, unitShown } from "../../lib/units";
import { Button, KeptNumber } from "../../ui";
import type { Change } from "./useWorkshop";

type Room = NonNullable<Settings["rooms"]>[number];

const W = 1080;
const H = 120;
const EACH = W / MONTHS.length;

/** The workshop's air by month: new formulas begin in it, and their Desk can be set to any month. */
export function Year({ rooms, change }: { rooms: readonly Room[]; change: Change }) {
  const reference = useReference().data;
  if (!reference) return null;
  const usual = reference.empty_formula.room;
  const set = (index: number, some: Partial<Room>) =>
    void change((now) => ({
      rooms: (now.rooms ?? []).map((room, at) => (at === index ? { ...room, ...some } : room)),
    }));
  return (
    <section aria-label="Air by month">
      <h2 className="text-label italic text-soft">
        The workshop's air by month: the line is its warmth, the water its damp
      </h2>
      {rooms.length === 0 ? (
        <p className="flex flex-wrap items-baseline gap-4 pt-1 text-row">
          Nobody has said; a new formula begins at {typedOf(usual.temperature_c, "°C")} {unitShown("°C")} and{" "}
          {usual.humidity_pct} % humidity.
          <Button onClick={() => void change({ rooms: MONTHS.map(() => usual) })}>Say it by month</Button>
        </p>
      ) : (
        <>
          <div className="overflow-x-auto">
            <Drawn rooms={rooms} verydamp={reference.very_damp_pct} />
            <table className="text-row" style={{ width: W }}>
              <thead className="sr-only">
                <tr>
                  <th>What</th>
                  {MONTHS.map((month) => (
                    <th key={month}>{month}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                <Figures
                  rooms={rooms}
                  what="Temperature"
                  unit="°C"
                  bounds={[5, 45]}
                  of={(room) => room.temperature_c}
                  onKeep={(index, temperature_c) => set(index, { temperature_c })}
                />
                <Figures
                  rooms={rooms}
                  what="Humidity"
                  unit="%"
                  bounds={[5, 100]}
                  of={(room) => room.humidity_pct}
                  onKeep={(index, humidity_pct) => set(index, { humidity_pct })}
                />
              </tbody>
            </table>
          </div>
          <p className="pt-2">
            <Button onClick={() => void change({ rooms: [] })}>Forget the months</Button>
          </p>
        </>
      )}
    </section>
  );
}

interface FiguresProps {
  rooms: readonly Room[];
  what: string;
  unit: string;
  bounds: readonly [number, number];
  of: (room: Room) => number;
  onKeep: (index: number, value: number) => void;
}

/** One row of twelve figures under their months. */
function Figures({ rooms, what, unit, bounds, of, onKeep }: FiguresProps) {
  return (
    <tr className="border-b-[0.9px] border-ink">
      <th scope="row" className="sr-only">
        {what}
      </th>
      {rooms.map((room, index) => (
        <td key={MONTHS[index]} style={{ width: EACH }} className="whitespace-nowrap py-1 text-center">
          <KeptNumber
            label={`${what} in ${MONTHS[index]}, ${unitShown(unit)}`}
            unit={unit}
            value={of(room)}
            least={bounds[0]}
            most={bounds[1]}
            empty={false}
            className="w-12 text-center"
            onKeep={(value) => onKeep(index, Number(value))}
          />{" "}
          <span className="text-caption text-soft">{unitShown(unit)}</span>
        </td>
      ))}
    </tr>
  );
}

/** Warmth as a hair across the year, dampness as water that stands under it; stippled where pieces would not dry. */
function Drawn({ rooms, verydamp }: { rooms: readonly Room[]; verydamp: number }) {
  const damp = scaleLinear().domain([0, 100]).range([H, 14]);
  const warm = scaleLinear()
    .domain([5, 35])
    .range([H - 8, 16]);
  const steps = rooms.map((room, index) => `M${r(index * EACH)} ${r(damp(room.humidity_pct))}h${r(EACH)}`);
  const line = rooms
    .map((room, index) => `${index ? "L" : "M"}${r((index + 0.5) * EACH)} ${r(warm(room.temperature_c))}`)
    .join("");
  const told = rooms
    .map(
      (room, index) =>
        `${MONTHS[index]} ${toShown(room.temperature_c, "°C").toFixed(0)} ${unitShown("°C")}, ${room.humidity_pct} %`,
    )
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${W} ${H + 22}`}
      width={W}
      height={H + 22}
      role="img"
      aria-label={`Air by month: ${told}.`}
    >
      {rooms.map((room, index) => (
        <rect
          key={MONTHS[index]}
          x={index * EACH}
          y={damp(room.humidity_pct)}
          width={EACH}
          height={H - damp(room.humidity_pct)}
          fill={room.humidity_pct > verydamp ? "var(--verd)" : "var(--vtint)"}
          opacity={room.humidity_pct > verydamp ? 0.55 : 1}
        />
      ))}
      <path d={steps.join("")} stroke="var(--verd)" strokeWidth="1.4" />
      <path d={`M0 ${damp(verydamp)}H${W}`} stroke="var(--ink)" strokeWidth="0.9" strokeDasharray="2 4" />
      <text x="4" y={damp(verydamp) - 4} fontSize="13" fontStyle="italic" fill="var(--ink)">
        over {verydamp} % pieces that draw water stay wet
      </text>
      <path d={line} fill="none" stroke="var(--rosy)" strokeWidth="2.2" strokeLinejoin="round" />
      <path d={`M0 ${H}H${W}`} stroke="var(--ink)" />
      {MONTHS.map((month, index) => (
        <text
          key={month}
          x={(index + 0.5) * EACH}
          y={H + 17}
          textAnchor="middle"
          fontSize="14"
          fill="var(--soft)"
        >
          {month.slice(0, 3)}
        </text>
      ))}
    </svg>
  );
}
