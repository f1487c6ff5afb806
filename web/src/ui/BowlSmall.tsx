import { levelOf, profile } from "../lib/bowl";
import { r } from "../lib/hairs";

/** A bowl the size of a word: outline and wet level only. */
export function BowlSmall({ saturation, width = 44 }: { saturation: number | null; width?: number }) {
  const height = width * 0.56;
  const level = saturation === null ? 0 : levelOf(saturation);
  const outline = (top: number) => {
    const points: string[] = [];
    for (let step = 0; step <= 20; step++) {
      const t = top * (1 - step / 20);
      points.push(`${r(width / 2 - (width / 2 - 2) * profile(t))} ${r(2 + height * (1 - t))}`);
    }
    for (let step = 0; step <= 20; step++) {
      const t = top * (step / 20);
      points.push(`${r(width / 2 + (width / 2 - 2) * profile(t))} ${r(2 + height * (1 - t))}`);
    }
    return `M${points.join("L")}`;
  };
  return (
    <svg
      width={width}
      height={height + 5}
      viewBox={`0 0 ${width} ${height + 5}`}
      aria-hidden="true"
      className="shrink-0"
    >
      {level > 0 && <path d={`${outline(level)}Z`} fill="var(--vtint)" />}
      <path d={outline(1)} fill="none" stroke="var(--ink)" strokeWidth="1.3" />
    </svg>
  );
}
