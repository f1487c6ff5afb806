import { useState } from "react";
import { messageOf } from "../../api";
import { useNotice, useOffers } from "../../ui";
import type { Draft, SaveState } from "../draft";
import { ProfileChoice } from "../profiles";
import { useDesk } from "./DeskContext";
import { HeadMenu } from "./HeadMenu";
import { KeepVersion } from "./KeepVersion";

const NUMBER_WORDS = ["Nothing", "One thing", "Two things", "Three things", "Four things"];

/** Name, version, method, whether it is saved, and what is still to settle. */
export function DeskHead() {
  const { draft, answer, reference, profiles, change, save, settle } = useDesk();
  const say = useNotice();
  const { methods, readings } = reference;
  const onBringBack = () =>
    void save.bringBack().catch((error: unknown) => say(messageOf(error), { asks: true }));
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
        . <ProfileChoice draft={draft} profiles={profiles} readings={readings} change={change} />.{" "}
        {NUMBER_WORDS[settle.length]} to settle
        {settle.length > 0 && (
          <>
            : <b className="text-rosy">{settle.join(", ")}</b>
          </>
        )}
        .{" "}
        <span
          role="status"
          className={save.state.kind === "saved" || save.state.kind === "saving" ? "" : "text-rosy"}
        >
          {saveWords(save.state)}
        </span>{" "}
        {save.state.kind === "gone" && (
          <button type="button" className="border-b border-ink text-ink" onClick={onBringBack}>
            Bring it back
          </button>
        )}{" "}
        <HeadMenu onKeep={() => setKeeping(true)} />
      </p>
      <KeepVersion open={keeping} onOpenChange={setKeeping} id={answer.id} settled={save.settled} />
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
