import { useState } from "react";
import { benchFigure, sayBenchMass } from "../../lib/numbers";
import { type Doubt, doubtOf } from "../../lib/plausible";
import { Words } from "./DoStep";
import { Back, DoubtAsked, Press, TypedFigure } from "./parts";
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
  const more = wanted - batch.pieces;
  return (
    <div className="flex flex-col gap-4">
      <Words text={step.text} caution={step.caution} />
      <p className="text-bench-pieces font-medium leading-none">
        {done} <span className="text-title">of {wanted} pieces</span>
      </p>
      {batch.bowls === 1 && more !== 0 && (
        <p className="text-bench-note font-semibold text-rosy">
          {batch.pieces} were planned; what was weighed gives {Math.abs(more)} {more > 0 ? "more" : "fewer"}{" "}
          of the same weight.
        </p>
      )}
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
        <Sample
          value={value}
          target={target}
          standIn={scale?.source === "stand-in"}
          onTake={(mass_g, source) => void act({ kind: "sampled", mass_g, source })}
        />
      ) : (
        <TypedFigure
          label="Weight of a piece in grams"
          unit="g"
          word="A piece"
          meant={target}
          onGive={(typed) => void act({ kind: "sampled", mass_g: typed, source: "hand" })}
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

/** One piece on the scale, taken by a press; far from what is meant it is asked about once. */
function Sample({
  value,
  target,
  standIn,
  onTake,
}: {
  value: number;
  target: number;
  standIn: boolean;
  onTake: (mass_g: number, source: "scale" | "stand-in") => void;
}) {
  const [asked, setAsked] = useState<{ doubt: Doubt; value: number } | null>(null);
  const take = (mass_g: number) => {
    setAsked(null);
    onTake(mass_g, standIn ? "stand-in" : "scale");
  };
  if (asked)
    return (
      <DoubtAsked
        doubt={asked.doubt}
        kept={sayBenchMass(asked.value)}
        onKeep={() => take(asked.value)}
        onInstead={take}
        onBack={() => setAsked(null)}
      />
    );
  return (
    <Press
      onClick={() => {
        const doubt = doubtOf(value, target, "g");
        if (doubt) setAsked({ doubt, value });
        else take(value);
      }}
    >
      Take {sayBenchMass(value)} as a piece{standIn && ", by the stand-in"}
    </Press>
  );
}
