import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { type JournalEntry, messageOf, useJournal } from "../../api";
import { inUnits } from "../../lib/units";
import { useSettled } from "../../lib/useSettled";
import { LongList, PageHead, SearchField } from "../../ui";
import { EntryDrawing } from "./EntryDrawing";

/** All that has happened, on one rule down the sheet: searched by words, narrowed by kind, month and what went wrong. */
export function JournalPage() {
  const [parameters, setParameters] = useSearchParams();
  const [search, setSearch] = useState(parameters.get("q") ?? "");
  const settled = useSettled(search.trim());
  const [chosen, setChosen] = useState(() => Object.fromEntries(parameters));
  const { kind = "", month = "" } = chosen;
  const formula = Number(chosen["formula"]) || undefined;
  const wrong = chosen["wrong"] === "yes";
  const journal = useJournal({
    ...(settled ? { q: settled } : {}),
    ...(kind ? { kind } : {}),
    ...(month ? { month } : {}),
    ...(wrong ? { gone_wrong: true } : {}),
    ...(formula ? { formula_id: formula } : {}),
  });
  const narrow = (name: string, value: string) => {
    const { [name]: _before, ...others } = chosen;
    const next = value ? { ...others, [name]: value } : others;
    setChosen(next);
    setParameters(next, { replace: true });
  };
  const told = journal.data?.pages[0];
  const entries = journal.data?.pages.flatMap((page) => page.items) ?? [];
  const narrowed = Boolean(settled || kind || month || wrong || formula);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead
        title="Journal"
        lead={
          <>
            What has happened, from the first formula on.{" "}
            {formula && (
              <button
                type="button"
                className="underline underline-offset-4"
                onClick={() => narrow("formula", "")}
              >
                Show that of every formula
              </button>
            )}
          </>
        }
      >
        <SearchField
          label="Search the journal"
          placeholder={'A word, or "a phrase"'}
          value={search}
          onSearch={setSearch}
        />
        <Choice
          label="Kind"
          all="of every kind"
          value={kind}
          choices={told?.kinds ?? []}
          onChoose={(chosen) => narrow("kind", chosen)}
        />
        <Choice
          label="Month"
          all="at any time"
          value={month}
          choices={told?.months ?? []}
          say={monthOf}
          onChoose={(chosen) => narrow("month", chosen)}
        />
        <label className="text-body">
          <input
            type="checkbox"
            className="mr-2 size-4 accent-[var(--ink)]"
            checked={wrong}
            onChange={(event) => narrow("wrong", event.target.checked ? "yes" : "")}
          />
          what went wrong
        </label>
      </PageHead>
      {journal.error && <p className="pt-6 text-reading text-rosy">{messageOf(journal.error)}</p>}
      {told && entries.length === 0 && (
        <p className="pt-8 text-reading">
          {narrowed
            ? "Nothing in the journal speaks of that; three letters of a word are enough."
            : "Nothing has happened yet. Write a formula down, take it to the bench, and it stands here."}
        </p>
      )}
      {entries.length > 0 && (
        <div className="relative mt-6 max-w-[980px]">
          <span aria-hidden="true" className="absolute bottom-0 left-[187px] top-0 w-[1.4px] bg-ink" />
          <LongList
            as="ol"
            rows={entries}
            height={48}
            keyOf={(entry) => entry.id}
            pages={journal}
            render={(entry, at, measure) => (
              <Entry entry={entry} before={entries[at - 1]} at={at} measure={measure} />
            )}
          />
        </div>
      )}
    </div>
  );
}

function Entry({
  entry,
  before,
  at,
  measure,
}: {
  entry: JournalEntry;
  before: JournalEntry | undefined;
  at: number;
  measure: (element: HTMLElement | null) => void;
}) {
  const when = new Date(entry.at);
  const day = when.toLocaleDateString("en-GB", { day: "numeric", month: "short" });
  const newMonth = !before || monthOf(before.at) !== monthOf(entry.at);
  const newDay = !before || new Date(before.at).toDateString() !== when.toDateString();
  return (
    <li
      ref={measure}
      data-index={at}
      className="grid grid-cols-[150px_44px_1fr] items-center gap-x-4 py-1 hover:bg-lit"
    >
      <span className="text-right text-caption text-soft">
        {newMonth && <span className="block text-row italic text-ink">{monthOf(entry.at)}</span>}
        <time dateTime={entry.at}>
          {newDay && `${day}, `}
          {when.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}
        </time>
      </span>
      <span className="relative z-10 bg-paper">
        <EntryDrawing entry={entry} />
      </span>
      <span className="min-w-0">
        <Link
          to={placeOf(entry)}
          className="text-body font-semibold hover:underline hover:underline-offset-4"
        >
          {entry.title}
        </Link>{" "}
        <span className="text-caption italic text-soft">{entry.kind}</span>
        <span className={`block text-body ${entry.gone_wrong ? "text-rosy" : ""}`}>
          {inUnits(entry.text)}
        </span>
      </span>
    </li>
  );
}

/** Where an entry leads: the tray on its shelf, the batch's record, or the formula. */
function placeOf(entry: JournalEntry): string {
  if (entry.test_id) return `/tub/${entry.test_id}`;
  if (entry.tray_id) return `/rack?tray=${entry.tray_id}`;
  if (entry.batch_id) return `/batches/${entry.batch_id}`;
  return entry.version && entry.version > 1
    ? `/formulas/${entry.formula_id}/versions`
    : `/formulas/${entry.formula_id}`;
}

const monthOf = (iso: string) =>
  new Date(iso.length === 7 ? `${iso}-15` : iso).toLocaleDateString("en-GB", {
    month: "long",
    year: "numeric",
  });

function Choice({
  label,
  all,
  value,
  choices,
  say = (choice) => choice,
  onChoose,
}: {
  label: string;
  all: string;
  value: string;
  choices: readonly string[];
  say?: (choice: string) => string;
  onChoose: (choice: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="written text-body"
      value={value}
      onChange={(event) => onChoose(event.target.value)}
    >
      <option value="">{all}</option>
      {choices.map((choice) => (
        <option key={choice} value={choice}>
          {say(choice)}
        </option>
      ))}
    </select>
  );
}
