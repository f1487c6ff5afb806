import { seeded } from "../../lib/seed";

const DOME = "M14 58C14 26 30 12 50 12S86 26 86 58Z";
const INK = { stroke: "var(--ink)", fill: "none", strokeWidth: 1.4 };
const GONE = { stroke: "var(--rosy)", fill: "none", strokeWidth: 1.8 };

/** What is seen, drawn: the same dome, and what has become of it. The rosy lines are the trouble. */
export function SymptomDrawing({ drawing, size = 100 }: { drawing: string; size?: number }) {
  return (
    <svg width={size} height={size * 0.72} viewBox="0 0 100 72" aria-hidden="true" className="block">
      <path d="M2 60H98" {...INK} strokeWidth={0.9} />
      {(DRAWN[drawing] ?? plain)(seeded(drawing))}
    </svg>
  );
}

type Draw = (random: () => number) => React.ReactNode;

const plain: Draw = () => <path d={DOME} {...INK} />;
const within = (random: () => number, count: number, shape: (x: number, y: number) => string) => {
  let path = "";
  for (let index = 0; index < count; index++) {
    const x = 22 + random() * 56;
    const top = 58 - 44 * Math.sqrt(Math.max(0, 1 - ((x - 50) / 36) ** 2));
    path += shape(x, top + 4 + random() * Math.max(0, 52 - top));
  }
  return path;
};
const jagged = (random: () => number, x: number, from: number, to: number) => {
  let path = `M${x} ${from}`;
  for (let y = from; y < to; y += 5) path += `L${x + (random() - 0.5) * 8} ${y + 5}`;
  return path;
};
const waves = (y: number, from = 2, to = 98) => {
  let path = `M${from} ${y}`;
  for (let x = from; x < to; x += 12) path += `q3 -3 6 0t6 0`;
  return path;
};

