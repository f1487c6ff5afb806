import { useState } from "react";
import {
  type Band,
  messageOf,
  type Profile,
  type ProfileDraft,
  type ProfileSettings,
  type Reading,
  useDeleteProfile,
  useSaveProfile,
} from "../../api";
import { readDecimal } from "../../lib/decimals";
import { Button, Dialog, Field, useNotice, useOffers } from "../../ui";
import type { Draft } from "./draft";
import { assume, ProfileAssumes } from "./ProfileAssumes";

interface Props {
  draft: Draft;
  profiles: readonly Profile[];
  readings: readonly Reading[];
  change: (change: (draft: Draft) => Draft, field?: string) => void;
}

/** Whose wishes the formula is judged by. */
export function ProfileChoice({ draft, profiles, readings, change }: Props) {
  const [editing, setEditing] = useState(false);
  const chosen = profiles.find((profile) => profile.id === draft.profile);
  const gone = draft.profile !== null && draft.profile !== "" && !chosen;
  useOffers(
    "profiles",
    profiles.map((profile) => ({
      words: `Judge it for ${profile.name.toLowerCase()}`,
      run: () => change((before) => judgedBy(before, profile)),
    })),
  );
  return (
    <>
      For{" "}
      <select
        aria-label="Profile"
        className={`written text-row ${gone ? "text-rosy" : "text-ink"}`}
        value={draft.profile ?? ""}
        onChange={(event) => {
          const profile = profiles.find((each) => each.id === event.target.value);
          change((before) => judgedBy(before, profile));
        }}
      >
        <option value="">nobody in particular</option>
        {gone && <option value={draft.profile ?? ""}>a profile that is gone; choose another</option>}
        {profiles.map((profile) => (
          <option key={profile.id} value={profile.id}>
            {profile.name.toLowerCase()}
          </option>
        ))}
      </select>{" "}
      <button
        type="button"
        className="border-b border-ink text-caption text-ink"
        onClick={() => setEditing(true)}
      >
        {chosen ? "Change what is wanted" : "Make a profile"}
      </button>
      {editing && (
        <ProfileSheet
          profile={chosen}
          readings={readings}
          onClose={() => setEditing(false)}
          onKept={(made) => change((before) => judgedBy(before, made))}
        />
      )}
    </>
  );
}

/** The formula for a profile, with the ledger's lines it goes by and all it assumes. */
function judgedBy(draft: Draft, profile: Profile | undefined): Draft {
  const product = {
    ...draft.product,
    profile: (profile?.ledger_profile ?? "adult") as Draft["product"]["profile"],
  };
  const judged = { ...draft, profile: profile?.id ?? null, product };
  return profile ? assume(judged, profile.settings) : judged;
}

const NO_SETTINGS: ProfileSettings = {
  markets: null,
  youngest_user_months: null,
  tub_l: null,
  dose_g: null,
  hardness: null,
  room_c: null,
  humidity_pct: null,
};

interface Row {
  reading: string;
  low: string;
  high: string;
}

const text = (value: number | null) => (value === null ? "" : String(value));

