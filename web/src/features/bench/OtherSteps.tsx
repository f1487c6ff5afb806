import { useEffect, useRef, useState } from "react";
import { useFeels } from "../../api";
import { figure, grams } from "../../lib/numbers";
import { WATERS } from "../../lib/waters";
import { FeelTile } from "./FeelTile";
import { Hourglass, Press, TypedFigure, useLeft } from "./parts";
import type { StepProps } from "./step";

/** Room, humidity and tap, read or typed. */
export function ConditionsStep({ batch, step, devices, act, busy }: StepProps) {
  const heard =
    devices.live && devices.hygrometer && !devices.hygrometer.fault ? devices.hygrometer.value : null;
  const [typed, setTyped] = useState<number>();
  const [room, setRoom] = useState(String(batch.planned.room.temperature_c));
  const [tap, setTap] = useState(batch.planned.use.hardness);
  const humidity = typed ?? heard;
  const celsius = Number(room.replace(",", "."));
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      <p className="text-[min(104px,13vh)] font-medium leading-none">
        {humidity === null ? "–" : Math.round(humidity)} <span className="text-[48px]">% RH</span>
      </p>
      {humidity !== null && humidity > 50 && (
        <p className="text-[24px] font-semibold text-rosy">
          Damp for hand work (up to about 50 %), too damp for pressing (about 40 %): run the dehumidifier, or
          plan a closed cure.
        </p>
      )}
      {heard === null && (
        <TypedFigure label="Humidity in per cent" unit="% RH" word="Take it" onGive={setTyped} />
      )}
      <div className="flex flex-wrap gap-6 text-[24px]">
        <label>
          Room{" "}
          <input
            aria-label="Room in degrees Celsius"
            inputMode="decimal"
            className="written h-14 w-20 text-center text-[28px] font-semibold"
            value={room}
            onChange={(event) => setRoom(event.target.value)}
          />{" "}
          °C
        </label>
        <label>
          Tap{" "}
          <select
            aria-label="Tap water"
            className="written h-14 min-w-24 text-[28px] font-semibold"
            value={tap}
            onChange={(event) => setTap(event.target.value as typeof tap)}
          >
            {WATERS.map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
      <Press
        next
        disabled={busy || !Number.isFinite(celsius)}
        onClick={() =>
          void act({ kind: "conditions", step: step.key, room_c: celsius, humidity_pct: humidity, tap })
        }
      >
        {humidity === null ? "Go on without the humidity" : "That is the air"}
      </Press>
    </div>
  );
}

/** One thing to do. */
export function DoStep({ step, act, onBack, busy }: StepProps) {
  return (
    <div className="flex flex-col gap-6">
      <Words text={step.text} caution={step.caution} />
      <div className="flex gap-3">
        <Press onClick={onBack} className="max-w-[160px]">
          Back
        </Press>
        <Press next disabled={busy} onClick={() => void act({ kind: "done", step: step.key })}>
          Done
        </Press>
      </div>
    </div>
  );
}

function Words({ text, caution }: { text: string; caution: string }) {
  return (
    <div>
      <p className="text-[28px] leading-snug">{text}</p>
      {caution && <p className="pt-3 text-[26px] font-semibold text-rosy">{caution}</p>}
    </div>
  );
}

/** A clock that is kept on disk: reload and power cut do not stop it. */
export function RestStep(props: StepProps) {
  const { batch, step, act, onBack, busy } = props;
  const timer = batch.state.timer?.step === step.key ? batch.state.timer : null;
  const left = useLeft(timer?.ends_at);
  return (
    <div className="flex flex-col gap-6">
      <Words text={step.text} caution={step.caution} />
      {timer && left !== null && (
        <Hourglass
          left={left}
          whole={(timer.minutes * 60) / batch.clock_rate}
          word={left > 0 ? "rest" : "time is up"}
        />
      )}
      <div className="flex gap-3">
        <Press onClick={onBack} className="max-w-[160px]">
          Back
        </Press>
        {timer ? (
          <Press next={left === 0} disabled={busy} onClick={() => void act({ kind: "done", step: step.key })}>
            {left === 0 ? "Go on" : "Go on before time"}
          </Press>
        ) : (
          <Press
            next
            disabled={busy}
            onClick={() => void act({ kind: "timer", step: step.key, minutes: step.minutes ?? 10 })}
          >
            Start {figure(step.minutes ?? 10)} minutes
          </Press>
        )}
      </div>
    </div>
  );
}

const TAKE_EVERY_S = 120;

