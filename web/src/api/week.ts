import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { zoneHere } from "../lib/zone";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of orders, the week, and the settings both rest on. */
const ORDERS = ["orders"] as const;
const WEEK = ["week"] as const;
const SETTINGS = ["settings"] as const;

export type Week = components["schemas"]["WeekAnswer"];
export type PlannedOrder = Week["orders"][number];
export type OrderSave = components["schemas"]["OrderSave"];
export type OrderChange = components["schemas"]["OrderChange"];
export type Settings = components["schemas"]["StudioSettings"];
export type SettingsSave = components["schemas"]["StudioSave"];

/** The week at once; with seconds, the best that is found in them, which can be given up. */
export const useWeek = (days: number, seconds: number) =>
  useQuery({
    queryKey: [...WEEK, days, seconds] as const,
    queryFn: ({ signal }) =>
      api(client.POST("/api/week", { body: { days, seconds, zone: zoneHere() }, signal })),
    staleTime: seconds > 0 ? 60_000 : 0,
    placeholderData: (before) => before,
    retry: false,
  });

function useOrderChange<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: async () => {
      for (const queryKey of [ORDERS, WEEK]) {
        await queries.cancelQueries({ queryKey });
        await queries.invalidateQueries({ queryKey });
      }
    },
  });
}

/** What is there in place of something that is short, by open order; asked only when it is wanted. */
export const useStandIns = (ingredient: string | null) =>
  useQuery({
    queryKey: [...ORDERS, "stand-ins", ingredient] as const,
    queryFn: () =>
      api(
        client.GET("/api/shopping-list/substitutes", { params: { query: { ingredient: ingredient ?? "" } } }),
      ),
    enabled: ingredient !== null,
  });

export const SHOPPING_ADDRESS = "/api/shopping-list.csv";

export const useShoppingList = () =>
  useQuery({
    queryKey: [...ORDERS, "shopping"] as const,
    queryFn: () => api(client.GET("/api/shopping-list")),
    staleTime: 0,
  });

export const useTakeOrder = () =>
  useOrderChange((body: OrderSave) => api(client.POST("/api/orders", { body })));

export const useChangeOrder = () =>
  useOrderChange(({ order, body }: { order: number; body: OrderChange }) =>
    api(client.PUT("/api/orders/{order_id}", { params: { path: { order_id: order } }, body })),
  );

export const settingsQuery = queryOptions({
  queryKey: SETTINGS,
  queryFn: async () => (await api(client.GET("/api/settings"))).settings,
  staleTime: 60_000,
});

export const useSettings = () => useQuery(settingsQuery);

export const useSaveSettings = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: SettingsSave) => api(client.PUT("/api/settings", { body })),
    onSuccess: async (answer) => {
      queries.setQueryData(SETTINGS, answer.settings);
      await queries.invalidateQueries({ queryKey: WEEK });
    },
  });
};
