import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of tests side by side. */
const SERIES = ["test-series"] as const;

export type Series = components["schemas"]["SeriesAnswer"];
export type SeriesSave = components["schemas"]["SeriesSave"];
export type SeriesVariant = Series["variants"][number];

export const useAllSeries = () =>
  useInfiniteQuery({
    queryKey: [...SERIES, "pages"] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/test-series", { params: { query: cursor ? { cursor } : {} } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    staleTime: 0,
  });

const at = (id: number) => ({ params: { path: { series_id: id } } });

export const useSeries = (id: number) =>
  useQuery({
    queryKey: [...SERIES, id] as const,
    queryFn: () => api(client.GET("/api/test-series/{series_id}", at(id))),
    staleTime: 0,
  });

function useAct<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: async () => {
      await queries.invalidateQueries({ queryKey: SERIES });
      await queries.invalidateQueries({ queryKey: ["tub-tests"] });
    },
  });
}

export const useBeginSeries = () =>
  useAct((ask: SeriesSave) => api(client.POST("/api/test-series", { body: ask })));
export const useNextBath = (id: number) =>
  useAct((_: null) => api(client.POST("/api/test-series/{series_id}/tests", at(id))));
export const useOpenCodes = (id: number) =>
  useAct((_: null) => api(client.POST("/api/test-series/{series_id}/open", at(id))));
export const useSlip = (id: number) =>
  useAct((_: null) => api(client.POST("/api/test-series/{series_id}/slip", at(id))));
export const useMoreBaths = (id: number) =>
  useAct((each: number) =>
    api(client.POST("/api/test-series/{series_id}/places", { ...at(id), body: { each } })),
  );
