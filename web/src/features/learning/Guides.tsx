import { useState } from "react";
import { Link } from "react-router";
import { type Measurement, messageOf, useLeaveOut, useMeasurements } from "../../api";
import { figure, sayMass } from "../../lib/numbers";
import { Button, Dialog, useNotice } from "../../ui";
import { DropsSheet } from "./DropsSheet";
import { RopeSheet } from "./RopeSheet";

type Guide = "rope" | "tray" | "bucket" | "drop";

/** The measurements that teach the most for a quarter of an hour, each with its short guide. */
export function Guides() {
  const [open, setOpen] = useState<Guide | null>(null);
  const close = () => setOpen(null);
  return (
    <section aria-label="Measurements" className="no-print flex flex-wrap items-baseline gap-x-6 pt-4">
      <span className="text-row italic text-soft">A quarter of an hour that teaches much:</span>
      <Button onClick={() => setOpen("rope")}>The rope</Button>
      <Button onClick={() => setOpen("tray")}>The tray</Button>
      <Button onClick={() => setOpen("bucket")}>The bucket</Button>
      <Button onClick={() => setOpen("drop")}>The drop</Button>
      <Measured />
      {open === "rope" && <RopeSheet onClose={close} />}
      {open === "tray" && <TrayGuide onClose={close} />}
      {open === "drop" && <DropsSheet onClose={close} />}
      {open === "bucket" && <BucketGuide onClose={close} />}
    </section>
  );
}

/** Rope and drop tests that count; one is left out with a press, and stays in the file. */
function Measured() {
  const measurements = useMeasurements();
  const leaveOut = useLeaveOut();
  const say = useNotice();
  const rows = measurements.data?.items ?? [];
  if (rows.length === 0) return null;
  const onLeaveOut = async (row: Measurement) => {
    try {
      await leaveOut.mutateAsync(row.id);
      say("It does not count any more; it stays in the file.");
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <details className="text-body">
      <summary className="cursor-pointer">{rows.length} kept</summary>
      <ul>
        {rows.map((row) => (
          <li key={row.id} className="flex flex-wrap items-baseline gap-x-4 py-1">
            {row.name}: {told(row)}
            <Button onClick={() => void onLeaveOut(row)}>Leave it out</Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

const told = (row: Measurement) =>
  row.kind === "rope"
    ? `rolls at ${said(row, "rolls_at_g")}, smears at ${said(row, "smears_at_g")} of ${String(row.facts["wetter"])}`
    : `a corner broke after ${figure(Number(row.facts["drops"]))} drops`;

const said = (row: Measurement, key: string) => {
  const value = row.facts[key];
  return typeof value === "number" ? sayMass(value) : "–";
};

function TrayGuide({ onClose }: { onClose: () => void }) {
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="The tray"
      lead="How long your pieces take to dry, in your air."
    >
      <ol className="mt-4 list-decimal pl-6 text-row">
        <li>Set a batch out on the rack the hour it leaves the bench.</li>
        <li>Weigh six pieces together at once, and again after 4, 8, 24 and 48 hours.</li>
        <li>Always the same six, on the same scale; a pan of at least 350 of its steps.</li>
        <li>When two weighings are alike, they are dry: the tray's own hours are kept.</li>
      </ol>
      <p className="pt-4">
        <Link className="border-b-2 border-ink text-row" to="/rack">
          To the rack
        </Link>
      </p>
    </Dialog>
  );
}

function BucketGuide({ onClose }: { onClose: () => void }) {
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="The bucket"
      lead="How high your foam stands, without a bath: five litres count as well."
    >
      <ol className="mt-4 list-decimal pl-6 text-row">
        <li>
          Weigh a thirtieth of the dose, {sayMass(0.8)} for {sayMass(25)}, and crumble it into an empty
          ten-litre bucket.
        </li>
        <li>Pour five litres of bath-warm tap water on it from one metre, in half a minute.</li>
        <li>Measure from the water to the top of the foam at 1, 5, 10 and 20 minutes.</li>
      </ol>
      <p className="pt-4">
        <Link className="border-b-2 border-ink text-row" to="/tub">
          To the tub
        </Link>
      </p>
    </Dialog>
  );
}
