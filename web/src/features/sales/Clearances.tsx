import { useState } from "react";
import { type Clearance, messageOf, useClearances, useSayClearance } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { inUnits } from "../../lib/units";
import { Button, Field, Sheet } from "../../ui";

/** Whether a batch may be sold, market by market: what stands against it, who signed, who took it back and why. */
export function Clearances({ batch }: { batch: number }) {
  const told = useClearances(batch);
  const [asked, setAsked] = useState<Clearance>();
  if (told.error) return <p className="pt-6 text-body text-rosy">{messageOf(told.error)}</p>;
  return (
    <section aria-label="Clearance for sale" className="pt-8">
      <h2 className="text-row italic text-soft">Clearance for sale</h2>
      {!told.data && <p className="text-body text-soft">Looking at what stands against it…</p>}
      {told.data?.items.map((each) => (
        <div key={each.market} className="border-b-[0.9px] border-ink py-2 text-body">
          <p className="flex flex-wrap items-baseline gap-x-5">
            <b className="text-row">{each.market}</b>
            <span className={each.clean ? "" : "font-semibold text-rosy"}>{state(each)}</span>
            {(each.signed || each.blocks.length === 0) && (
              <Button onClick={() => setAsked(each)}>{each.signed ? "Take it back" : "Sign it"}</Button>
            )}
          </p>
          <ul className="max-w-[860px]">
            {each.blocks.map((block) => (
              <li key={block.rule + block.text}>
                {inUnits(block.text)} <span className="text-soft">{block.rule}</span>
              </li>
            ))}
          </ul>
          {each.history.length > 0 && (
            <ul className="pt-1 text-label text-soft">
              {each.history.map((row) => (
                <li key={row.at + row.state}>
                  {row.state === "signed" ? "Signed" : "Taken back"} by {row.who},{" "}
                  {row.at.slice(0, 16).replace("T", " ")}
                  {row.reason && `: ${row.reason}`}
                </li>
              ))}
            </ul>
          )}
        </div>
      ))}
      <p className="pt-1 text-label text-soft">
        A signature says that nothing known stands against it here. Whether it may be sold is decided by local
        law and a licensed assessor.
      </p>
      {asked && <Signing batch={batch} of={asked} onClose={() => setAsked(undefined)} />}
    </section>
  );
}

function state(each: Clearance): string {
  if (each.clean) return "cleared";
  if (each.signed) return "signed, and something has come up since";
  return each.blocks.length === 0 ? "nothing stands against it; not signed" : "held back";
}

function Signing({ batch, of, onClose }: { batch: number; of: Clearance; onClose: () => void }) {
  const [who, setWho] = useState("");
  const [reason, setReason] = useState("");
  const [key] = useState(askingKey);
  const say = useSayClearance(batch);
  const back = of.signed !== null;
  const market = of.market as "US" | "EU" | "UK";
  return (
    <Sheet
      onClose={onClose}
      title={back ? `Take the ${market} clearance back` : `Sign for ${market}`}
      lead="The name stays with the moment; nothing of it is ever rubbed out."
      submit={back ? "Take it back" : "Sign it"}
      onSubmit={async () => {
        await say.mutateAsync({ market, who, reason, key, state: back ? "taken-back" : "signed" });
        onClose();
        return "";
      }}
    >
      <Field
        className="w-80"
        label="Who"
        value={who}
        maxLength={200}
        onChange={(event) => setWho(event.target.value)}
      />
      {back && (
        <Field
          className="w-96"
          label="Why"
          value={reason}
          maxLength={2000}
          onChange={(event) => setReason(event.target.value)}
        />
      )}
    </Sheet>
  );
}
