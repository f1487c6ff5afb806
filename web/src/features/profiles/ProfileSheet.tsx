import { useState } from "react";
import {
  messageOf,
  type Profile,
  type ProfileDraft,
  type ProfileSettings,
  type Reading,
  useDeleteProfile,
  useSaveProfile,
} from "../../api";
import { Button, Dialog, Field, useNotice } from "../../ui";
import { type BandRow, BandTable, bandOf, rowOf } from "./BandTable";
import { ProfileAssumes } from "./ProfileAssumes";

const NO_SETTINGS: ProfileSettings = {
  markets: null,
  youngest_user_months: null,
  tub_l: null,
  dose_g: null,
  hardness: null,
  room_c: null,
  humidity_pct: null,
};

/** What a profile wants, assumes and goes by; kept for every formula judged by it. */
export function ProfileSheet({
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
  const [rows, setRows] = useState<BandRow[]>((profile?.bands ?? []).map(rowOf));
  const [settings, setSettings] = useState<ProfileSettings>(profile?.settings ?? NO_SETTINGS);
  const [refused, setRefused] = useState("");
  const save = useSaveProfile();
  const remove = useDeleteProfile();
  const say = useNotice();
  const onSave = async () => {
    const bands = rows.map(bandOf);
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
        <BandTable rows={rows} aims={readings.filter((reading) => reading.aim)} onChange={setRows} />
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
