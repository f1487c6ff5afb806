import type { Batch, BenchStep, Devices, Happening, IngredientSummary } from "../../api";

/** What every kind of step is given. */
export interface StepProps {
  batch: Batch;
  step: BenchStep;
  devices: Devices;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  /** Lets it happen; false when it was refused. */
  act: (event: Happening) => Promise<boolean>;
  onBack: () => void;
  onSkip: () => void;
  busy: boolean;
}
