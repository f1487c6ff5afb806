import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import {
  messageOf,
  type RecipeAnswer,
  readRecipe,
  useAnswer,
  useCreateFormula,
  useIngredients,
  useLearnName,
  useNewFormula,
  useReference,
} from "../../api";
import { Button, useNotice } from "../../ui";
import { addRead, toDraft, toFile } from "../draft";
import { LeftAside } from "./LeftAside";
import { RecipesApart } from "./RecipesApart";
import { ReviewRow } from "./ReviewRow";
import { type Corrections, type ReviewLine, reviewLines, sureness } from "./review";

const PAUSE_MS = 150;
const EXAMPLE = "Dry:\n2 1/2 cups bicarb\n1 cup SLSA\n\nWet:\n3 tbsp coco betaine\n10–20 drops FO";

/** Paste a recipe as it was found; see line by line how it was read; correct it; take it to the Desk. */
export function RecipePage() {
  const [text, setText] = useState("");
  const [which, setWhich] = useState(0);
  const { read, error } = useReading(text, which);
  const [corrections, setCorrections] = useState<Corrections>(new Map());
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const [method, setMethod] = useState<string | null>(null);
  const reference = useReference();
  const ingredients = useIngredients();
  const create = useCreateFormula();
  const learn = useLearnName();
  const navigate = useNavigate();
  const say = useNotice();
  const byId = useMemo(
    () => new Map(ingredients.data?.ingredients.map((item) => [item.id, item])),
    [ingredients.data],
  );
  const lines = useMemo(
    () => (read ? reviewLines(read, corrections, dropped) : []),
    [read, corrections, dropped],
  );

  const correct = (key: string, patch: Partial<ReviewLine>) =>
    setCorrections((before) => new Map(before).set(key, { ...before.get(key), ...patch }));
  const newFormula = useNewFormula();
  const take = async () => {
    if (!read) return;
    try {
      const formula = await newFormula(read.name);
      formula.piece = { ...formula.piece, wished_pieces: read.pieces };
      formula.method = method ?? read.method;
      const full = addRead(toDraft(formula), 0, lines);
      const portions = full.portions.filter((portion) => portion.lines.length > 0);
      for (const line of lines)
        if (line.unknown_name && line.ingredient)
          await learn.mutateAsync({ id: line.ingredient, phrase: line.unknown_name });
      const made = await create.mutateAsync(toFile(portions.length ? { ...full, portions } : full));
      await navigate(`/formulas/${made.id}`);
    } catch (failure) {
      say(messageOf(failure), { asks: true });
    }
  };

  const asking = lines.filter((line) => sureness(line) === "asks").length;
  const guessed = lines.filter((line) => sureness(line) === "guessed").length;
  return (
    <form
      className="grid min-h-0 flex-1 grid-cols-[minmax(280px,1fr)_minmax(0,2fr)] gap-x-12 pl-14 pr-9 pb-10 max-[900px]:grid-cols-1"
      onSubmit={(event) => {
        event.preventDefault();
        void take();
      }}
    >
      <div className="flex flex-col pt-2">
        <h1>Read a recipe</h1>
        <label htmlFor="recipe-text" className="pt-1 text-row text-soft">
          Paste it as you found it: cups, spoons, ounces, parts or per cent.
        </label>
        <textarea
          id="recipe-text"
          // biome-ignore lint/a11y/noAutofocus: the page has one thing to do, and this is it
          autoFocus
          className="mt-4 min-h-80 flex-1 resize-none border-t-[0.9px] border-ink bg-lit p-4 text-row leading-7 placeholder:text-soft"
          placeholder={EXAMPLE}
          value={text}
          spellCheck={false}
          onChange={(event) => {
            setText(event.target.value);
            setWhich(0);
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) void take();
          }}
        />
      </div>
      <div className="flex min-h-0 flex-col pt-2">
        <div className="flex items-end justify-between gap-6">
          <p className="text-title font-[350] leading-[1.1]">
            {read && lines.length > 0 ? read.name : "How it is read"}
          </p>
          {lines.length > 0 && (
            <Button primary type="submit" hint="Ctrl Enter" disabled={create.isPending} className="shrink-0">
              Take it to the Desk
            </Button>
          )}
        </div>
        <p className="pt-1 text-row text-soft" role="status">
          {error ?? summary(lines.length, guessed, asking)}
          {asking > 0 && " Open lines come along and stay marked."}
        </p>
        {read && read.recipes.length > 1 && (
          <RecipesApart
            names={read.recipes}
            which={which}
            onChoose={(next) => {
              setWhich(next);
              setCorrections(new Map());
              setDropped(new Set());
              setMethod(null);
            }}
          />
        )}
        {lines.length > 0 && (
          <p className="pt-2 text-row">
            Made as a{" "}
            <select
              aria-label="Method"
              className="written font-semibold"
              value={method ?? read?.method}
              onChange={(event) => setMethod(event.target.value)}
            >
              {reference.data?.methods.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name.toLowerCase()}
                </option>
              ))}
            </select>
            {method === null && <span className="text-caption text-soft">, guessed from what is in it</span>}
          </p>
        )}
        <ul className="mt-3" aria-label="Lines as read">
          {lines.map((line, index) => (
            <ReviewRow
              key={line.key}
              line={line}
              heading={line.phase !== lines[index - 1]?.phase ? line.phase : ""}
              ingredient={line.ingredient ? byId.get(line.ingredient) : undefined}
              ingredients={ingredients.data?.ingredients ?? []}
              units={reference.data?.units ?? []}
              onChange={(patch) => correct(line.key, patch)}
              onDrop={() => setDropped((before) => new Set(before).add(line.key))}
            />
          ))}
        </ul>
        <LeftAside read={read} dropped={dropped.size} onBringBack={() => setDropped(new Set())} />
      </div>
    </form>
  );
}

function useReading(text: string, which: number): { read: RecipeAnswer | null; error: string | null } {
  const ask = useMemo(
    () => (text.trim() ? (signal: AbortSignal) => readRecipe(text, which, signal) : null),
    [text, which],
  );
  const { answer, error } = useAnswer(ask, PAUSE_MS);
  return { read: ask ? answer : null, error: error ? messageOf(error) : null };
}

function summary(lines: number, guessed: number, asking: number): string {
  if (lines === 0) return "Every line appears here with what was taken for granted.";
  const parts = [`${lines} ${lines === 1 ? "line" : "lines"}`];
  if (guessed) parts.push(`${guessed} with a guess`);
  if (asking) parts.push(`${asking} ${asking === 1 ? "asks" : "ask"} for a hand`);
  return `${parts.join(", ")}.`;
}
