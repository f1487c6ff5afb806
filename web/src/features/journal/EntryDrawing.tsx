import type { JournalEntry } from "../../api";
import { BowlSmall } from "../../ui";

const W = 44;
const H = 30;
const SMALLEST_DROP = 4;
const LARGEST_DROP = 11;
const DROP_OF_50_G = 9;

/** The small drawing an entry hangs on the rule by; where it has a figure, it shows it. */
export function EntryDrawing({ entry }: { entry: JournalEntry }) {
  if (entry.kind === "felt") return <BowlSmall saturation={entry.drawn} width={W} />;
  if (entry.kind === "plan" || entry.kind === "batch") return <BowlSmall saturation={null} width={W} />;
  return (
    <svg width={W} height={H} viewBox={`0 0 ${W} ${H}`} aria-hidden="true" className="shrink-0">
      <g fill="none" stroke="var(--ink)" strokeWidth="1.3">
        {SHAPES[entry.kind]?.(entry.drawn) ?? <path d="M6 15H38" />}
      </g>
    </svg>
  );
}

/** A drop whose volume goes with the grams. */
function drop(mass_g: number | null) {
  const size = Math.min(LARGEST_DROP, Math.max(SMALLEST_DROP, DROP_OF_50_G * Math.cbrt((mass_g ?? 5) / 50)));
  const foot = 15 + size;
  return (
    <path
      d={`M22 ${15 - size}C${22 + size * 1.2} 15 ${22 + size} ${foot} 22 ${foot}C${22 - size} ${foot} ${22 - size * 1.2} 15 22 ${15 - size}Z`}
      fill="var(--vtint)"
    />
  );
}

/** A tray in section, with what lies on it. */
const tray = (
  <>
    <path d="M4 10V22H40V10" />
    <path d="M8 22V16H15V22M18.5 22V16H25.5V22M29 22V16H36V22" fill="var(--grain)" />
  </>
);

/** A box of the good pieces: filled as far as they are good. */
function result(share: number | null) {
  const height = 22 * (share ?? 0);
  return (
    <>
      {share !== null && <path d={`M9 ${26 - height}H35V26H9Z`} fill="var(--vtint)" stroke="none" />}
      <path d="M9 4V26H35V4" />
      {share !== null && share < 1 && <path d={`M9 ${26 - height}H35`} stroke="var(--rosy)" />}
    </>
  );
}

const pen = <path d="M6 11C10 7 12 15 16 11S22 15 26 11 34 14 38 11M6 20H30" />;

const SHAPES: Readonly<Record<string, (drawn: number | null) => React.ReactNode>> = {
  formula: () => <path d="M12 3H32V27H12ZM16 9H28M16 14H28M16 19H24" />,
  correction: drop,
  "weighed off": () => <path d="M6 25H38M22 25V12M9 12H35M22 12L30 6" stroke="var(--rosy)" />,
  "weigh-in": () => (
    <>
      {tray}
      <path d="M4 26H40" strokeWidth="2.2" />
    </>
  ),
  tray: () => tray,
  check: () => <path d="M8 16L17 24L37 6" />,
  task: () => <path d="M6 5H38M22 5V21M18 21H26L22 28Z" />,
  note: () => pen,
  tub: (height_cm) => (
    <path d={`M4 6V16Q4 26 16 26H28Q40 26 40 16V6M5 ${16 - Math.min(9, height_cm ?? 0)}H39`} />
  ),
  photo: () => <path d="M7 5H37V25H7ZM7 21L17 13L24 19L30 15L37 20" />,
  result,
};
