/** Geometry of the bowl: a bowl of revolution, filled from the floor. All in drawing units. */
const SLICES = 200;
const FILLED = 0.6; // share of the bowl the powders take
/** Of the drawing: at this saturation the wet level stands at the rim. */
export const RIM_SATURATION = 2.2;

/** Half width at height t (0 floor, 1 rim), as a share of the rim's. */
export function profile(t: number): number {
  return Math.sqrt(Math.max(0, 1 - (1 - t) ** 2.25));
}

const VOLUME = cumulativeVolume();

function cumulativeVolume(): number[] {
  const sums = [0];
  for (let index = 1; index <= SLICES; index++) {
    const radius = profile((index - 0.5) / SLICES);
    sums.push((sums[index - 1] ?? 0) + radius * radius);
  }
  const whole = sums[SLICES] ?? 1;
  return sums.map((sum) => sum / whole);
}

/** Height (0 to 1) up to which a share of the bowl's volume reaches. */
export function heightOf(volumeShare: number): number {
  const share = Math.min(1, Math.max(0, volumeShare));
  const upper = VOLUME.findIndex((sum) => sum >= share);
  if (upper <= 0) return upper === 0 ? 0 : 1;
  const below = VOLUME[upper - 1] ?? 0;
  const above = VOLUME[upper] ?? 1;
  return (upper - 1 + (share - below) / (above - below || 1)) / SLICES;
}

/** Height of the dry surface. */
export const SURFACE = heightOf(FILLED);

/** Height of the wet level for a saturation: the surface at 1, the rim where it pours. */
export function levelOf(saturation: number): number {
  if (saturation <= 1) return heightOf(FILLED * saturation);
  return Math.min(1, SURFACE + ((saturation - 1) / (RIM_SATURATION - 1)) * (1 - SURFACE));
}

export interface Stratum {
  key: string;
  from: number;
  to: number;
}

/** Layers from the floor, by volume, in the order given. */
export function strata(volumes: readonly { key: string; ml: number }[]): Stratum[] {
  const total = volumes.reduce((sum, item) => sum + item.ml, 0);
  let below = 0;
  return volumes.map(({ key, ml }) => {
    const from = heightOf((FILLED * below) / (total || 1));
    below += ml;
    return { key, from, to: heightOf((FILLED * below) / (total || 1)) };
  });
}
