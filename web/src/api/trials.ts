import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import { evaluate } from "./queries";
import type { components } from "./schema";
import type { FormulaFile } from "./types";

/** Requests of designs of mini-batches. */
const DESIGNS = ["trial-designs"] as const;

export type TrialDesign = components["schemas"]["DesignAnswer"];
export type DesignSave = components["schemas"]["DesignSave"];

export const useDesigns = () =>
  useInfiniteQuery({
    queryKey: [...DESIGNS, "pages"] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/trial-designs", { params: { query: cursor ? { cursor } : {} } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    staleTime: 0,
  });

export const useDesign = (id: number) =>
  useQuery({
    queryKey: [...DESIGNS, id] as const,
    queryFn: () => api(client.GET("/api/trial-designs/{design_id}", { params: { path: { design_id: id } } })),
    staleTime: 0,
  });

function useKept<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () => queries.invalidateQueries({ queryKey: DESIGNS }),
  });
}

export const useDesignTrials = () =>
  useKept((ask: DesignSave) => api(client.POST("/api/trial-designs", { body: ask })));

export const useReadBack = (id: number) =>
  useKept((body: { trial: number; value: number }) =>
    api(client.POST("/api/trial-designs/{design_id}/results", { params: { path: { design_id: id } }, body })),
  );

export const useAmendResult = (id: number) =>
  useKept(({ result, value }: { result: number; value: number | null }) =>
    api(
      client.POST("/api/trial-designs/{design_id}/results/{result_id}", {
        params: { path: { design_id: id, result_id: result } },
        body: { value },
      }),
    ),
  );

export const usePourWinner = (id: number) => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      api(client.POST("/api/trial-designs/{design_id}/poured", { params: { path: { design_id: id } } })),
    onSettled: () => queries.invalidateQueries(),
  });
};

/** What a stored formula reads, for choosing among its lines. */
export const useJudged = (id: number, formula: FormulaFile | null) =>
  useQuery({
    queryKey: ["evaluation-of", id, formula] as const,
    queryFn: ({ signal }) => evaluate(formula as FormulaFile, signal),
    enabled: formula !== null,
  });
