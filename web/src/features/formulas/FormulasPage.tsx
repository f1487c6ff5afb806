import { type DragEvent, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import {
  type FormulaFile,
  type FormulaGlance,
  messageOf,
  useCreateFormula,
  useFormulas,
  useNewFormula,
  useReference,
  useStudioWarnings,
} from "../../api";
import { figure, fixed, sayMass } from "../../lib/numbers";
import { useSettled } from "../../lib/useSettled";
import { Button, HeadRow, LongList, Strip, useNotice } from "../../ui";
import { Reopened } from "../sales";

/** What is not as it should be in the studio itself; nothing where all is well. */
function Warnings() {
  const warnings = useStudioWarnings();
  return (warnings.data ?? []).map((warning) => (
    <p key={warning.code} role="status" className="max-w-[860px] pt-1 text-body text-rosy">
      {warning.text}{" "}
      <Link className="underline underline-offset-4" to="/settings/files">
        Backups and files
      </Link>
    </p>
  ));
}

/** All formulas, each with the one thing to know at a glance: does its dough fit its method? */
export function FormulasPage() {
  const reference = useReference();
  const create = useCreateFormula();
  const newFormula = useNewFormula();
  const navigate = useNavigate();
  const say = useNotice();
  const file = useRef<HTMLInputElement>(null);
  const [search, setSearch] = useState("");
  const formulas = useFormulas(useSettled(search.trim()));

  const open = async (formula: FormulaFile | Promise<FormulaFile>) => {
    try {
      const made = await create.mutateAsync(await formula);
      await navigate(`/formulas/${made.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const takeFile = async (given: File | undefined) => {
    if (!given) return;
    try {
      await open(JSON.parse(await given.text()) as FormulaFile);
    } catch {
      say(`"${given.name}" is not a formula file; choose a JSON file saved from a Desk.`, { asks: true });
    }
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    void takeFile(event.dataTransfer.files[0]);
  };

  const list = formulas.data?.pages.flatMap((page) => page.formulas) ?? [];
  const told = formulas.data?.pages[0];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping a file is a shortcut for the button beside it
    <div className="pb-16 pl-14 pr-9" onDragOver={(event) => event.preventDefault()} onDrop={onDrop}>
      <div className="flex items-end justify-between pt-2">
        <div>
          <h1>Formulas</h1>
          <p className="text-row text-soft">
            {summary(told)}{" "}
            <Link className="underline underline-offset-4" to="/welcome">
              New here?
            </Link>{" "}
            <Link className="underline underline-offset-4" to="/guide">
              Guide
            </Link>
          </p>
          <Warnings />
          <Reopened />
        </div>
        <div className="flex shrink-0 items-end gap-6 whitespace-nowrap">
          <input
            type="search"
            aria-label="Search formulas"
            placeholder="Name, method or ingredient"
            className="written w-60 py-1 text-body placeholder:text-soft"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <Button onClick={() => file.current?.click()}>Open a file</Button>
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            className="hidden"
            aria-label="Formula file"
            onChange={(event) => void takeFile(event.target.files?.[0])}
          />
          <Button onClick={() => void open(newFormula())}>Empty formula</Button>
          <Button primary onClick={() => void navigate("/recipes/new")}>
            Paste a recipe
          </Button>
        </div>
      </div>
      {formulas.error && <p className="pt-6 text-reading text-rosy">{messageOf(formulas.error)}</p>}
      {told && told.in_all === 0 && (
        <p className="pt-10 text-reading">
          No formula yet. Paste a recipe as you found it, in cups or in grams, and see whether it would hold.
        </p>
      )}
      {list.length > 0 && (
        <table className="mt-6 w-full">
          <HeadRow
            columns={[
              "Formula",
              "Method",
              { says: <span className="block pl-[86px]">wanted</span>, className: "w-[190px]" },
              "Dough",
              { says: "Batch", right: true },
              { says: "Changed", right: true },
            ]}
          />
          <LongList
            as="tbody"
            rows={list}
            height={64}
            keyOf={(row) => row.id}
            pages={formulas}
            render={(row, at, measure) => (
              <Row
                row={row}
                at={at}
                measure={measure}
                band={reference.data?.methods.find((method) => method.id === row.method)}
              />
            )}
          />
        </table>
      )}
      {told && told.in_all > 0 && list.length === 0 && (
        <p className="pt-8 text-reading text-soft">No formula holds "{search}".</p>
      )}
    </div>
  );
}

function Row({
  row,
  at,
  measure,
  band,
}: {
  row: FormulaGlance;
  at: number;
  measure: (element: HTMLElement | null) => void;
  band: { saturation_high: number | null } | undefined;
}) {
  const wanted =
    row.wanted_from === null ? undefined : { low: row.wanted_from, high: band?.saturation_high ?? undefined };
  const off = row.fits === false;
  const word = row.state ?? (row.judged ? "empty" : "…");
  return (
    <tr ref={measure} data-index={at} className="border-b-[0.9px] border-ink hover:bg-lit">
      <td className="py-2">
        <Link className="text-state hover:underline hover:underline-offset-4" to={`/formulas/${row.id}`}>
          {row.name}
        </Link>
        <span className="block max-w-[420px] truncate text-caption text-soft">
          {row.ingredients.slice(0, 6).join(", ").toLowerCase()}
        </span>
      </td>
      <td className="text-body">{row.method_name}</td>
      <td>
        <Strip
          id={`formula${row.id}`}
          min={0}
          max={2.4}
          wanted={wanted}
          value={row.saturation}
          text={`Saturation ${row.saturation === null ? "not known" : figure(row.saturation)}, ${word}${off ? ", not as wanted" : ""}`}
          format={(v) => fixed(v, 2)}
        />
      </td>
      <td className={`text-body font-semibold ${off ? "text-rosy" : ""}`}>
        {word}
        {off && <span className="block text-caption">not {row.wanted_states.join(" or ")}</span>}
      </td>
      <td className="text-right text-body">{sayMass(row.mass_g)}</td>
      <td className="text-right text-caption text-soft">
        <time dateTime={row.updated_at}>
          {new Date(row.updated_at).toLocaleDateString("en-GB", { day: "numeric", month: "short" })}
        </time>
      </td>
    </tr>
  );
}

function summary(told: { in_all: number; off: number; waiting: number } | undefined): string {
  if (!told) return "Opening…";
  const count = `${told.in_all} ${told.in_all === 1 ? "formula" : "formulas"}`;
  if (told.waiting > 0) return `${count}; working out the figures of ${told.waiting} more.`;
  if (told.off === 0) return `${count}; every dough is where its method wants it.`;
  return `${count}; ${told.off} would not give the dough ${told.off === 1 ? "its method wants" : "their methods want"}.`;
}
