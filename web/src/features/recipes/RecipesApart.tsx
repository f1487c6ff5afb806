/** The recipes of one paste, each by itself: the one chosen is read beside it, the others stay in the text. */
export function RecipesApart({
  names,
  which,
  onChoose,
}: {
  names: readonly string[];
  which: number;
  onChoose: (which: number) => void;
}) {
  return (
    <fieldset className="pt-3">
      <legend className="text-row">
        {names.length} recipes stand in this text. Take them one by one; the text stays.
      </legend>
      <ol className="flex flex-wrap gap-x-6 pt-1">
        {names.map((name, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two recipes of one text may have the same name; their place is their own
          <li key={at}>
            <label className="inline-flex min-h-11 cursor-pointer items-center gap-2 text-row has-checked:font-semibold">
              <input type="radio" name="recipe" checked={at === which} onChange={() => onChoose(at)} />
              {name}
            </label>
          </li>
        ))}
      </ol>
    </fieldset>
  );
}
