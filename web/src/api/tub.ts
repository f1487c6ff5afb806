import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { made } from "../lib/askingKey";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of the tub. */
const TUB = ["tub-tests"] as const;

export type TubTest = components["schemas"]["TestAnswer"];
export type TubHappening = components["schemas"]["TestEventSave"]["event"];
export type TubTestSave = components["schemas"]["TestSave"];

/** Tests whose name holds the words, the newest first, a page at a time. */
export const useTubTests = (q: string) =>
  useInfiniteQuery({
    queryKey: [...TUB, "pages", q] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/tub-tests", { params: { query: { q, ...(cursor ? { cursor } : {}) } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
  });

export const useTubTest = (id: number | null) =>
  useQuery({
    queryKey: [...TUB, id] as const,
    queryFn: () => api(client.GET("/api/tub-tests/{test_id}", { params: { path: { test_id: id ?? 0 } } })),
    enabled: id !== null,
    staleTime: 0,
  });

export const useBeginTest = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (ask: TubTestSave) => api(client.POST("/api/tub-tests", { body: ask })),
    onSettled: () => queries.invalidateQueries({ queryKey: TUB }),
  });
};

/** Ask anew for everything that is told of tests. */
export const useRefreshTests = () => {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: TUB });
};

/** Lets one thing happen in a test; whatever the answer, what is shown afterwards is what is on disk. */
export const useTestHappens = (id: number) => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ after, event }: { after: number; event: TubHappening }) =>
      api(
        client.POST("/api/tub-tests/{test_id}/events", {
          params: { path: { test_id: id } },
          body: { after, event: made(event) },
        }),
      ),
    onSettled: async () => {
      await queries.cancelQueries({ queryKey: TUB });
      await queries.invalidateQueries({ queryKey: TUB });
      await queries.invalidateQueries({ queryKey: ["test-series"] });
    },
  });
};
