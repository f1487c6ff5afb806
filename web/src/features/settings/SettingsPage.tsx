import { useState } from "react";
import { Link } from "react-router";
import { messageOf, type Settings, useSaveSettings, useSettings } from "../../api";
import { zoneHere, zonesWith } from "../../lib/zone";
import { Button, Field, useNotice } from "../../ui";

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;
/** Hours of a day; small counts are chosen among them as well. */
const HOURS = Array.from({ length: 25 }, (_, hour) => hour);
const MARKETS = ["US", "EU", "UK"] as const;

/** How figures are read and typed on every page; inside nothing is rounded for it. */
const UNITS = [
  [
    "mass_unit",
    "Mass",
    [
      ["g", "grams"],
      ["oz", "ounces"],
    ],
  ],
  [
    "temperature_unit",
    "Temperature",
    [
      ["°C", "°C"],
      ["°F", "°F"],
    ],
  ],
  [
    "volume_unit",
    "Volume",
    [
      ["mL", "mL"],
      ["fl oz", "US fl oz"],
    ],
  ],
  [
    "paper",
    "Paper",
    [
      ["A4", "A4"],
      ["Letter", "US Letter"],
    ],
  ],
  [
    "decimal_sign",
    "Decimal sign",
    [
      [".", "point, 1.5"],
      [",", "comma, 1,5"],
    ],
  ],
] as const;

/** What the maker says of the studio, once for all places. */
export function SettingsPage() {
  const settings = useSettings();
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Settings</h1>
      <p className="text-row text-soft">
        Facts of the maker for labels, hands and hours for the week, money for prices.{" "}
        <Link className="underline underline-offset-4" to="/settings/workshop">
          The workshop: moulds, trays, tubs, scale, air by month
        </Link>{" "}
        <Link className="underline underline-offset-4" to="/settings/files">
          Backups and files
        </Link>{" "}
        <Link className="underline underline-offset-4" to="/settings/devices">
          Devices on the network
        </Link>
      </p>
      {settings.error && <p className="pt-6 text-reading text-rosy">{messageOf(settings.error)}</p>}
      {settings.data && <Form said={settings.data} />}
    </div>
  );
}

