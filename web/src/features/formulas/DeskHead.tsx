import { useState } from "react";
import { useNavigate } from "react-router";
import {
  type FormulaAnswer,
  type IngredientSummary,
  type Method,
  messageOf,
  type Profile,
  type Reading,
  useDeleteFormula,
  useKeepVersion,
  useRestoreFormula,
} from "../../api";
import { csv } from "../../lib/csv";
import { Button, Dialog, Field, Menu, MenuItem, type Offer, useNotice, useOffers } from "../../ui";
import { type Draft, toFile } from "./draft";
import { ProfileChoice } from "./ProfileChoice";
import type { SaveState } from "./useAutosave";
import type { SheetUnit } from "./useSheets";

interface Props {
  draft: Draft;
  answer: FormulaAnswer;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  methods: readonly Method[];
  profiles: readonly Profile[];
  readings: readonly Reading[];
  settled: () => Promise<boolean>;
  onBringBack: () => void;
  onRebalance: () => void;
  onPortion: (halves: boolean) => void;
  onScale: () => void;
  onSettings: () => void;
  onShowIn: (unit: SheetUnit) => void;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  save: SaveState;
  /** What still asks for a hand. */
  settle: readonly string[];
}

const PRINT_AFTER_MS = 200; // the menu is closed by then

const NUMBER_WORDS = ["Nothing", "One thing", "Two things", "Three things", "Four things"];

/** Name, version, method, whether it is saved, and what is still to settle. */
export function DeskHead(props: Props) {
  const { draft, answer, methods, change, save, settle } = props;
  const [keeping, setKeeping] = useState(false);
  const toMethod = (id: string) => change((before) => ({ ...before, method: id as Draft["method"] }));
  useOffers(
    "methods",
    methods.map((method) => ({
      words: `Make it as ${method.name.toLowerCase()}`,
      run: () => toMethod(method.id),
    })),
  );
  return (
    <div className="relative z-10 w-[560px] max-w-[56vw] max-[1100px]:max-w-[420px] pb-1">
      <h1 className="flex items-baseline">
        <input
          aria-label="Name of the formula"
          className="w-full bg-transparent text-title font-[350] leading-[1.3] focus-visible:bg-lit"
          value={draft.name}
          maxLength={200}
          onChange={(event) => change((before) => ({ ...before, name: event.target.value }), "name")}
        />
      </h1>
      <p className="text-row text-soft">
        Version {answer.version},{" "}
        <select
          aria-label="Method"
          className="written text-row text-ink"
          value={draft.method}
          onChange={(event) => toMethod(event.target.value)}
        >
          {methods.map((method) => (
            <option key={method.id} value={method.id}>
              {method.name.toLowerCase()}
            </option>
          ))}
        </select>
        . <ProfileChoice draft={draft} profiles={props.profiles} readings={props.readings} change={change} />.{" "}
        {NUMBER_WORDS[settle.length]} to settle
        {settle.length > 0 && (
          <>
            : <b className="text-rosy">{settle.join(", ")}</b>
          </>
        )}
        .{" "}
        <span role="status" className={save.kind === "saved" || save.kind === "saving" ? "" : "text-rosy"}>
          {saveWords(save)}
        </span>{" "}
        {save.kind === "gone" && (
          <button type="button" className="border-b border-ink text-ink" onClick={props.onBringBack}>
            Bring it back
          </button>
        )}{" "}
        <HeadMenu
          draft={draft}
          answer={answer}
          ingredients={props.ingredients}
          onKeep={() => setKeeping(true)}
          onRebalance={props.onRebalance}
          onPortion={props.onPortion}
          onScale={props.onScale}
          onSettings={props.onSettings}
          onShowIn={props.onShowIn}
        />
      </p>
      <KeepVersion open={keeping} onOpenChange={setKeeping} id={answer.id} settled={props.settled} />
    </div>
  );
}

function saveWords(save: SaveState): string {
  if (save.kind === "saved") return "Saved.";
  if (save.kind === "saving") return "Saving…";
  if (save.kind === "offline") return "Not saved yet: the studio does not answer. Kept here, trying again.";
  if (save.kind === "refused") return save.message;
  if (save.kind === "gone") return "It was put aside in another tab; what you typed is kept here.";
  return "Changed in another tab.";
}

