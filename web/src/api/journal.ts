import { useInfiniteQuery } from "@tanstack/react-query";
import { api, client } from "./client";

/** What the journal is asked; what is not given is open. */
export interface JournalAsk {
  q?: string;
  formula_id?: number;
  batch_id?: number;
  kind?: string;
  month?: string;
  gone_wrong?: boolean;
}

/** What has happened, the newest first, a page at a time. */
export const useJournal = (ask: JournalAsk) =>
  useInfiniteQuery({
    queryKey: ["journal", ask] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/journal", { params: { query: { ...ask, ...(cursor ? { cursor } : {}) } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
  });
