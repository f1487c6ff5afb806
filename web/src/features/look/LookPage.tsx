import { type Reference, useReference } from "../../api";
import type { Mark } from "../../lib/grains";
import {
  Bowl,
  BowlSmall,
  Button,
  Field,
  GrainKey,
  KettleMark,
  KindGlyph,
  Menu,
  MenuItem,
  Strip,
} from "../../ui";

const TOKENS = ["paper", "lit", "shade", "ink", "soft", "rosy", "ctint", "verd", "vline", "vtint"] as const;
const MARKS: readonly Mark[] = [
  "prism", "needle", "ring", "shard", "plate", "crystal", "cube", "dot", "diamond", "star",
  "wave", "lens", "level", "brick", "double", "drop", "mist",
]; // biome-ignore format: a table
const LAYERS = [
  { key: "a", name: "Base", ml: 220, mark: "prism" as const },
  { key: "b", name: "Surfactant", ml: 190, mark: "needle" as const },
  { key: "c", name: "Starch", ml: 150, mark: "ring" as const },
  { key: "d", name: "Clay", ml: 40, mark: "plate" as const },
];

/** Every component of the visual language, in both lights. For developers; not in the navigation. */
export function LookPage() {
  const zones = useReference().data?.states ?? [];
  return (
    <div className="px-14 pb-16 pt-2">
      <h1>The look</h1>
      <p className="text-row text-soft">Every part of the visual language, in both lights.</p>
      {(["light", "dark"] as const).map((light) => (
        <section
          key={light}
          aria-label={light}
          data-theme={light}
          className="look-sheet mt-6 grid grid-cols-3 gap-10 p-8"
        >
          <Colours />
          <Strips />
          <Parts seed={light} zones={zones} />
        </section>
      ))}
    </div>
  );
}

function Colours() {
  return (
    <div>
      <ul className="grid grid-cols-2 gap-2 text-caption">
        {TOKENS.map((token) => (
          <li key={token} className="flex items-center gap-2">
            <span className="h-6 w-10" style={{ background: `var(--${token})` }} /> {token}
          </li>
        ))}
      </ul>
      <ul className="mt-6 grid grid-cols-3 gap-2 text-caption">
        {MARKS.map((mark) => (
          <li key={mark} className="flex items-center gap-2">
            <GrainKey mark={mark} seed={mark} /> {mark}
          </li>
        ))}
      </ul>
      <p className="mt-6 flex gap-6">
        <KindGlyph kind="exact" /> <KindGlyph kind="physical" /> <KindGlyph kind="practice" /> <KettleMark />
        <BowlSmall saturation={0.7} />
      </p>
    </div>
  );
}

function Strips() {
  const format = (value: number) => String(Math.round(value * 100) / 100);
  return (
    <div className="flex flex-col gap-4">
      <Strip
        id="s1"
        min={0}
        max={2.4}
        wanted={{ low: 0.65, high: 0.95 }}
        value={0.78}
        band={[0.65, 0.91]}
        text="inside both ends"
        format={format}
      />
      <Strip
        id="s2"
        min={0}
        max={100}
        wanted={{ low: 60 }}
        value={42}
        text="short of at least 60"
        format={format}
      />
      <Strip
        id="s3"
        min={0}
        max={60}
        wanted={{ high: 36 }}
        value={48}
        text="over at most 36"
        format={format}
      />
      <Strip id="s4" min={0} max={20} value={7} text="no wish" format={format} />
      <Strip id="s5" min={10} max={60} span={[27, 36]} text="a span of 27 to 36" format={format} />
      <Strip
        id="s6"
        min={0}
        max={2.4}
        wanted={{ low: 0.65, high: 0.95 }}
        value={1.2}
        open
        width={360}
        text="open, over"
        format={format}
      />
    </div>
  );
}

function Parts({ seed, zones }: { seed: string; zones: Reference["states"] }) {
  return (
    <div>
      <p className="flex items-center gap-6">
        <Button primary hint="Enter">
          Take it
        </Button>
        <Button hint="Tab">Another way</Button>
        <Menu label={`Menu in ${seed}`} trigger="···">
          <MenuItem hint="Alt D" onSelect={() => undefined}>
            Duplicate
          </MenuItem>
        </Menu>
      </p>
      <Field className="mt-4" label="A line to write on" after="g" defaultValue="218" />
      <Field
        className="mt-4"
        label="One that is refused"
        error="Amount must be 0 or more, got -3."
        defaultValue="-3"
      />
      <svg
        role="img"
        aria-label="A bowl of four powders at 0.82, play dough"
        viewBox="0 0 360 330"
        className="mt-4 w-full"
      >
        <Bowl
          seed={seed}
          cx={180}
          rimY={60}
          radius={150}
          depth={200}
          layers={LAYERS}
          saturation={0.82}
          state="play dough"
          zones={zones}
          wanted={[0.65, 0.95]}
        />
      </svg>
    </div>
  );
}
