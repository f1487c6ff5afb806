import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { messageOf, type Settings, useBeginAnew, useSaveSettings, useSettings } from "../../api";
import { Button, useNotice } from "../../ui";

const MAKES = [
  ["foam", "bubble bars and scoops", "Limpet domes"],
  ["melts", "truffles and melts", "Meadowsweet & oat melts"],
  ["fizz", "fizzing balls and dust", "Net-loft pressed tablets"],
] as const;
const TOUR = [
  ["/", "Open a formula", "Change an amount at its Desk and watch the readings move. Ctrl Z takes it back."],
  ["/plan", "Plan a batch of it", "It says what is short and what could go wrong, and when it will be dry."],
  [
    "/bench",
    "Stand at the bench",
    "Open the simulated devices at its foot and pour, or type what another scale shows.",
  ],
  ["/rack", "Look at the rack", "Pieces dry there, and it says when they are done."],
  ["/tub", "Measure a bath", "What the Desk said is dashed, what was seen is ink."],
  ["/practice", "Practise", "Bowls with something hidden in them, without wasting a kilo."],
] as const;

/** Five questions at the beginning, and a tour through the real pages that can be left at any step. */
export function WelcomePage() {
  const settings = useSettings();
  if (settings.error)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(settings.error)}</p>;
  if (!settings.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Welcome</h1>
      <p className="text-row text-soft">
        Five questions; every answer can be changed later under Settings.{" "}
        <Link className="underline underline-offset-4" to="/guide">
          The guide
        </Link>
      </p>
      <Questions said={settings.data} />
      <section aria-label="Tour" className="pt-10">
        <h2 className="text-row italic text-soft">
          Two minutes through the studio, in the order of the work
        </h2>
        <ol className="max-w-[860px]">
          {TOUR.map(([to, title, words], index) => (
            <li key={to} className="flex gap-4 border-b-[0.9px] border-ink py-2 text-body">
              <b className="w-6 text-right text-reading">{index + 1}</b>
              <span>
                <Link className="text-reading font-semibold underline underline-offset-4" to={to}>
                  {title}
                </Link>
                <br />
                {words}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

function Questions({ said }: { said: Settings }) {
  const [makes, setMakes] = useState<string>(MAKES[0][0]);
  const [ounces, setOunces] = useState(said.mass_unit === "oz");
  const [fahrenheit, setFahrenheit] = useState(said.temperature_unit === "°F");
  const [currency, setCurrency] = useState(said.currency ?? "USD");
  const [empty, setEmpty] = useState(false);
  const save = useSaveSettings();
  const anew = useBeginAnew();
  const navigate = useNavigate();
  const say = useNotice();
  const onBegin = async () => {
    try {
      if (empty) {
        await anew.mutateAsync(null);
        say("An empty studio. What was here is kept among the backups, under Settings.");
      }
      const next = {
        ...said,
        mass_unit: ounces ? "oz" : "g",
        temperature_unit: fahrenheit ? "°F" : "°C",
        currency: currency.toUpperCase(),
      };
      await save.mutateAsync(next as Parameters<typeof save.mutateAsync>[0]);
      const first = MAKES.find(([id]) => id === makes)?.[2];
      if (!empty && first) say(`"${first}" is one like yours: open it.`);
      await navigate("/");
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const choice = (name: string, value: string, label: string, checked: boolean, onPick: () => void) => (
    <label key={value} className="flex min-h-9 items-center gap-2">
      <input type="radio" name={name} checked={checked} onChange={onPick} />
      {label}
    </label>
  );
  return (
    <form
      className="flex max-w-[860px] flex-col gap-4 pt-5 text-row"
      onSubmit={(event) => {
        event.preventDefault();
        void onBegin();
      }}
    >
      <fieldset className="flex flex-wrap gap-x-6">
        <legend className="italic text-soft">1. What do you make most?</legend>
        {MAKES.map(([id, words]) => choice("makes", id, words, makes === id, () => setMakes(id)))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-6">
        <legend className="italic text-soft">2. How do you weigh?</legend>
        {choice("mass", "g", "in grams", !ounces, () => setOunces(false))}
        {choice("mass", "oz", "in ounces", ounces, () => setOunces(true))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-6">
        <legend className="italic text-soft">3. How warm is your room, in what?</legend>
        {choice("warmth", "c", "about 21 °C", !fahrenheit, () => setFahrenheit(false))}
        {choice("warmth", "f", "about 70 °F", fahrenheit, () => setFahrenheit(true))}
      </fieldset>
      <label>
        <span className="italic text-soft">4. Which money?</span>{" "}
        <input
          className="written w-20 text-center"
          maxLength={3}
          pattern="[A-Za-z]{3}"
          title="Three letters, such as EUR"
          value={currency}
          onChange={(event) => setCurrency(event.target.value)}
        />{" "}
        <span className="text-caption text-soft">
          three letters, such as EUR; rates are typed under Settings
        </span>
      </label>
      <fieldset className="flex flex-wrap gap-x-6">
        <legend className="italic text-soft">5. Begin with the invented studio, or with an empty one?</legend>
        {choice("begin", "demo", "with the invented one", !empty, () => setEmpty(false))}
        {choice("begin", "empty", "with an empty one (what is here is backed up)", empty, () =>
          setEmpty(true),
        )}
      </fieldset>
      <p>
        <Button primary type="submit" hint="Enter" disabled={save.isPending || anew.isPending}>
          Begin
        </Button>
      </p>
    </form>
  );
}
