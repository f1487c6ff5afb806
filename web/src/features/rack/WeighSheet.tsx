import { useRef, useState } from "react";
import { type Tray, useReference, useStream, useWeighIn } from "../../api";
import { readDecimal } from "../../lib/decimals";
import { benchFigure, sayMass } from "../../lib/numbers";
import { AskedOnce } from "../../lib/plausible";
import { massUnit, readTyped, typedOf } from "../../lib/units";
import { NumberInput, Sheet, useNotice } from "../../ui";

interface Props {
  tray: Tray;
  onClose: () => void;
}

const nothing = () => {};
const USUAL_STEP_G = 0.1;
const STEP_KEY = "rosy-kettle-scale-step"; // a scale stays the same from one weigh-in to the next

/** The pan with some pieces: the scale streams in, one tap keeps it; or it is typed. */
export function WeighSheet({ tray, onClose }: Props) {
  const devices = useStream(null, 0, nothing);
  const pan_steps = useReference().data?.pan_steps ?? 0;
  const [pieces, setPieces] = useState(
    String(Math.min(tray.pieces, tray.state.weighings.at(-1)?.pieces ?? tray.pieces)),
  );
  const [tare, setTare] = useState("");
  const [typed, setTyped] = useState("");
  const [steps, setSteps] = useState(() =>
    typedOf(Number(localStorage.getItem(STEP_KEY) ?? USUAL_STEP_G), "g"),
  );
  const keep = useWeighIn();
  const asked = useRef(new AskedOnce());
  const say = useNotice();
  const scale = devices.live && devices.scale && !devices.scale.fault ? devices.scale : null;
  const byHand = readTyped(typed, "g");
  const mass_g = byHand ?? scale?.value ?? null;
  const count = readDecimal(pieces);
  const tare_g = readTyped(tare, "g") ?? 0;
  const step = readTyped(steps, "g") ?? USUAL_STEP_G;
  const needed = tray.reading.fit?.pan_needed_g ?? pan_steps * step;
  const standIn = scale?.source === "stand-in";
  const before = tray.state.weighings.at(-1);
  const meant_g = before ? before.mass_g / before.pieces : 0;
  const onKeep = async () => {
    if (mass_g === null || !(mass_g > 0)) return "Put the pan on the scale, or type what it shows.";
    if (count === null || !Number.isInteger(count)) return "How many pieces lie on it? A whole number.";
    if (Number.isNaN(tare_g)) return "The tare is a number, or empty.";
    if (!(step > 0 && step <= 100))
      return "The scale's step is what it shows at the least, such as a tenth of a gram.";
    const doubt = asked.current.about(mass_g - tare_g, meant_g * count, "g");
    if (doubt) return doubt;
    localStorage.setItem(STEP_KEY, String(step));
    const after = await keep.mutateAsync({
      tray,
      mass_g,
      pieces: count,
      tare_g,
      scale_step_g: step,
      source: byHand !== null ? "hand" : standIn ? "stand-in" : "scale",
      ...(devices.hygrometer?.source === "device" && devices.hygrometer.value != null
        ? { humidity_pct: devices.hygrometer.value }
        : {}),
    });
    say(after.reading.message);
    onClose();
    return "";
  };
  return (
    <Sheet
      onClose={onClose}
      title={`Weigh ${tray.name}`}
      lead="The same pieces each time, several together."
      submit="Keep it"
      onSubmit={onKeep}
      tall
      className="flex flex-col gap-3"
    >
      <p className="text-figure font-[350] leading-none" data-reading="pan" data-at={scale?.at_ms}>
        {byHand !== null && !Number.isNaN(byHand)
          ? benchFigure(byHand)
          : scale?.value == null
            ? "–"
            : benchFigure(scale.value)}{" "}
        <span className="text-state">{massUnit()}</span>
      </p>
      <p className="text-label text-soft" role="status">
        {scale === null
          ? "The scale is not heard: type what another one shows."
          : scale.stable
            ? "Still."
            : "Settling…"}{" "}
        {standIn && <b className="text-rosy">A stand-in: nobody measures this.</b>}{" "}
        {mass_g !== null && mass_g - tare_g > 0 && mass_g - tare_g < needed && (
          <b className="text-rosy">
            The scale is too coarse for so little: put {sayMass(Math.ceil(needed))} of pieces on it, five or
            more.
          </b>
        )}
      </p>
      <div className="mt-5 flex flex-wrap items-end gap-8 text-row">
        <label>
          Pieces on the pan{" "}
          <NumberInput
            whole
            className="h-12 w-16 text-center"
            value={pieces}
            onChange={(event) => setPieces(event.target.value)}
          />
        </label>
        <label>
          Empty pan{" "}
          <NumberInput
            className="h-12 w-20 text-center"
            placeholder="0"
            value={tare}
            onChange={(event) => setTare(event.target.value)}
          />{" "}
          {massUnit()}
        </label>
        <label>
          Or type it{" "}
          <NumberInput
            className="h-12 w-24 text-center"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />{" "}
          {massUnit()}
        </label>
        <label>
          Step of the scale{" "}
          <NumberInput
            className="h-12 w-14 text-center"
            value={steps}
            onChange={(event) => setSteps(event.target.value)}
          />{" "}
          {massUnit()}
        </label>
      </div>
    </Sheet>
  );
}