/** The thermometer against flash point and window; a reading is taken every two minutes by itself. */
export function TemperatureStep(props: StepProps) {
  const { batch, step, devices, act, onBack, busy } = props;
  const reading = devices.thermometer;
  const value = devices.live && reading && !reading.fault ? reading.value : null;
  const low = step.low_c;
  const high = step.high_c;
  const verdict =
    value === null
      ? null
      : low !== null && value < low
        ? "too cold: warm it gently"
        : high !== null && value >= high
          ? "too hot: let it cool"
          : "right";
  const last = useRef(0);
  const taking = useRef(act);
  taking.current = act;
  useEffect(() => {
    const now = Date.now();
    if (value === null || busy || now - last.current < (TAKE_EVERY_S * 1000) / batch.clock_rate) return;
    last.current = now;
    void taking.current({ kind: "temperature", step: step.key, value_c: value, source: "thermometer" });
  }, [value, busy, step.key, batch.clock_rate]);
  const watch = batch.watch;
  const right = verdict === "right" || (value === null && watch?.verdict === "work");
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      {value === null ? (
        <>
          <p className="text-[24px] text-soft">The thermometer is not heard: measure and type.</p>
          <TypedFigure
            label="Temperature in degrees Celsius"
            unit="°C"
            word="Take it"
            onGive={(typed) =>
              void act({ kind: "temperature", step: step.key, value_c: typed, source: "hand" })
            }
          />
        </>
      ) : (
        <p className="text-[min(180px,22vh)] font-medium leading-[0.95]" data-reading="thermometer">
          {value.toFixed(1)} <span className="text-[56px]">°C</span>
        </p>
      )}
      <TemperatureStrip value={value ?? watch?.temperature_c ?? null} low={low} high={high} />
      <p
        role="status"
        className={`min-h-[60px] text-[26px] font-semibold ${right ? "text-verd" : "text-rosy"}`}
      >
        {verdict ?? ""}
        {watch && watch.minutes !== null && (
          <span className="block text-[22px] font-medium text-ink">{watch.sentence}</span>
        )}
      </p>
      <div className="flex gap-3">
        <Press onClick={onBack} className="max-w-[160px]">
          Back
        </Press>
        <Press next={right} disabled={busy} onClick={() => void act({ kind: "done", step: step.key })}>
          {right ? "Go on" : "Go on all the same"}
        </Press>
      </div>
    </div>
  );
}

function TemperatureStrip({
  value,
  low,
  high,
}: {
  value: number | null;
  low: number | null;
  high: number | null;
}) {
  const from = Math.min(15, (low ?? 20) - 10);
  const to = Math.max(60, (high ?? 50) + 15);
  const px = (celsius: number) => (620 * (Math.min(Math.max(celsius, from), to) - from)) / (to - from);
  return (
    <svg viewBox="0 0 620 70" className="block w-full" aria-hidden="true">
      <rect width="620" height="40" fill="var(--shade)" />
      <rect
        x={px(low ?? from)}
        width={px(high ?? to) - px(low ?? from)}
        height="40"
        fill="var(--lit)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      {value !== null && (
        <path d={`M${px(value)} -2q5 22 0 44`} stroke="var(--rosy)" strokeWidth="4" fill="none" />
      )}
      <g fontSize="20" fill="var(--ink)" textAnchor="middle">
        {low !== null && (
          <text x={px(low)} y="64">
            {figure(low)}
          </text>
        )}
        {high !== null && (
          <text x={px(high)} y="64">
            {figure(high)}
          </text>
        )}
      </g>
    </svg>
  );
}

