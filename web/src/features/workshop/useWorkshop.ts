import { useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { messageOf, type Settings, type SettingsSave, useSaveSettings } from "../../api";
import { useNotice } from "../../ui";

type Some = Partial<Settings> | ((now: Settings) => Partial<Settings>);
export type Change = (some: Some) => Promise<boolean>;

/**
 * Keep one thing of the workshop at once, with a way back; every figure may be another afterwards. One change after the other, each
 * on what the one before has left: lines are left faster than the studio answers.
 */
export function useChange(said: Settings): Change {
  const save = useSaveSettings();
  const queries = useQueryClient();
  const say = useNotice();
  const before = useRef<Promise<unknown>>(Promise.resolve());
  const put = async (next: Settings) => {
    await save.mutateAsync(next as SettingsSave);
    await queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "settings" });
  };
  const keep = async (some: Some) => {
    const now = queries.getQueryData<Settings>(["settings"]) ?? said;
    try {
      await put({ ...now, ...(typeof some === "function" ? some(now) : some) });
      say("Kept.", { action: { label: "Take it back", run: () => void put(now) } });
      return true;
    } catch (error) {
      say(messageOf(error), { asks: true });
      return false;
    }
  };
  return (some) => {
    const kept = before.current.then(() => keep(some));
    before.current = kept;
    return kept;
  };
}
