import type { ReactNode } from "react";
import type { Batch, BenchStep, Devices, Happening, IngredientSummary } from "../../api";

/** What every kind of step is given. */
export interface StepProps {
  batch: Batch;
  step: BenchStep;
  devices: Devices;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  /** Lets it happen; false when it was refused. */
  act: (event: Happening) => Promise<boolean>;
  /** Undefined where there is no way back. */
  onBack?: (() => void) | undefined;
  onSkip: () => void;
  /** In practice: the dough as the eye meets it; a bench has it in the hand. */
  hand?: ReactNode;
  /** Whether there is a handful to be judged. */
  judged?: boolean;
}