/** How does it feel? Tiles, then what to do, what it costs. */
export function FeelStep({ batch, step, act, onBack, busy }: StepProps) {
  const feels = useFeels();
  const answer = batch.feel;
  const [again, setAgain] = useState(false);
  if (!answer || again)
    return (
      <div className="flex flex-col gap-3">
        <p className="text-[26px]">Squeeze a handful, then let it drop from a hand's breadth.</p>
        <ul className="grid grid-cols-4 gap-3 max-[700px]:grid-cols-2" aria-label="How does it feel?">
          {(feels.data?.feels ?? []).map((feel) => (
            <li key={feel.state}>
              <button
                type="button"
                disabled={busy}
                className="flex h-full min-h-[180px] w-full flex-col border-t-2 border-ink bg-lit px-3 py-2 text-left"
                onClick={async () => {
                  setAgain(false);
                  await act({ kind: "felt", state: feel.state });
                }}
              >
                <FeelTile state={feel.state} />
                <span className="text-[22px] font-bold">{feel.state}</span>
                <span className="text-[20px] leading-[1.1]">{feel.squeeze}</span>
              </button>
            </li>
          ))}
        </ul>
        <Press onClick={onBack} className="max-w-[160px]">
          Back
        </Press>
      </div>
    );
  const fits = answer.mends.some((mend) => mend.kind === "go-on");
  return (
    <div className="flex flex-col gap-3">
      <p className="text-[26px]" role="status">
        {answer.sentence}
      </p>
      <ul className="flex max-h-[52vh] flex-col gap-2 overflow-y-auto" aria-label="What to do">
        {answer.mends
          .filter((mend) => mend.kind !== "go-on")
          .map((mend) => (
            <li key={mend.text}>
              <button
                type="button"
                disabled={busy}
                className="min-h-[88px] w-full border-t-2 border-ink bg-lit px-4 py-2 text-left text-[24px] font-semibold"
                onClick={async () => {
                  if (mend.kind === "rest") await act({ kind: "timer", step: step.key, minutes: 5 });
                  else if (mend.ingredient && mend.mass_g)
                    await act({
                      kind: "corrected",
                      ingredient: mend.ingredient,
                      mass_g: mend.mass_g,
                      why: `felt ${answer.felt}`,
                    });
                  setAgain(true);
                }}
              >
                {mend.text}
                <span className="block text-[20px] font-medium text-soft">
                  {mend.effects
                    .filter(
                      (effect) => effect.after !== null && figure(effect.before) !== figure(effect.after),
                    )
                    .slice(0, 4)
                    .map(
                      (effect) => `${effect.label} ${figure(effect.before)} to ${figure(effect.after ?? 0)}`,
                    )
                    .join(", ")}
                  {mend.in_all_g !== null && ` · about ${grams(mend.in_all_g)} g in all`}
                </span>
              </button>
            </li>
          ))}
      </ul>
      <div className="flex gap-3">
        <Press onClick={() => setAgain(true)} disabled={busy}>
          Judge again
        </Press>
        <Press next={fits} disabled={busy} onClick={() => void act({ kind: "done", step: step.key })}>
          {fits ? "As meant: go on" : "Leave it so, go on"}
        </Press>
      </div>
    </div>
  );
}

/** Split by weight and colour. */
export function SplitStep(props: StepProps) {
  const { step, batch } = props;
  const colours = batch.planned.portions;
  return (
    <div className="flex flex-col gap-4">
      {step.shares.length > 1 && (
        <table className="text-[28px]">
          <caption className="text-left text-[22px] italic text-soft">Shares by weight</caption>
          <tbody>
            {step.shares.map(([name, mass]) => (
              <tr key={name} className="border-b border-ink">
                <th scope="row" className="py-1 text-left font-medium">
                  {colours.length > 1 ? name : "all of it"}
                </th>
                <td className="text-right font-semibold">{mass.toFixed(1)} g</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <DoStep {...props} />
    </div>
  );
}

/** Pieces done, pieces weighed, running mean against the target. */
export function ShapeStep({ batch, step, devices, act, onBack, busy }: StepProps) {
  const wanted = step.pieces ?? 0;
  const target = step.piece_mass_g ?? 0;
  const { pieces_done: done, samples_g: samples } = batch.state;
  const mean = samples.length ? samples.reduce((sum, mass) => sum + mass, 0) / samples.length : null;
  const scale = devices.scale;
  const value = devices.live && scale && !scale.fault ? scale.value : null;
  const full = done >= wanted;
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      <p className="text-[88px] font-medium leading-none">
        {done} <span className="text-[40px]">of {wanted} pieces</span>
      </p>
      <p className="text-[24px]" role="status">
        {mean === null
          ? `A piece is meant to weigh ${target.toFixed(1)} g; weigh one now and then.`
          : `${samples.length} weighed, mean ${mean.toFixed(1)} g, meant ${target.toFixed(1)} g (${mean >= target ? "+" : "−"}${Math.abs(mean - target).toFixed(1)})`}
      </p>
      <div className="flex gap-3">
        <Press
          onClick={() => void act({ kind: "pieces", count: -1 })}
          disabled={busy || done === 0}
          aria-label="One less"
          className="max-w-[110px]"
        >
          − 1
        </Press>
        <Press next={!full} onClick={() => void act({ kind: "pieces", count: 1 })} disabled={busy}>
          + 1 piece
        </Press>
        <Press
          onClick={() => void act({ kind: "pieces", count: 6 })}
          disabled={busy}
          className="max-w-[120px]"
        >
          + 6
        </Press>
      </div>
      {value !== null && value > 2 ? (
        <Press onClick={() => void act({ kind: "sampled", mass_g: value })} disabled={busy}>
          Take {value.toFixed(1)} g as a piece
        </Press>
      ) : (
        <TypedFigure
          label="Weight of a piece in grams"
          unit="g"
          word="A piece"
          onGive={(typed) => void act({ kind: "sampled", mass_g: typed })}
        />
      )}
      <div className="flex gap-3">
        <Press onClick={onBack} className="max-w-[160px]">
          Back
        </Press>
        <Press next={full} disabled={busy} onClick={() => void act({ kind: "done", step: step.key })}>
          {full ? "All shaped" : "That is all there is"}
        </Press>
      </div>
    </div>
  );
}
