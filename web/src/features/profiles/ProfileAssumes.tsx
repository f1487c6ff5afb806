import type { ProfileSettings } from "../../api";
import { readTyped, typedOf, unitShown } from "../../lib/units";
import { NumberInput, WaterOptions } from "../../ui";
import type { Draft } from "../draft";

interface Props {
  settings: ProfileSettings;
  onChange: (settings: ProfileSettings) => void;
}

const MARKETS = ["US", "EU", "UK"];
const FIGURES: readonly [
  keyof ProfileSettings & ("youngest_user_months" | "tub_l" | "dose_g" | "room_c" | "humidity_pct"),
  string,
  string,
][] = [
  ["youngest_user_months", "youngest user", "months"],
  ["dose_g", "one dose", "g"],
  ["tub_l", "the tub", "L"],
  ["room_c", "the room", "°C"],
  ["humidity_pct", "its air", "% RH"],
];

/** What a profile assumes of market, user, bath and room; what is left empty stays as the formula has it. */
export function ProfileAssumes({ settings, onChange }: Props) {
  return (
    <fieldset className="mt-5">
      <legend className="text-caption italic text-soft">
        It also assumes (empty: as the formula has it)
      </legend>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 pt-1 text-body">
        {MARKETS.map((market) => (
          <label key={market}>
            <input
              type="checkbox"
              checked={settings.markets?.includes(market) ?? false}
              onChange={(event) => {
                const others = (settings.markets ?? []).filter((each) => each !== market);
                const markets = event.target.checked ? [...others, market] : others;
                onChange({ ...settings, markets: markets.length ? markets : null });
              }}
            />{" "}
            sold in the {market}
          </label>
        ))}
        {FIGURES.map(([name, label, unit]) => (
          <label key={name} className="text-soft">
            {label}{" "}
            <NumberInput
              className="w-14 text-right text-ink"
              aria-label={`${label}, ${unitShown(unit)}`}
              defaultValue={typedOf(settings[name], unit)}
              onChange={(event) => {
                onChange({ ...settings, [name]: readTyped(event.target.value, unit) });
              }}
            />{" "}
            {unitShown(unit)}
          </label>
        ))}
        <label className="text-soft">
          water{" "}
          <select
            className="written text-ink"
            aria-label="Tap water"
            value={settings.hardness ?? ""}
            onChange={(event) => onChange({ ...settings, hardness: event.target.value || null })}
          >
            <option value="">as the formula</option>
            <WaterOptions />
          </select>
        </label>
      </div>
    </fieldset>
  );
}

/** The formula as the profile assumes it. */
export function assume(draft: Draft, settings: ProfileSettings): Draft {
  const { markets, youngest_user_months, tub_l, dose_g, hardness, room_c, humidity_pct } = settings;
  return {
    ...draft,
    product: {
      ...draft.product,
      ...(markets ? { markets: markets as Draft["product"]["markets"] } : {}),
      ...(youngest_user_months === null ? {} : { youngest_user_months }),
    },
    use: {
      ...draft.use,
      ...(tub_l === null ? {} : { tub_l }),
      ...(dose_g === null ? {} : { dose_g }),
      ...(hardness === null ? {} : { hardness: hardness as Draft["use"]["hardness"] }),
    },
    room: {
      ...draft.room,
      ...(room_c === null ? {} : { temperature_c: room_c }),
      ...(humidity_pct === null ? {} : { humidity_pct }),
    },
  };
}
