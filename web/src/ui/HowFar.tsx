import { figure } from "../lib/numbers";
import { Button } from "./Button";

interface Props {
  done: number;
  whole: number;
  /** What is counted, in the plural. */
  of: string;
  onStop: () => void;
}

/** How far long work is, and a way to stop it. */
export function HowFar({ done, whole, of, onStop }: Props) {
  const share = whole > 0 ? Math.min(1, done / whole) : 0;
  return (
    <p role="status" className="flex flex-wrap items-baseline gap-5 pt-3 text-body">
      {whole > 0 ? `${figure(done)} of ${figure(whole)} ${of}` : "Reading…"}
      <svg width="240" height="12" aria-hidden="true">
        <path d="M0 11.5H240" stroke="var(--ink)" />
        <rect width={240 * share} height="11" fill="var(--verd)" />
      </svg>
      <Button onClick={onStop}>Stop</Button>
    </p>
  );
}