function HeadMenu({
  draft,
  answer,
  ingredients,
  onKeep,
  onRebalance,
  onPortion,
  onScale,
  onSettings,
  onShowIn,
}: {
  draft: Draft;
  answer: FormulaAnswer;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onKeep: () => void;
  onRebalance: () => void;
  onPortion: (halves: boolean) => void;
  onScale: () => void;
  onSettings: () => void;
  onShowIn: (unit: SheetUnit) => void;
}) {
  const navigate = useNavigate();
  const say = useNotice();
  const remove = useDeleteFormula();
  const restore = useRestoreFormula();
  const refused = (error: unknown) => say(messageOf(error), { asks: true });
  const onDelete = async () => {
    try {
      await remove.mutateAsync(answer.id);
      say(`"${draft.name}" is put aside.`, {
        action: {
          label: "Bring it back",
          run: () => restore.mutateAsync(answer.id).catch(refused),
        },
      });
      await navigate("/");
    } catch (error) {
      refused(error);
    }
  };
  const offers: Offer[] = [
    { words: "Rebalance…", hint: "Alt B", run: onRebalance },
    { words: "Another portion", run: () => onPortion(false) },
    { words: "Make two halves of it", run: () => onPortion(true) },
    { words: "Scale to a mass…", run: onScale },
    { words: "How it is made, used and paid for…", run: onSettings },
    { words: "All in grams", run: () => onShowIn("g") },
    { words: "All in ounces", run: () => onShowIn("oz") },
    { words: "All in per cent", run: () => onShowIn("pct") },
    { words: "All in parts", run: () => onShowIn("part") },
    { words: "Keep this version…", run: onKeep },
    { words: "Save as a formula file", run: () => saveFile(draft, ingredients) },
    { words: "Save the lines as CSV", run: () => saveCsv(draft) },
    { words: "Print it", run: () => setTimeout(() => window.print(), PRINT_AFTER_MS) },
    { words: "Put it aside", run: () => void onDelete() },
  ];
  useOffers("formula", offers);
  return (
    <Menu label="More for this formula" trigger="···">
      {offers.map((offer) => (
        <MenuItem key={offer.words} hint={offer.hint} onSelect={offer.run}>
          {offer.words}
        </MenuItem>
      ))}
    </Menu>
  );
}

function KeepVersion({
  open,
  onOpenChange,
  id,
  settled,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  id: number;
  settled: () => Promise<boolean>;
}) {
  const [note, setNote] = useState("");
  const keep = useKeepVersion();
  const say = useNotice();
  const onKeep = async () => {
    try {
      if (!(await settled())) {
        say("Not kept: your last change has not reached the studio yet. Try again when it is saved.", {
          asks: true,
        });
        return;
      }
      await keep.mutateAsync({ id, note });
      say("This version is kept; the next change starts a new one.");
      onOpenChange(false);
      setNote("");
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <Dialog
      open={open}
      onOpenChange={onOpenChange}
      title="Keep this version"
      lead="It stays as it is; the next change starts a new one."
    >
      <form
        className="mt-5 flex items-end gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          void onKeep();
        }}
      >
        <Field
          className="flex-1"
          label="What is it, in a few words?"
          value={note}
          maxLength={500}
          onChange={(event) => setNote(event.target.value)}
        />
        <Button primary type="submit" hint="Enter">
          Keep it
        </Button>
      </form>
    </Dialog>
  );
}

/** The file carries the certificates of its scents, so that it reads the same in another studio. */
function saveFile(draft: Draft, ingredients: ReadonlyMap<string, IngredientSummary>): void {
  const file = toFile(draft);
  const used = file.portions.flatMap((portion) => portion.lines.map((line) => line.ingredient ?? ""));
  const papers = used.flatMap((id) => {
    const paper = ingredients.get(id)?.certificate;
    return paper ? [[id, paper] as const] : [];
  });
  const certificates = { ...Object.fromEntries(papers), ...file.product.certificates };
  const whole = { ...file, product: { ...file.product, certificates } };
  saveText(draft, "json", "application/json", `${JSON.stringify(whole, null, 2)}\n`);
}

/** One line a row, as typed; pasted back as text it reads the same. */
function saveCsv(draft: Draft): void {
  const rows = draft.portions.flatMap((portion) =>
    portion.lines.map((line) => [portion.name, line.ingredient ?? line.text, line.amount, line.unit]),
  );
  const text = csv([["portion", "ingredient", "amount", "unit"], ...rows]);
  saveText(draft, "csv", "text/csv", text);
}

function saveText(draft: Draft, ending: string, type: string, text: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = `${draft.name.toLowerCase().replace(/[^a-z0-9]+/g, "-") || "formula"}.${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
