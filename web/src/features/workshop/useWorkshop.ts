import { useQueryClient } from "@tanstack/react-query";
import { messageOf, type Settings, type SettingsSave, useSaveSettings } from "../../api";
import { useNotice } from "../../ui";

export type Change = (some: Partial<Settings>) => Promise<boolean>;

/** Keep one thing of the workshop at once, with a way back; every figure may be another afterwards. */
export function useChange(said: Settings): Change {
  const save = useSaveSettings();
  const queries = useQueryClient();
  const say = useNotice();
  const put = async (next: Settings) => {
    await save.mutateAsync(next as SettingsSave);
    await queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "settings" });
  };
  return async (some) => {
    try {
      await put({ ...said, ...some });
      say("Kept.", { action: { label: "Take it back", run: () => void put(said) } });
      return true;
    } catch (error) {
      say(messageOf(error), { asks: true });
      return false;
    }
  };
}
