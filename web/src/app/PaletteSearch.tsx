import { useMemo, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { messageOf, useCreateFormula, useFormulas, useIngredients, useNewFormula } from "../api";
import { useSettled } from "../lib/useSettled";
import { offersNow, useFinder, useNotice } from "../ui";

interface Entry {
  words: string;
  kind: string;
  go: () => void;
}

const MOST = 9;

/** Finds a place, a thing or something to do by a few letters of it. */
export default function PaletteSearch({ onDone }: { onDone: () => void }) {
  const [typed, setTyped] = useState("");
  const entries = useEntries(typed);
  const found = useMemo(() => matching(entries, typed), [entries, typed]);
  const finder = useFinder({
    label: "Go to, or do",
    listLabel: "Found",
    typed,
    onType: setTyped,
    found,
    onPick: (entry) => {
      onDone();
      entry.go();
    },
  });
  return (
    <>
      <input
        {...finder.inputProps()}
        className="written w-full text-state"
        placeholder="a formula, an ingredient, a page, something to do"
      />
      <div {...finder.listProps()} className="pt-2">
        {found.map((entry, index) => (
          <div
            key={entry.kind + entry.words}
            {...finder.optionProps(entry, index)}
            className="flex min-h-8 items-baseline justify-between border-b-[0.9px] border-ink px-1 text-row aria-selected:bg-lit aria-selected:font-bold"
          >
            {entry.words}
            <span className="text-caption font-medium text-soft">{entry.kind}</span>
          </div>
        ))}
        {found.length === 0 && <p className="pt-1 text-body text-soft">Nothing by that name.</p>}
      </div>
    </>
  );
}

function useEntries(typed: string): Entry[] {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const formulas = useFormulas(useSettled(typed.trim()));
  const ingredients = useIngredients();
  const create = useCreateFormula();
  const newFormula = useNewFormula();
  const say = useNotice();
  // What the page offered when the palette was opened.
  const [offers] = useState(offersNow);
  const begin = async () => {
    try {
      const made = await create.mutateAsync(await newFormula());
      await navigate(`/formulas/${made.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const latest = useRef(begin);
  latest.current = begin;
  return useMemo(() => {
    const to = (path: string) => () => void navigate(path);
    const open = /^\/(?:formulas|plan)\/(\d+)/.exec(pathname)?.[1];
    const here: Entry[] = open
      ? [
          { words: "This formula's Desk", kind: "here", go: to(`/formulas/${open}`) },
          { words: "Its skin ledger", kind: "here", go: to(`/formulas/${open}/ledger`) },
          { words: "Its curves", kind: "here", go: to(`/formulas/${open}/curves`) },
          { words: "Its versions", kind: "here", go: to(`/formulas/${open}/versions`) },
          { words: "Its label", kind: "here", go: to(`/formulas/${open}/label`) },
          { words: "Its money", kind: "here", go: to(`/formulas/${open}/money`) },
          { words: "Plan a batch of it", kind: "here", go: to(`/plan/${open}`) },
        ]
      : [];
    const acts = offers.map(({ words, hint, run }) => ({ words, kind: hint ?? "do", go: run }));
    const pages: Entry[] = [
      { words: "All formulas", kind: "page", go: to("/") },
      { words: "Empty formula", kind: "do", go: () => void latest.current() },
      { words: "Paste a recipe", kind: "do", go: to("/recipes/new") },
      { words: "Plan", kind: "page", go: to("/plan") },
      { words: "Bench: all batches", kind: "page", go: to("/bench") },
      { words: "Rack", kind: "page", go: to("/rack") },
      { words: "Week", kind: "page", go: to("/week") },
      { words: "Lots", kind: "page", go: to("/pantry/lots") },
      { words: "Recall and complaints", kind: "page", go: to("/found") },
      { words: "Take a complaint", kind: "do", go: to("/found?complain=yes") },
      { words: "What went wrong?", kind: "page", go: to("/clinic") },
      { words: "Practice", kind: "page", go: to("/practice") },
      { words: "Train the eye", kind: "page", go: to("/practice/eye") },
      { words: "Workshop", kind: "page", go: to("/settings/workshop") },
      { words: "Backups and files", kind: "page", go: to("/settings/files") },
      { words: "Devices on the network", kind: "page", go: to("/settings/devices") },
      { words: "Guide", kind: "page", go: to("/guide") },
      { words: "Welcome: five questions and a tour", kind: "page", go: to("/welcome") },
      { words: "Settings", kind: "page", go: to("/settings") },
      { words: "Tub", kind: "page", go: to("/tub") },
      { words: "Side by side", kind: "page", go: to("/tub/series") },
      { words: "Next trials", kind: "page", go: to("/learning/trials") },
      { words: "Learning", kind: "page", go: to("/learning") },
      { words: "Journal", kind: "page", go: to("/journal") },
      { words: "Pantry", kind: "page", go: to("/pantry") },
    ];
    const named = (formulas.data?.pages[0]?.formulas ?? []).map((each) => ({
      words: each.name,
      kind: each.method_name.toLowerCase(),
      go: to(`/formulas/${each.id}`),
    }));
    const shelf = (ingredients.data?.ingredients ?? []).map((each) => ({
      words: each.short_name,
      kind: `${each.role}, Pantry`,
      go: to(`/pantry/${each.id}`),
    }));
    const code = typed.trim();
    const printed: Entry[] = /\d/.test(code)
      ? [
          {
            words: `${code}: find it again`,
            kind: "code of a lot, batch or label",
            go: to(`/found?code=${encodeURIComponent(code)}`),
          },
        ]
      : [];
    return [...here, ...acts, ...named, ...pages, ...shelf, ...printed];
  }, [navigate, pathname, formulas.data, ingredients.data, offers, typed]);
}

/** What begins with the words first, then what holds them all. */
function matching(entries: readonly Entry[], typed: string): Entry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = entries.filter((entry) => {
    const text = `${entry.words} ${entry.kind}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const first = words[0] ?? "";
  return [
    ...holds.filter((entry) => entry.words.toLowerCase().startsWith(first)),
    ...holds.filter((entry) => !entry.words.toLowerCase().startsWith(first)),
  ].slice(0, MOST);
}
