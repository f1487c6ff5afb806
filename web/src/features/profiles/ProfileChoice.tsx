import { useState } from "react";
import type { Profile, Reading } from "../../api";
import { useOffers } from "../../ui";
import type { Draft } from "../draft";
import { assume } from "./ProfileAssumes";
import { ProfileSheet } from "./ProfileSheet";

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
