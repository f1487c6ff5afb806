export type Purpose = "sale" | "gift" | "own";

const PURPOSES: ReadonlyArray<readonly [Purpose, string]> = [
  ["sale", "for sale"],
  ["gift", "a gift, held to the same"],
  ["own", "own use, never held back"],
];

/** What an order is for: what leaves the house needs a clearance. */
export function PurposeChoice({ value, onChoose }: { value: Purpose; onChoose: (value: Purpose) => void }) {
  return (
    <fieldset className="flex flex-wrap gap-x-5">
      <legend className="sr-only">What it is for</legend>
      {PURPOSES.map(([id, says]) => (
        <label key={id} className="flex min-h-8 items-center gap-2">
          <input type="radio" name="purpose" checked={value === id} onChange={() => onChoose(id)} /> {says}
        </label>
      ))}
    </fieldset>
  );
}
