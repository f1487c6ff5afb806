import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { made } from "../lib/askingKey";
import { zoneHere } from "../lib/zone";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of the rack. */
const RACK = ["rack"] as const;
const LOOKED_AT_MS = 5000; // another browser's taps are seen after so long at the latest

export type Rack = components["schemas"]["RackList"];
export type Tray = components["schemas"]["TrayAnswer"];
export type TrayTask = Tray["reading"]["tasks"][number];
export type TrayHappening = components["schemas"]["TrayEventSave"]["event"];
export type TraySave = components["schemas"]["TraySave"];
export type WeighInSave = components["schemas"]["WeighInSave"];

/** More trays than a workshop has on its rack. */
export const ON_RACK_AT_ONCE = 50;

export const useRack = (wrapped: boolean, q: string, limit: number) =>
  useQuery({
    queryKey: [...RACK, wrapped, q, limit] as const,
    queryFn: async () =>
      (await api(
        client.GET("/api/rack", { params: { query: { wrapped, q, limit, zone: zoneHere() } } }),
      )) as Rack,
    placeholderData: (before, asked) => (asked?.queryKey[1] === wrapped ? before : undefined),
    staleTime: 0,
    refetchInterval: LOOKED_AT_MS,
  });

/** One tray, wrapped or not, where a link leads to it. */
export const useTray = (id: number | null) =>
  useQuery({
    queryKey: [...RACK, "tray", id] as const,
    queryFn: async () =>
      (await api(client.GET("/api/rack/{tray_id}", { params: { path: { tray_id: id ?? 0 } } }))) as Tray,
    enabled: id !== null,
  });

/** The air of a place over the last week. */
export const useAir = (place: string) =>
  useQuery({
    queryKey: [...RACK, "air", place] as const,
    queryFn: () => api(client.GET("/api/air", { params: { query: { place, days: 7 } } })),
  });

/** A change to the rack; whatever the answer, what is shown afterwards is what is on disk. */
function useRackChange<In, Out>(change: (input: In) => Promise<Out>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSettled: async () => {
      await queries.cancelQueries({ queryKey: RACK });
      await queries.invalidateQueries({ queryKey: RACK });
    },
  });
}

export const useSetOut = () =>
  useRackChange((ask: Partial<TraySave> & { pieces: number }) =>
    api(client.POST("/api/rack", { body: { name: "", place: "rack", trays: 1, ...ask } })),
  );

export const useTrayHappens = () =>
  useRackChange(
    async ({ id, after, event }: { id: number; after: number; event: TrayHappening }) =>
      (await api(
        client.POST("/api/rack/{tray_id}/events", {
          params: { path: { tray_id: id } },
          body: { after, event: made(event) },
        }),
      )) as Tray,
  );

export const useWeighIn = () =>
  useRackChange(
    async ({ tray, ...weighed }: { tray: Tray; mass_g: number; pieces: number } & Partial<WeighInSave>) =>
      (await api(
        client.POST("/api/rack/{tray_id}/weigh-ins", {
          params: { path: { tray_id: tray.id } },
          body: { after: tray.state.seq, tare_g: 0, scale_step_g: 0.1, source: "hand", ...made(weighed) },
        }),
      )) as Tray,
  );

export const useLogAir = () =>
  useRackChange((air: { place: string; temperature_c: number; humidity_pct: number }) =>
    api(client.POST("/api/air", { body: air })),
  );

/** The air that was typed last, anywhere: offered as such where it is asked for again. */
export const useAirTyped = () =>
  useQuery({
    queryKey: ["air", "typed"] as const,
    queryFn: () => api(client.GET("/api/air/typed")),
    staleTime: 0,
  });

export const useKeepPlace = () =>
  useRackChange(({ name, trays }: { name: string; trays: number }) =>
    api(client.PUT("/api/rack-places/{place}", { params: { path: { place: name } }, body: { trays } })),
  );

/** Tasks of the rack, days of orders and the week, by the clock of this page. */
export const calendarAddress = () => `/api/calendar.ics?zone=${encodeURIComponent(zoneHere())}`;
