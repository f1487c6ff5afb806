import { seeded } from "../../lib/seed";

/** A texture as the eye sees it in a hand: grains apart, a ball that cracks, a ball that shines, a puddle. */
export function FeelTile({ state }: { state: string }) {
  const random = seeded(state);
  const dots = (count: number, spread: number, lift: number) =>
    Array.from({ length: count }, () => `M${60 + (random() - 0.5) * spread} ${46 - random() * lift}h.1`).join(
      "",
    );
  return (
    <svg viewBox="0 0 120 52" className="h-[52px] w-full max-w-[120px]" aria-hidden="true">
      <path d="M4 50H116" stroke="var(--ink)" strokeWidth="1.4" />
      {state === "dust" && (
        <path d={dots(90, 96, 18)} stroke="var(--ink)" strokeWidth="2" strokeLinecap="round" />
      )}
      {state === "damp sand" && (
        <>
          <circle cx="60" cy="30" r="19" fill="var(--grain)" stroke="var(--ink)" strokeWidth="1.6" />
          <path d={dots(60, 30, 34)} stroke="var(--ink)" strokeWidth="1.6" strokeLinecap="round" />
          <path d="M52 13l6 14-4 10 8 12" stroke="var(--ink)" strokeWidth="1.4" fill="none" />
        </>
      )}
      {state === "crumbly dough" && (
        <>
          <path
            d="M40 49q-4-30 16-36 26-4 28 22l-4 14z"
            fill="var(--grain)"
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
          <path
            d="M88 49l4-8 8 2 2 6zM24 49l2-6 7 1 2 5z"
            fill="var(--grain)"
            stroke="var(--ink)"
            strokeWidth="1.4"
          />
        </>
      )}
      {state === "play dough" && (
        <>
          <ellipse
            cx="60"
            cy="32"
            rx="34"
            ry="17"
            fill="var(--vtint)"
            stroke="var(--ink)"
            strokeWidth="1.8"
          />
          <path d="M36 25q22-12 46 0" stroke="var(--ink)" strokeWidth="1.2" fill="none" />
        </>
      )}
      {state === "sticky" && (
        <>
          <path d="M22 49q8-22 38-22t38 22z" fill="var(--vtint)" stroke="var(--ink)" strokeWidth="1.6" />
          <path d="M48 28V4M60 27V2M72 28V4" stroke="var(--vline)" strokeWidth="3" />
        </>
      )}
      {state === "batter" && (
        <>
          <path d="M10 49q14-14 50-14t50 14z" fill="var(--vtint)" stroke="var(--ink)" strokeWidth="1.6" />
          <circle cx="48" cy="41" r="4" fill="var(--lit)" stroke="var(--ink)" />
          <circle cx="66" cy="43" r="3" fill="var(--lit)" stroke="var(--ink)" />
          <circle cx="78" cy="42" r="2" fill="var(--lit)" stroke="var(--ink)" />
        </>
      )}
      {state === "pour" && (
        <>
          <path d="M60 0v44" stroke="var(--vtint)" strokeWidth="12" />
          <path d="M6 49q20-6 54-6t54 6z" fill="var(--vtint)" stroke="var(--ink)" strokeWidth="1.4" />
          <path d="M54 0v42M66 0v42" stroke="var(--ink)" strokeWidth="1.2" />
        </>
      )}
    </svg>
  );
}