const DRAWN: Record<string, Draw> = {
  crumbs: (random) => (
    <>
      <path d="M22 58C22 34 34 20 50 20c10 0 18 6 22 16l-6 4 4 6-5 3 3 9Z" {...INK} />
      <path d={within(random, 22, (x, y) => `M${x + 16} ${Math.max(y, 48)}l2 1.5-2 1.5-2-1.5z`)} {...GONE} />
    </>
  ),
  crack: (random) => (
    <>
      <path d={DOME} {...INK} />
      <path
        d={jagged(random, 50, 13, 44) + jagged(random, 38, 28, 52) + jagged(random, 63, 30, 48)}
        {...GONE}
      />
    </>
  ),
  halves: (random) => (
    <>
      <path d="M10 58C10 26 26 12 44 12L40 22l5 8-6 10 5 9-3 9Z" {...INK} />
      <path d="M90 58C90 26 76 12 58 12L54 22l5 8-6 10 5 9-3 9Z" {...INK} />
      <path d={jagged(random, 49, 12, 56)} {...GONE} strokeDasharray="2 3" />
    </>
  ),
  sticky: () => (
    <>
      <path d={DOME} {...INK} />
      <path d="M30 22q-3 -12 4 -18M50 12q0 -8 3 -11M68 22q4 -10 -1 -18M24 8h52" {...GONE} />
    </>
  ),
  damp: (random) => (
    <>
      <path d={DOME} {...INK} />
      <path d={within(random, 10, (x, y) => `M${x} ${y - 3}q3 4 0 6q-3 -2 0 -6z`)} {...GONE} />
    </>
  ),
  slump: () => (
    <>
      <path d={DOME} {...INK} strokeDasharray="3 3" />
      <path d="M4 58C6 48 16 40 30 40s22 4 40 2 24 8 26 16Z" {...GONE} />
    </>
  ),
  stiff: () => (
    <>
      <path d="M12 30Q50 78 88 30" {...INK} />
      <path d="M26 44l8-8 6 4 8-10 8 8 8-4 6 8" {...GONE} />
    </>
  ),
  puff: () => (
    <>
      <path d={DOME} {...INK} strokeDasharray="3 3" />
      <path d="M6 58C2 20 24 2 50 2s48 18 44 56Z" {...GONE} />
    </>
  ),
  burst: () => (
    <>
      <path d="M16 58C16 30 32 20 50 20s34 10 34 38" {...INK} />
      <path d="M16 24C20 10 34 6 50 8M84 22C80 10 70 8 64 8M44 20V6M52 20V2M60 21V7" {...GONE} />
    </>
  ),
  warts: (random) => (
    <>
      <path d={DOME} {...INK} />
      <path d={within(random, 9, (x, y) => `M${x - 4} ${y}a4 3.4 0 0 1 8 0`)} {...GONE} />
    </>
  ),
  mould: () => (
    <>
      <path d="M8 58C8 22 26 6 50 6S92 22 92 58" {...INK} />
      <path d="M18 58C18 30 32 18 50 18l-4 8 8 6-10 8 6 10-4 8Z" {...INK} />
      <path d="M50 18C68 18 82 30 82 58M54 22c14 2 24 14 24 36" {...GONE} />
    </>
  ),
  spots: (random) => (
    <>
      <path d={DOME} {...INK} />
      <path
        d={within(random, 16, (x, y) => `M${x - 1.8} ${y}a1.8 1.8 0 1 0 3.6 0a1.8 1.8 0 1 0-3.6 0`)}
        {...GONE}
      />
    </>
  ),
  shift: (random) => (
    <>
      <path d={DOME} {...INK} />
      <path d={within(random, 40, (x, y) => `M${x} ${y}h${x > 50 ? 4 : 0.1}`)} {...GONE} />
      <path d="M50 12V58" {...INK} strokeDasharray="2 3" />
    </>
  ),
  layers: () => (
    <>
      <path d="M14 12H86V58H14Z" {...INK} />
      <path d="M14 24H86M14 28H86" {...GONE} />
      <path d="M14 48H86M14 52H86M14 56H86" {...INK} strokeWidth={0.8} />
    </>
  ),
  sink: () => (
    <>
      <path d={waves(16)} {...INK} strokeWidth={0.9} />
      <path d="M34 58C34 46 40 40 50 40s16 6 16 18Z" {...GONE} />
      <path d="M50 20v12m-4 -4l4 4 4 -4" {...INK} />
    </>
  ),
  fizz: (random) => (
    <>
      <path d={waves(30)} {...INK} strokeWidth={0.9} />
      <path d="M36 58C36 48 42 42 50 42s14 6 14 16Z" {...INK} />
      <path d={within(random, 4, (x) => `M${x} ${20 + random() * 18}a2 2 0 1 0 .1 0`)} {...GONE} />
    </>
  ),
  foam: () => (
    <>
      <path d="M6 14V58H94V14" {...INK} />
      <path d={waves(40, 8, 92)} {...INK} strokeWidth={0.9} />
      <path d="M10 38a6 5 0 0 1 12 0M24 38a4 4 0 0 1 8 0M70 38a5 4 0 0 1 10 0" {...GONE} />
    </>
  ),
  ring: () => (
    <>
      <path d="M6 14V58H94V14" {...INK} />
      <path d="M6 26h9M85 26h9M6 30h7M87 30h7M6 34h9M85 34h9" {...GONE} strokeWidth={2.6} />
      <path d={waves(50, 8, 92)} {...INK} strokeWidth={0.9} />
    </>
  ),
  film: (random) => (
    <>
      <path d="M6 14V58H94V14" {...INK} />
      <path d={waves(36, 8, 92)} {...INK} strokeWidth={0.9} />
      <path
        d={within(random, 8, (x) => `M${x - 5} ${36 + random() * 3}a5 1.6 0 1 0 10 0a5 1.6 0 1 0-10 0`)}
        {...GONE}
      />
    </>
  ),
  skin: (random) => (
    <>
      <path d="M20 58C18 40 24 20 34 6M80 58C82 40 70 24 66 6" {...INK} />
      <path
        d={within(random, 18, (x, y) => `M${34 + (x - 22) * 0.55} ${y}h.1`)}
        {...GONE}
        strokeWidth={3}
        strokeLinecap="round"
      />
    </>
  ),
  scent: () => (
    <>
      <path d={DOME} {...INK} />
      <path d="M36 10c-4-4 4-6 0-10M50 6c-3-3 3-4 0-6M64 10c-4-4 4-6 0-10" {...GONE} strokeDasharray="2 3" />
    </>
  ),
  scale: () => (
    <>
      <path d="M20 58H80L74 40H26Z" {...INK} />
      <path d="M50 52L64 44" {...GONE} />
      <path d="M32 40C32 24 40 16 50 16s18 8 18 24" {...INK} />
    </>
  ),
};