function ProfileSheet({
  profile,
  readings,
  onClose,
  onKept,
}: {
  profile: Profile | undefined;
  readings: readonly Reading[];
  onClose: () => void;
  onKept: (profile: Profile) => void;
}) {
  const [name, setName] = useState(profile?.name ?? "");
  const [ledger, setLedger] = useState(
    (profile?.ledger_profile ?? "adult") as ProfileDraft["ledger_profile"],
  );
  const [rows, setRows] = useState<Row[]>(
    (profile?.bands ?? []).map((band) => ({
      reading: band.reading,
      low: text(band.low),
      high: text(band.high),
    })),
  );
  const [settings, setSettings] = useState<ProfileSettings>(profile?.settings ?? NO_SETTINGS);
  const [refused, setRefused] = useState("");
  const save = useSaveProfile();
  const remove = useDeleteProfile();
  const say = useNotice();
  const aims = readings.filter((reading) => reading.aim);
  const set = (index: number, patch: Partial<Row>) =>
    setRows(rows.map((row, at) => (at === index ? { ...row, ...patch } : row)));
  const onSave = async () => {
    const bands: Band[] = rows.map((row) => ({
      reading: row.reading,
      low: readDecimal(row.low),
      high: readDecimal(row.high),
    }));
    if (bands.some((band) => Number.isNaN(band.low ?? 0) || Number.isNaN(band.high ?? 0)))
      return setRefused("An end of a band is a number, or empty.");
    if (Object.values(settings).some((value) => Number.isNaN(value)))
      return setRefused("What the profile assumes is a number, or empty.");
    const draft: ProfileDraft = {
      name,
      summary: profile?.summary ?? "",
      ledger_profile: ledger,
      bands,
      settings,
    };
    try {
      const answer = await save.mutateAsync(
        profile ? { id: profile.id, profile: draft } : { profile: draft },
      );
      const kept = answer.profiles.find((each) =>
        profile ? each.id === profile.id : each.name === name.trim(),
      );
      if (kept) onKept(kept);
      say(`"${name}" is kept.`);
      onClose();
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  const onRemove = async () => {
    if (!profile) return;
    try {
      await remove.mutateAsync(profile.id);
      say(
        profile.ready_made ? `"${profile.name}" is as it was delivered.` : `"${profile.name}" is taken away.`,
      );
      onClose();
    } catch (error) {
      setRefused(messageOf(error));
    }
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={profile ? `What ${profile.name} wants` : "A new profile"}
      lead="Every band falls between the same two posts on the right of the Desk."
    >
      <form
        className="mt-4"
        onSubmit={(event) => {
          event.preventDefault();
          void onSave();
        }}
      >
        <div className="flex items-end gap-8">
          <Field
            className="w-72"
            label="Name"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
          />
          <label className="text-caption italic text-soft">
            Lines of the skin ledger
            <select
              className="written ml-2 text-row not-italic text-ink"
              value={ledger}
              onChange={(event) => setLedger(event.target.value as ProfileDraft["ledger_profile"])}
            >
              {["adult", "family", "sensitive", "children"].map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
        </div>
        <table className="mt-5 w-full text-body">
          <thead>
            <tr className="text-left text-caption italic text-soft">
              <th className="font-normal">Reading</th>
              <th className="w-28 font-normal">at least</th>
              <th className="w-28 font-normal">at most</th>
              <th className="w-24 font-normal">unit</th>
              <th className="w-24" />
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place while it is edited
              <tr key={index} className="border-b-[0.9px] border-ink">
                <td>
                  <select
                    aria-label={`Reading ${index + 1}`}
                    className="written w-full text-body"
                    value={row.reading}
                    onChange={(event) => set(index, { reading: event.target.value })}
                  >
                    {aims.map((reading) => (
                      <option key={reading.id} value={reading.id}>
                        {reading.label}
                      </option>
                    ))}
                  </select>
                </td>
                {(["low", "high"] as const).map((end) => (
                  <td key={end}>
                    <input
                      aria-label={`${end === "low" ? "At least" : "At most"}, reading ${index + 1}`}
                      className="written w-20"
                      inputMode="decimal"
                      value={row[end]}
                      onChange={(event) => set(index, { [end]: event.target.value })}
                    />
                  </td>
                ))}
                <td className="text-soft">{aims.find((reading) => reading.id === row.reading)?.unit}</td>
                <td className="text-right">
                  <button
                    type="button"
                    className="border-b border-ink text-caption"
                    onClick={() => setRows(rows.filter((_, at) => at !== index))}
                  >
                    Take out
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <Button
          className="mt-2"
          onClick={() => setRows([...rows, { reading: "lather.score", low: "", high: "" }])}
        >
          Another band
        </Button>
        <ProfileAssumes settings={settings} onChange={setSettings} />
        {refused && (
          <p role="alert" className="mt-3 text-body text-rosy">
            {refused}
          </p>
        )}
        <p className="mt-5 flex gap-6">
          <Button primary type="submit" hint="Enter">
            Keep it
          </Button>
          {profile?.changed && (
            <Button onClick={() => void onRemove()}>
              {profile.ready_made ? "As delivered" : "Take the profile away"}
            </Button>
          )}
        </p>
      </form>
    </Dialog>
  );
}
