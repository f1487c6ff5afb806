/** Takes one thing off a list; the notice that follows has the way back. */
export function TakeOut({ name, onTake }: { name: string; onTake: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Take out ${name}`}
      className="min-h-6 border-b border-ink text-caption"
      onClick={onTake}
    >
      Take out
    </button>
  );
}
