/** The mark: a small bowl with steam over it. */
export function KettleMark() {
  return (
    <svg
      width="26"
      height="24"
      viewBox="0 0 26 24"
      aria-hidden="true"
      fill="none"
      stroke="var(--ink)"
      strokeWidth="1.3"
    >
      <path d="M3 10h17c0 7-3.5 9.5-8.5 9.5S3 17 3 10z" fill="var(--ctint)" />
      <path d="M7 20v2.5h9V20M20 11c4 0 4 5-1.5 5M9 1.5c-1.5 2 1.5 3 0 5M14 1.5c-1.5 2 1.5 3 0 5" />
    </svg>
  );
}
