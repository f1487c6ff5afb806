import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { made } from "../lib/askingKey";
import { api, client } from "./client";
import type { Batch, BatchComparison, BatchPlan, DrawerAct, Happening, PlanAsk, RescueOption } from "./types";

/** Requests of Plan and Bench. */
const BATCHES = ["batches"] as const;
export const batchKey = (id: number) => ["batches", id] as const;

export const usePlan = (formulaId: number, ask: PlanAsk) =>
  useQuery({
    queryKey: ["formulas", formulaId, "plan", ask] as const,
    queryFn: async () =>
      (await api(
        client.POST("/api/formulas/{formula_id}/plans", {
          params: { path: { formula_id: formulaId } },
          body: ask,
        }),
      )) as BatchPlan,
    placeholderData: (before) => before,
    staleTime: 0,
    retry: false,
  });

/** Batches that the words speak of, the newest first, a page at a time; of one formula or of all. */
export const useBatches = (q: string, formulaId?: number) =>
  useInfiniteQuery({
    queryKey: [...BATCHES, "pages", q, formulaId ?? 0] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(
        client.GET("/api/batches", {
          params: {
            query: { q, ...(formulaId ? { formula_id: formulaId } : {}), ...(cursor ? { cursor } : {}) },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
  });

/** Two batches side by side, once the other one is chosen. */
export const useBatchComparison = (id: number, other: number | null) =>
  useQuery({
    queryKey: [...batchKey(id), "comparison", other] as const,
    queryFn: async () =>
      (await api(
        client.GET("/api/batches/{batch_id}/comparison", {
          params: { path: { batch_id: id }, query: { other: other ?? 0 } },
        }),
      )) as BatchComparison,
    enabled: other !== null,
  });

const getBatch = async (id: number) =>
  (await api(client.GET("/api/batches/{batch_id}", { params: { path: { batch_id: id } } }))) as Batch;

export const useBatch = (id: number) =>
  useQuery({ queryKey: batchKey(id), queryFn: () => getBatch(id), staleTime: 0, enabled: id > 0 });

export const useFeels = () =>
  useQuery({
    queryKey: ["feels"],
    queryFn: () => api(client.GET("/api/feels")),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Begins a bowl; asked twice with the same key, it is begun once. */
export const beginBatch = async (formulaId: number, ask: PlanAsk, key: string) =>
  (await api(client.POST("/api/batches", { body: { ...ask, formula_id: formulaId, key } }))) as Batch;

export const beginNextBowl = async (id: number) =>
  (await api(
    client.POST("/api/batches/{batch_id}/next-bowl", { params: { path: { batch_id: id } } }),
  )) as Batch;

/** Lets one thing happen. Whatever the answer, the batch shown is the one on disk. */
/** A tablet out of reach gets no refusal, only silence: after so long the bench goes on without. */
const ANSWER_MS = 6_000;

export function useHappen(id: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ after, event, hold = false }: { after: number; event: Happening; hold?: boolean }) =>
      (await api(
        client.POST("/api/batches/{batch_id}/events", {
          params: { path: { batch_id: id } },
          body: { after, event: "id" in event ? event : made(event), hold },
          signal: AbortSignal.timeout(ANSWER_MS),
        }),
      )) as Batch,
    // A look at the batch from before, not answered yet, must not stand over what has happened since.
    onSuccess: async (batch) => {
      await queries.cancelQueries({ queryKey: batchKey(id) });
      queries.setQueryData(batchKey(id), batch);
    },
    onError: () => void queries.invalidateQueries({ queryKey: batchKey(id) }),
  });
}

export const useRefreshBatch = (id: number) => {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: batchKey(id) });
};

export const findWaysOut = async (id: number, actual_g: number) =>
  (
    await api(
      client.GET("/api/batches/{batch_id}/ways-out", {
        params: { path: { batch_id: id }, query: { actual_g } },
      }),
    )
  ).ways as RescueOption[];

export const zeroScale = () => api(client.POST("/api/devices/scale/zero"));

export const openDrawer = (act: Pick<DrawerAct, "act"> & Partial<DrawerAct>) =>
  api(client.POST("/api/devices/drawer", { body: { device: "scale", value: 0, seconds: 0, ...act } }));
