import { useState } from "react";
import { messageOf, type Rack, useKeepPlace, useLogAir } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { emptied } from "../../lib/emptied";
import { sayTemperature } from "../../lib/numbers";
import { readTyped, temperatureUnit } from "../../lib/units";
import { Button, KeptNumber, NumberInput, useNotice } from "../../ui";

type Place = Rack["places"][number];

/** One place: how many trays it holds, how many are taken, and its air as logged last. */
export function AirLine({ place }: { place: Place }) {
  const [celsius, setCelsius] = useState("");
  const [humidity, setHumidity] = useState("");
  const log = useLogAir();
  const keepPlace = useKeepPlace();
  const say = useNotice();
  const onLog = async () => {
    const [temperature_c, humidity_pct] = [readTyped(celsius, "°C"), readDecimal(humidity)];
    if (temperature_c === null || humidity_pct === null || Number.isNaN(temperature_c + humidity_pct))
      return say("Air has degrees and a humidity: two numbers.", { asks: true });
    try {
      await log.mutateAsync({ place: place.name, temperature_c, humidity_pct });
      setCelsius(emptied(celsius));
      setHumidity(emptied(humidity));
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const over = place.taken > place.trays;
  return (
    <form
      className="flex flex-wrap items-baseline gap-x-3 text-row"
      aria-label={`The place "${place.name}"`}
      onSubmit={(event) => {
        event.preventDefault();
        void onLog();
      }}
    >
      <span>
        In "{place.name}"{" "}
        <b className={over ? "text-rosy" : ""}>
          {place.taken} of{" "}
          <KeptNumber
            label={`Trays in ${place.name}`}
            whole
            className="w-10 text-center font-semibold"
            value={place.trays}
            least={0}
            most={10_000}
            empty={false}
            onKeep={(trays) => {
              if (trays !== null)
                keepPlace
                  .mutateAsync({ name: place.name, trays })
                  .catch((error: unknown) => say(messageOf(error), { asks: true }));
            }}
          />{" "}
          trays
        </b>{" "}
        are taken.
      </span>
      <span className="text-soft">
        {place.humidity_pct === null || place.temperature_c === null
          ? "Its air is not known."
          : `Its air, last logged: ${Math.round(place.humidity_pct)} % RH at ${sayTemperature(place.temperature_c, 1)}.`}
      </span>
      <label className="text-soft">
        Now{" "}
        <NumberInput
          aria-label={`Air of ${place.name} in degrees Celsius`}
          className="w-12 text-center text-ink"
          value={celsius}
          onChange={(event) => setCelsius(event.target.value)}
        />{" "}
        {temperatureUnit()},
      </label>
      <label className="text-soft">
        <NumberInput
          aria-label={`Humidity of ${place.name} in per cent`}
          className="w-12 text-center text-ink"
          value={humidity}
          onChange={(event) => setHumidity(event.target.value)}
        />{" "}
        %
      </label>
      <Button type="submit">Log it</Button>
    </form>
  );
}

/** Pieces may dry in more than one place, each with its own air and trays. */
export function AnotherPlace({ taken }: { taken: readonly string[] }) {
  const [name, setName] = useState("");
  const [open, setOpen] = useState(false);
  const keepPlace = useKeepPlace();
  const say = useNotice();
  const onKeep = async () => {
    const called = name.trim();
    if (!called || taken.includes(called)) return say("A place wants a name of its own.", { asks: true });
    try {
      await keepPlace.mutateAsync({ name: called, trays: 1 });
      setName(emptied(name));
      setOpen(false);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  if (!open)
    return (
      <button
        type="button"
        className="min-h-8 border-b border-ink text-caption"
        onClick={() => setOpen(true)}
      >
        Another place
      </button>
    );
  return (
    <form
      className="flex items-baseline gap-3 text-row"
      onSubmit={(event) => {
        event.preventDefault();
        void onKeep();
      }}
    >
      <label>
        Another place:{" "}
        <input
          className="written w-48"
          maxLength={60}
          placeholder="drying room, warm shelf…"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit">Keep it</Button>
    </form>
  );
}
