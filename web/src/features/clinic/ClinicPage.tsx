import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import {
  messageOf,
  type Symptom,
  type TroubleSave,
  useOpenTrouble,
  useSymptoms,
  useTroubles,
} from "../../api";
import { askingKey } from "../../lib/askingKey";
import { useNotice } from "../../ui";
import { causeWords } from "./causeWords";
import { SymptomDrawing } from "./SymptomDrawing";

const SOURCES = ["formula", "batch", "tray", "test"] as const;

/** What is seen is picked from drawings, or found in the maker's own words. */
export function ClinicPage() {
  const [query] = useSearchParams();
  const symptoms = useSymptoms();
  const open = useOpenTrouble();
  const navigate = useNavigate();
  const say = useNotice();
  const [words, setWords] = useState("");
  const source = SOURCES.find((each) => query.has(each));
  const id = source ? Number(query.get(source)) : null;
  const onPick = async (symptom: Symptom) => {
    const of: Partial<TroubleSave> = source && id ? { [`${source}_id`]: id } : {};
    try {
      const trouble = await open.mutateAsync({
        symptom: symptom.id,
        formula_id: null,
        batch_id: null,
        tray_id: null,
        test_id: null,
        ...of,
        answers: {},
        key: askingKey(),
      });
      await navigate(`/clinic/${trouble.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const shown = (symptoms.data ?? []).filter((each) => matches(each, words));
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>What went wrong?</h1>
      <p className="flex flex-wrap items-baseline gap-x-6 text-row text-soft">
        {source
          ? `What do you see? The record of this ${source} is read before anything is asked.`
          : "What do you see? Begin from a batch, a tray, a bath or a formula, and its record is read as well."}
        <Link className="underline underline-offset-4" to="/practice">
          Practise without wasting a kilo
        </Link>
      </p>
      <p className="pt-3">
        <input
          aria-label="What you see, in your words"
          placeholder="in your words: cracked, purple, flat"
          className="written w-96 text-reading"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </p>
      {symptoms.error && <p className="text-rosy">{messageOf(symptoms.error)}</p>}
      {symptoms.data && shown.length === 0 && (
        <p className="pt-4 text-body text-soft">Nothing is called so here; look through the drawings.</p>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-3 pt-4">
        {(shown.length > 0 ? shown : (symptoms.data ?? [])).map((each) => (
          <li key={each.id}>
            <button
              type="button"
              disabled={open.isPending}
              className="w-full border-b-[0.9px] border-ink pb-1 text-left text-body hover:bg-lit"
              onClick={() => void onPick(each)}
            >
              <SymptomDrawing drawing={each.drawing} size={110} />
              {each.title}
            </button>
          </li>
        ))}
      </ul>
      <Earlier />
    </div>
  );
}

/** Every word typed begins a word of the symptom. */
function matches(symptom: Symptom, words: string): boolean {
  const own = `${symptom.title} ${symptom.words}`.toLowerCase().split(/\s+/);
  return words
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean)
    .every((word) => own.some((each) => each.startsWith(word.slice(0, Math.max(4, word.length - 2)))));
}

function Earlier() {
  const troubles = useTroubles();
  if (!troubles.data || troubles.data.length === 0) return null;
  return (
    <section aria-label="Earlier troubles" className="pt-8">
      <h2 className="text-row italic text-soft">Looked into before</h2>
      <ul className="text-body">
        {troubles.data.map((each) => (
          <li key={each.id} className="flex flex-wrap gap-x-6 border-b-[0.9px] border-ink py-1">
            <Link className="underline underline-offset-4" to={`/clinic/${each.id}`}>
              {each.title}
            </Link>
            <span>{each.name}</span>
            <span className="text-soft">{each.created_at.slice(0, 10)}</span>
            <span>{each.outcome ? `It was: ${causeWords(each.outcome)}.` : "Not decided yet."}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
