import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { messageOf, type Recall, recallAddress, useRecall } from "../../api";
import { Button, Field, HeadRow } from "../../ui";
import { ComplaintSheet } from "./ComplaintSheet";
import { Complaints } from "./Complaints";

type Part = Exclude<keyof Recall, "code">;
type Entry = Record<string, unknown>;

const TITLES: ReadonlyArray<readonly [Part, string]> = [
  ["batches", "Batches"],
  ["people", "People"],
  ["orders", "Orders"],
  ["labels", "Labels"],
  ["trays", "Trays"],
  ["lots", "Lots"],
  ["photos", "Photos"],
  ["complaints", "Complaints"],
  ["assumed", "Only assumed"],
];

/** Found again: from the code of a lot, a batch or a label to all that hangs together with it; and what was complained of. */
export function FoundPage() {
  const [parameters, setParameters] = useSearchParams();
  const code = parameters.get("code") ?? "";
  const [typed, setTyped] = useState(code);
  const [complaining, setComplaining] = useState(parameters.get("complain") === "yes");
  const told = useRecall(code);
  useEffect(() => {
    document.title = code ? `Found again: ${code}` : "Recall and complaints";
    setTyped(code);
  }, [code]);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2 max-[800px]:px-5">
      <h1>Recall and complaints</h1>
      <form
        className="flex flex-wrap items-end gap-5 text-row"
        onSubmit={(event) => {
          event.preventDefault();
          setParameters(typed.trim() ? { code: typed.trim() } : {});
        }}
      >
        <Field
          className="w-72"
          label="Code of a lot, a batch or a label"
          value={typed}
          maxLength={200}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button primary type="submit">
          Find it
        </Button>
        <Button onClick={() => setComplaining(true)}>Take a complaint</Button>
      </form>
      {told.error && <p className="pt-4 text-reading text-rosy">{messageOf(told.error)}</p>}
      {code && told.data && <Found found={told.data} />}
      <Complaints />
      {complaining && <ComplaintSheet code={code} onClose={() => setComplaining(false)} />}
    </div>
  );
}

function Found({ found }: { found: Recall }) {
  const parts = TITLES.map(([part, title]) => [part, title, found[part] as Entry[]] as const).filter(
    ([, , entries]) => entries.length > 0,
  );
  if (parts.length === 0)
    return (
      <p className="pt-6 text-reading">
        Nothing hangs together with "{found.code}". Type it as it stands on the jar or the label.
      </p>
    );
  return (
    <section aria-label={`Hangs together with ${found.code}`} className="pt-6">
      <p className="flex flex-wrap gap-x-6 text-row">
        <span>{sum(found)}</span>
        <a className="underline underline-offset-4" href={recallAddress("csv", found.code)} download>
          List as CSV
        </a>
        <a className="underline underline-offset-4" href={recallAddress("letter.pdf", found.code)} download>
          Letter as a draft, PDF
        </a>
        <a className="underline underline-offset-4" href={recallAddress("letter.eml", found.code)} download>
          as mail
        </a>
      </p>
      {parts.map(([part, title, entries]) => (
        <table key={part} className="mt-5 w-full text-body">
          <caption
            className={`text-left text-row italic ${part === "assumed" ? "font-semibold text-rosy" : "text-soft"}`}
          >
            {title}
          </caption>
          <HeadRow ruled columns={["What", "", "How"]} />
          <tbody>
            {entries.map((each) => (
              <tr key={JSON.stringify(each)} className="border-b-[0.9px] border-ink align-baseline">
                <th scope="row" className="py-1 pr-6 text-left font-medium">
                  <Named part={part} each={each} />
                </th>
                <td className="pr-6">{beside(each)}</td>
                <td className="text-soft">{word(each.how ?? each.text)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}

function Named({ part, each }: { part: Part; each: Entry }) {
  const id = word(each.id);
  const to =
    part === "batches"
      ? `/batches/${id}`
      : part === "lots"
        ? `/pantry/lots/${id}`
        : part === "trays"
          ? `/rack?tray=${id}`
          : null;
  const says =
    word(each.name) ||
    word(each.who) ||
    (part === "labels" ? `Label ${id}, ${word(each.market)}` : "") ||
    word(each.kind) ||
    `${word(each.noun)} ${id}`;
  return to ? (
    <Link className="underline underline-offset-4" to={to}>
      {says}
    </Link>
  ) : (
    <>{says}</>
  );
}

/** What else there is to know of an entry, in one line. */
function beside(each: Entry): string {
  const found = [word(each.code)];
  if (each.pieces) found.push(`${word(each.pieces)} pieces`);
  if (each.copies) found.push(`${word(each.copies)} printed`);
  if (each.contact) found.push(word(each.contact));
  if (each.supplier) found.push(word(each.supplier));
  if (each.place) found.push(`in "${word(each.place)}"`);
  if (each.what) found.push(word(each.what));
  if (each.draft === true) found.push("a draft");
  return found.filter(Boolean).join(", ");
}

const word = (value: unknown): string =>
  typeof value === "string" || typeof value === "number" ? String(value) : "";

function sum(found: Recall): string {
  const pieces = found.batches.reduce((all, each) => all + Number((each as Entry).pieces ?? 0), 0);
  const batches = `${found.batches.length} ${found.batches.length === 1 ? "batch" : "batches"}`;
  const people = `${found.people.length} ${found.people.length === 1 ? "person" : "people"}`;
  return `${batches}, ${pieces} pieces, ${people}.`;
}
