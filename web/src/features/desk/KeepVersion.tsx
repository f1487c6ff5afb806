import { useState } from "react";
import { messageOf, useKeepVersion } from "../../api";
import { emptied } from "../../lib/emptied";
import { Button, Dialog, Field, useNotice } from "../../ui";

/** Asks for a few words and keeps the formula as it is. */
export function KeepVersion({
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
      setNote(emptied(note));
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
