export type Kind = "exact" | "physical" | "practice";

const PATHS: Record<Kind, string> = {
  exact: "M1 4h11M1 8.4h11",
  physical: "M1 10.5C6 10.5 6 2 12 2",
  practice: "M2.5 1.5v9M6 1.5v9M9.5 1.5v9M.5 8.5l12-5",
};

/** How far a reading can be trusted: arithmetic, theory, or common practice. */
export function KindGlyph({ kind }: { kind: Kind }) {
  return (
    <svg width="14" height="12" viewBox="0 0 14 12" role="img" aria-label={kind} className="shrink-0">
      <path d={PATHS[kind]} fill="none" stroke="var(--soft)" strokeWidth="1.3" />
    </svg>
  );
}
