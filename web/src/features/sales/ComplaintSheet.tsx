import { useState } from "react";
import { type ComplaintSave, useTakeComplaint } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { Field, Sheet, useNotice } from "../../ui";

const KINDS: ReadonlyArray<readonly [ComplaintSave["kind"], string]> = [
  ["eyes", "eyes"],
  ["swallowed", "swallowed"],
  ["breathing", "breathing"],
  ["skin", "skin"],
  ["slip", "a slip or fall"],
  ["fire", "fire"],
  ["other", "something else"],
];

/** What somebody said of a piece; what cannot wait is asked first. */
export function ComplaintSheet({ code: printed, onClose }: { code: string; onClose: () => void }) {
  const [kind, setKind] = useState<ComplaintSave["kind"]>();
  const [what, setWhat] = useState("");
  const [who, setWho] = useState("");
  const [code, setCode] = useState(printed);
  const [serious, setSerious] = useState(false);
  const [done, setDone] = useState("");
  const [key] = useState(askingKey);
  const take = useTakeComplaint();
  const say = useNotice();
  return (
    <Sheet
      onClose={onClose}
      title="Take a complaint"
      lead="Eyes, swallowed, or hard to breathe: that comes first. Send them to a doctor or the local poison centre; in an emergency, the local number."
      submit="Keep it"
      onSubmit={async () => {
        if (!kind) return "What is it about? Choose one.";
        const kept = await take.mutateAsync({ kind, what, who, code, serious, done, key });
        say(
          kept.report_by
            ? `Kept. In the US a serious one is reported by ${kept.report_by}.`
            : kept.batch_id
              ? `Kept, with batch ${kept.batch_id}.`
              : "Kept. No batch is known by that code.",
        );
        onClose();
        return "";
      }}
    >
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
        <legend className="text-body text-soft">About</legend>
        {KINDS.map(([id, says]) => (
          <label key={id} className="flex min-h-8 items-center gap-2">
            <input type="radio" name="kind" checked={kind === id} onChange={() => setKind(id)} /> {says}
          </label>
        ))}
      </fieldset>
      <Field
        className="w-full"
        label="What was said"
        value={what}
        maxLength={2000}
        onChange={(event) => setWhat(event.target.value)}
      />
      <p className="flex flex-wrap gap-5">
        <Field
          className="w-56"
          label="By whom"
          value={who}
          maxLength={200}
          onChange={(event) => setWho(event.target.value)}
        />
        <Field
          className="w-48"
          label="Code on the piece"
          value={code}
          maxLength={200}
          onChange={(event) => setCode(event.target.value)}
        />
      </p>
      <label className="flex min-h-8 items-center gap-2">
        <input type="checkbox" checked={serious} onChange={(event) => setSerious(event.target.checked)} />{" "}
        Serious: a doctor, a hospital, lasting harm
      </label>
      <Field
        className="w-full"
        label="What was done"
        value={done}
        maxLength={2000}
        onChange={(event) => setDone(event.target.value)}
      />
    </Sheet>
  );
}