function Form({ said }: { said: Settings }) {
  const [typed, setTyped] = useState(said);
  const [refused, setRefused] = useState("");
  const save = useSaveSettings();
  const say = useNotice();
  const put = (some: Partial<Settings>) => setTyped({ ...typed, ...some });
  const onSave = async () => {
    try {
      const before = said;
      await save.mutateAsync(typed as Parameters<typeof save.mutateAsync>[0]);
      setRefused("");
      say("Kept.", {
        action: {
          label: "Take it back",
          run: () => {
            setTyped(before);
            void save.mutateAsync(before as Parameters<typeof save.mutateAsync>[0]);
          },
        },
      });
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return (
    <form
      className="flex flex-col gap-6 pt-6 text-row"
      onSubmit={(event) => {
        event.preventDefault();
        void onSave();
      }}
    >
      <section aria-label="Maker" className="flex flex-wrap gap-x-8 gap-y-3">
        <Field
          className="w-80"
          label="Maker"
          value={typed.maker ?? ""}
          onChange={(event) => put({ maker: event.target.value })}
        />
        <Field
          className="w-96"
          label="Place"
          value={typed.place ?? ""}
          onChange={(event) => put({ place: event.target.value })}
        />
        <Field
          className="w-80"
          label="Contact"
          value={typed.contact ?? ""}
          onChange={(event) => put({ contact: event.target.value })}
        />
      </section>
      <fieldset className="flex flex-wrap gap-6">
        <legend className="text-label italic text-soft">Markets</legend>
        {MARKETS.map((market) => (
          <label key={market} className="flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              className="accent-[var(--ink)]"
              checked={(typed.markets ?? []).includes(market)}
              onChange={(event) =>
                put({
                  markets: event.target.checked
                    ? [...(typed.markets ?? []), market]
                    : (typed.markets ?? []).filter((each) => each !== market),
                })
              }
            />
            {market}
          </label>
        ))}
      </fieldset>
      <section aria-label="Hands and bowls" className="flex flex-wrap gap-8">
        <Choice
          label="Pairs of hands"
          value={typed.hands ?? 1}
          from={1}
          to={3}
          onChoose={(hands) => put({ hands })}
        />
        <Choice
          label="Bowls at once"
          value={typed.bowls ?? 1}
          from={1}
          to={6}
          onChoose={(bowls) => put({ bowls })}
        />
        {UNITS.map(([name, label, ways]) => (
          <label key={name} className="text-caption italic text-soft">
            {label}
            <select
              className="written block text-row not-italic text-ink"
              value={typed[name] ?? ways[0][0]}
              onChange={(event) => put({ [name]: event.target.value })}
            >
              {ways.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        ))}
        <Field
          className="w-28"
          label="Currency"
          value={typed.currency ?? ""}
          maxLength={3}
          onChange={(event) => put({ currency: event.target.value.toUpperCase() })}
        />
      </section>
      <label className="flex min-h-9 items-center gap-2">
        <input
          type="checkbox"
          className="accent-[var(--ink)]"
          checked={typed.stand_ins ?? false}
          onChange={(event) => put({ stand_ins: event.target.checked })}
        />
        Stand-in devices at the bench, to try it without a scale: what they show nobody measured, and the
        record says so
      </label>
      <Rates typed={typed} put={put} />
      <Deliveries typed={typed} put={put} />
      <Hours typed={typed} put={put} />
      {refused && (
        <p role="alert" className="text-body text-rosy">
          {refused}
        </p>
      )}
      <p>
        <Button primary type="submit" hint="Enter" disabled={save.isPending}>
          Keep the settings
        </Button>
      </p>
    </form>
  );
}

/** What a dollar costs in other money, typed by hand: no service is asked, and every converted price says so. */
function Rates({ typed, put }: { typed: Settings; put: (some: Partial<Settings>) => void }) {
  const rates = typed.rates ?? [];
  const today = new Date().toISOString().slice(0, 10);
  const set = (index: number, some: Partial<(typeof rates)[number]>) =>
    put({ rates: rates.map((rate, at) => (at === index ? { ...rate, ...some } : rate)) });
  return (
    <section aria-label="Rates">
      <h2 className="text-label italic text-soft">Rates; reference prices are in US dollars</h2>
      {rates.map((rate, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a rate is known by its place while it is typed
        <p key={index} className="leading-9">
          1 USD costs{" "}
          <input
            aria-label={`Rate ${index + 1}`}
            className="written w-24 text-center"
            inputMode="decimal"
            value={rate.per_usd}
            onChange={(event) => set(index, { per_usd: event.target.value.replace(",", "."), on: today })}
          />{" "}
          <input
            aria-label={`Currency of rate ${index + 1}`}
            className="written w-14 text-center"
            maxLength={3}
            value={rate.currency}
            onChange={(event) => set(index, { currency: event.target.value.toUpperCase(), on: today })}
          />
          , typed on {rate.on}{" "}
          <button
            type="button"
            className="ml-2 min-h-6 border-b border-ink text-caption"
            onClick={() => put({ rates: rates.filter((_, at) => at !== index) })}
          >
            Take out
          </button>
        </p>
      ))}
      <button
        type="button"
        className="min-h-6 border-b border-ink text-caption"
        onClick={() => put({ rates: [...rates, { currency: "EUR", per_usd: "", on: today }] })}
      >
        Another rate
      </button>
    </section>
  );
}

/** What suppliers ask for bringing it: the shopping list weighs it against cheaper packs elsewhere. */
function Deliveries({ typed, put }: { typed: Settings; put: (some: Partial<Settings>) => void }) {
  const deliveries = typed.deliveries ?? [];
  const set = (index: number, some: Partial<(typeof deliveries)[number]>) =>
    put({ deliveries: deliveries.map((each, at) => (at === index ? { ...each, ...some } : each)) });
  const line = (
    index: number,
    label: string,
    value: string,
    width: string,
    take: (value: string) => void,
  ) => (
    <input
      aria-label={`${label} ${index + 1}`}
      className={`written ${width} text-center`}
      value={value}
      onChange={(event) => take(event.target.value)}
    />
  );
  return (
    <section aria-label="Deliveries">
      <h2 className="text-label italic text-soft">What suppliers ask for delivery</h2>
      {deliveries.map((each, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a supplier is known by its place while it is typed
        <p key={index} className="leading-9">
          {line(index, "Supplier", each.supplier, "w-48", (supplier) => set(index, { supplier }))} asks{" "}
          {line(index, "Fee of supplier", String(each.fee), "w-16", (fee) =>
            set(index, { fee: fee.replace(",", ".") }),
          )}{" "}
          {each.currency}, nothing from{" "}
          {line(index, "Free from, supplier", String(each.free_from ?? ""), "w-20", (from) =>
            set(index, { free_from: from.trim() ? from.replace(",", ".") : null }),
          )}{" "}
          {each.currency} on (empty: always){" "}
          <button
            type="button"
            className="ml-2 min-h-6 border-b border-ink text-caption"
            onClick={() => put({ deliveries: deliveries.filter((_, at) => at !== index) })}
          >
            Take out
          </button>
        </p>
      ))}
      <button
        type="button"
        className="min-h-6 border-b border-ink text-caption"
        onClick={() =>
          put({
            deliveries: [
              ...deliveries,
              { supplier: "", fee: "5", free_from: null, currency: typed.currency ?? "USD" },
            ],
          })
        }
      >
        Another supplier
      </button>
    </section>
  );
}

/** The week's hours, drawn as it is typed: light where hands may work. */
function Hours({ typed, put }: { typed: Settings; put: (some: Partial<Settings>) => void }) {
  const week = typed.week ?? [];
  const change = (
    index: number,
    some: Partial<Settings["week"] extends (infer Day)[] | undefined ? Day : never>,
  ) => put({ week: week.map((day, at) => (at === index ? { ...day, ...some } : day)) });
  return (
    <section aria-label="Hours of the workshop">
      <h2 className="text-label italic text-soft">Hours of the workshop</h2>
      <label className="block pb-2 pt-1 text-body">
        by the clock of{" "}
        <select
          className="written text-body"
          value={typed.zone ?? ""}
          onChange={(event) => put({ zone: event.target.value })}
        >
          <option value="">this device: {zoneHere()}</option>
          {zonesWith(typed.zone ?? "").map((zone) => (
            <option key={zone}>{zone}</option>
          ))}
        </select>
      </label>
      <table>
        <tbody>
          {week.map((day, index) => (
            <tr key={DAYS[index]} className="border-b-[0.9px] border-ink">
              <th scope="row" className="w-36 text-left font-medium">
                {DAYS[index]}
              </th>
              <td className="w-64 py-1">
                <HourChoice
                  label={`${DAYS[index]} from`}
                  value={day.from_h}
                  onChoose={(from_h) => change(index, { from_h })}
                />
                {" to "}
                <HourChoice
                  label={`${DAYS[index]} to`}
                  value={day.to_h}
                  onChoose={(to_h) => change(index, { to_h })}
                />
                {day.from_h === day.to_h && <span className="pl-3 text-soft">closed</span>}
              </td>
              <td>
                <svg width="390" height="22" aria-hidden="true">
                  <rect width="384" height="22" fill="var(--shade)" />
                  <rect
                    x={16 * day.from_h}
                    width={Math.max(0, 16 * (day.to_h - day.from_h))}
                    height="22"
                    fill="var(--lit)"
                  />
                  <path d="M0 21.5H384" stroke="var(--ink)" />
                </svg>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function HourChoice({
  label,
  value,
  onChoose,
}: {
  label: string;
  value: number;
  onChoose: (hour: number) => void;
}) {
  return (
    <select
      aria-label={label}
      className="written text-row"
      value={value}
      onChange={(event) => onChoose(Number(event.target.value))}
    >
      {HOURS.map((hour) => (
        <option key={hour} value={hour}>
          {hour}:00
        </option>
      ))}
    </select>
  );
}

function Choice({
  label,
  value,
  from,
  to,
  onChoose,
}: {
  label: string;
  value: number;
  from: number;
  to: number;
  onChoose: (value: number) => void;
}) {
  return (
    <label className="text-caption italic text-soft">
      {label}
      <select
        className="written block text-row not-italic text-ink"
        value={value}
        onChange={(event) => onChoose(Number(event.target.value))}
      >
        {HOURS.filter((each) => each >= from && each <= to).map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
    </label>
  );
}
