import { benchFigure, sayBenchMass } from "../../lib/numbers";
import { Words } from "./DoStep";
import { Back, Press, TypedFigure } from "./parts";
import type { StepProps } from "./step";

/** Pieces done, pieces weighed, running mean against the target. */
export function ShapeStep({ batch, step, devices, act, onBack }: StepProps) {
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
      <p className="text-bench-pieces font-medium leading-none">
        {done} <span className="text-title">of {wanted} pieces</span>
      </p>
      <p className="text-state" role="status">
        {mean === null
          ? `A piece is meant to weigh ${sayBenchMass(target)}; weigh one now and then.`
          : `${samples.length} weighed, mean ${sayBenchMass(mean)}, meant ${sayBenchMass(target)} (${mean >= target ? "+" : "−"}${benchFigure(Math.abs(mean - target))})`}
      </p>
      <div className="flex gap-3">
        <Press
          onClick={() => void act({ kind: "pieces", count: -1 })}
          disabled={done === 0}
          aria-label="One less"
          className="max-w-[110px]"
        >
          − 1
        </Press>
        <Press next={!full} onClick={() => void act({ kind: "pieces", count: 1 })}>
          + 1 piece
        </Press>
        <Press onClick={() => void act({ kind: "pieces", count: 6 })} className="max-w-[120px]">
          + 6
        </Press>
      </div>
      {value !== null && value > 2 ? (
        <Press onClick={() => void act({ kind: "sampled", mass_g: value })}>
          Take {sayBenchMass(value)} as a piece
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
        <Back onBack={onBack} />
        <Press next={full} onClick={() => void act({ kind: "done", step: step.key })}>
          {full ? "All shaped" : "That is all there is"}
        </Press>
      </div>
    </div>
  );
}
