import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of what may go out, and of what is found again: clearances, recalls, complaints. */
const SALES = ["sales"] as const;

export type Clearance = components["schemas"]["ClearanceAnswer"];
export type ClearanceSave = components["schemas"]["ClearanceSave"];
export type Recall = components["schemas"]["RecallAnswer"];
export type Complaint = components["schemas"]["ComplaintAnswer"];
export type ComplaintSave = components["schemas"]["ComplaintSave"];

export const useClearances = (batch: number) =>
  useQuery({
    queryKey: [...SALES, "batch", batch] as const,
    queryFn: () =>
      api(client.GET("/api/batches/{batch_id}/clearances", { params: { path: { batch_id: batch } } })),
    staleTime: 0,
  });

/** Signed clearances against which something has come up since. */
export const useReopened = () =>
  useQuery({
    queryKey: [...SALES, "reopened"] as const,
    queryFn: async () => (await api(client.GET("/api/clearances/reopened"))).items,
  });

export const useRecall = (code: string) =>
  useQuery({
    queryKey: [...SALES, "recall", code] as const,
    queryFn: () => api(client.GET("/api/recalls", { params: { query: { code } } })),
    enabled: code !== "",
    staleTime: 0,
  });

export const useComplaints = (q: string) =>
  useInfiniteQuery({
    queryKey: [...SALES, "complaints", q] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/complaints", { params: { query: { q, ...(cursor ? { cursor } : {}) } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
  });

export const useComplaintTrends = () =>
  useQuery({
    queryKey: [...SALES, "trends"] as const,
    queryFn: async () => (await api(client.GET("/api/complaints/trends"))).items,
    staleTime: 0,
  });

function useSaleChange<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () => queries.invalidateQueries({ queryKey: SALES }),
  });
}

export const useSayClearance = (batch: number) =>
  useSaleChange((body: ClearanceSave) =>
    api(client.POST("/api/batches/{batch_id}/clearances", { params: { path: { batch_id: batch } }, body })),
  );

export const useTakeComplaint = () =>
  useSaleChange((body: ComplaintSave) => api(client.POST("/api/complaints", { body })));

export const useChangeComplaint = () =>
  useSaleChange(({ id, done }: { id: number; done: string }) =>
    api(
      client.PUT("/api/complaints/{complaint_id}", {
        params: { path: { complaint_id: id } },
        body: { done },
      }),
    ),
  );

/** Where the files of a recall are. */
export const recallAddress = (kind: "csv" | "letter.eml" | "letter.pdf", code: string) =>
  `/api/recalls${kind === "csv" ? ".csv" : `/${kind}`}?code=${encodeURIComponent(code)}`;
