import { useRef, useState } from "react";
import { Link } from "react-router";
import {
  type Backup,
  backupAddress,
  fetchStudioZip,
  type Imported,
  messageOf,
  stopTransfer,
  useBackups,
  useBringBack,
  useMakeBackup,
  useTakeIn,
  useTransfer,
} from "../../api";
import { download } from "../../lib/download";
import { figure, fixed } from "../../lib/numbers";
import { Button, DrawingTools, HowFar, useNotice } from "../../ui";
import { Differences } from "./Differences";

/** Years of records: backups on a line of time, and the whole studio out and in as open files. */
export function FilesPage() {
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Files</h1>
      <p className="text-row text-soft">
        A backup is made every day while the studio runs, each looked over when it is made.{" "}
        <Link className="underline underline-offset-4" to="/settings">
          Settings
        </Link>
      </p>
      <Backups />
      <WholeStudio />
    </div>
  );
}

function Backups() {
  const backups = useBackups();
  const make = useMakeBackup();
  const bringBack = useBringBack();
  const say = useNotice();
  const onMake = async () => {
    try {
      await make.mutateAsync(null);
      say("Backed up and looked over.");
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const onBringBack = async (name: string) => {
    try {
      const { kept } = await bringBack.mutateAsync(name);
      say("The studio is as it was then. What was here is kept.", {
        action: { label: "Take it back", run: () => void bringBack.mutateAsync(kept) },
      });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const items = backups.data ?? [];
  return (
    <section aria-label="Backups" className="pt-5">
      <p className="flex items-end gap-6">
        <Button primary onClick={() => void onMake()} disabled={make.isPending}>
          {make.isPending ? "Copying…" : "Make a backup now"}
        </Button>
        <span className="text-body text-soft">
          {items.length === 0
            ? "There is none yet; the first is made a minute after the start."
            : `${items.length} kept: the newest of 7 days, 4 weeks and 12 months, and all made by hand.`}
        </span>
      </p>
      {items.length > 0 && <BackupLine backups={items} />}
      <ul className="pt-2 text-body">
        {items.map((each) => (
          <li
            key={each.name}
            className="flex flex-wrap items-baseline gap-x-6 border-b-[0.9px] border-ink py-1.5"
          >
            <b className="w-56">{moment(each.made_at)}</b>
            <span className="w-40">{each.by_hand ? "kept for good" : "of the day"}</span>
            <span className="w-28 text-right">{megabytes(each.size_bytes)}</span>
            <a className="underline underline-offset-4" href={backupAddress(each.name)} download>
              As a file
            </a>
            <button
              type="button"
              className="min-h-8 underline underline-offset-4"
              disabled={bringBack.isPending}
              onClick={() => void onBringBack(each.name)}
            >
              Bring it back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const WIDTH = 1180;
const DAY_MS = 86_400_000;

/** Backups on a line of time that is drawn closer the further back it goes. */
function BackupLine({ backups }: { backups: readonly Backup[] }) {
  const svg = useRef<SVGSVGElement>(null);
  const now = Date.now();
  const days = (each: Backup) => Math.max(0, (now - Date.parse(each.made_at)) / DAY_MS);
  const px = (age: number) => WIDTH - 70 - (Math.log1p(age) / Math.log1p(400)) * (WIDTH - 140);
  const newest = backups[0];
  return (
    <figure className="pt-4">
      <svg
        ref={svg}
        role="img"
        aria-label={`${backups.length} backups, the newest ${newest ? fixed(days(newest), 1) : ""} days old.`}
        viewBox={`0 0 ${WIDTH} 62`}
        className="block w-full"
        fontSize="13"
      >
        <path d={`M0 34H${WIDTH}`} stroke="var(--ink)" strokeWidth="1.1" />
        {[0, 1, 7, 28, 91, 365].map((age) => (
          <g key={age}>
            <path d={`M${px(age)} 34v7`} stroke="var(--ink)" />
            <text x={px(age)} y="57" textAnchor="middle" fill="var(--soft)">
              {age === 0
                ? "now"
                : age < 28
                  ? `${age} d`
                  : age < 100
                    ? `${Math.round(age / 7)} weeks`
                    : "a year"}
            </text>
          </g>
        ))}
        {backups.map((each) => (
          <path
            key={each.name}
            d={`M${px(days(each))} ${each.by_hand ? 6 : 14}V34`}
            stroke={each.by_hand ? "var(--rosy)" : "var(--verd)"}
            strokeWidth="2.4"
          />
        ))}
      </svg>
      <figcaption className="flex justify-between text-caption text-soft">
        <span className="italic">Long: kept for good. Short: of the day.</span>
        <DrawingTools
          name="Backups"
          columns={["Made", "Kind", "Size"]}
          rows={backups.map((each) => [
            moment(each.made_at),
            each.by_hand ? "kept for good" : "of the day",
            megabytes(each.size_bytes),
          ])}
          svg={() => svg.current}
        />
      </figcaption>
    </figure>
  );
}

function WholeStudio() {
  const takeIn = useTakeIn();
  const say = useNotice();
  const [merge, setMerge] = useState(true);
  const [found, setFound] = useState<Imported>();
  const [exporting, setExporting] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const busy = exporting || takeIn.isPending;
  const transfer = useTransfer(busy);
  const onExport = async () => {
    setExporting(true);
    try {
      download(`rosy-kettle-${new Date().toISOString().slice(0, 10)}.zip`, await fetchStudioZip());
    } catch (error) {
      say(messageOf(error), { asks: true });
    } finally {
      setExporting(false);
    }
  };
  const onTakeIn = async (file: File | undefined) => {
    if (!file) return;
    setFound(undefined);
    try {
      const taken = await takeIn.mutateAsync({ file, merge });
      setFound(taken);
      const rows = Object.values(taken.taken).reduce((sum, each) => sum + each, 0);
      say(rows === 0 ? "Nothing in it was new." : `Taken in: ${figure(rows)} new rows.`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    } finally {
      if (picker.current) picker.current.value = "";
    }
  };
  return (
    <section aria-label="The whole studio" className="pt-10">
      <h2 className="text-row italic text-soft">The whole studio as open files</h2>
      <p className="max-w-[860px] text-body">
        Formulas, batches, rack, tests, pantry, labels, learning and settings as JSON and CSV in one zip,
        photos beside them. Taken into an empty studio it is the same again; taken into another, what differs
        is kept on both sides and shown.
      </p>
      <p className="flex flex-wrap items-end gap-6 pt-3">
        <Button primary onClick={() => void onExport()} disabled={busy}>
          Take the studio out
        </Button>
        <label className="text-body">
          Take a zip in{" "}
          <input
            ref={picker}
            type="file"
            accept=".zip,application/zip"
            className="text-caption"
            disabled={busy}
            onChange={(event) => void onTakeIn(event.target.files?.[0])}
          />
        </label>
        <label className="flex items-center gap-2 text-body">
          <input type="checkbox" checked={merge} onChange={(event) => setMerge(event.target.checked)} />
          beside what is here
        </label>
      </p>
      {busy && (
        <HowFar
          done={transfer.data?.done ?? 0}
          whole={transfer.data?.whole ?? 0}
          of="files"
          onStop={() => void stopTransfer()}
        />
      )}
      {found && <Differences found={found} />}
    </section>
  );
}

const megabytes = (bytes: number) => `${figure(bytes / 1e6)} MB`;

const moment = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });
