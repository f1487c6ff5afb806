import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { made } from "../lib/askingKey";
import { api, client } from "./client";
import type { components } from "./schema";
import type { Complete, Happening } from "./types";

/** Requests of practice: bowls with hidden truth; they touch neither stock nor journal nor learning. */
const RUNS = ["practice"] as const;

export type PracticeRun = Complete<components["schemas"]["RunAnswer"]>;
export type Debriefing = NonNullable<PracticeRun["debrief"]>;
export type PracticeAct = Omit<components["schemas"]["ActSave"], "after">;
/** What a learner does: something of the bench, or what a real bench needs no button for. */
export type PracticeDeed = { event: Happening } | { act: PracticeAct };

export const usePracticeBowls = () =>
  useQuery({
    queryKey: [...RUNS, "bowls"] as const,
    queryFn: async () => (await api(client.GET("/api/practice-runs/bowls"))).items,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const usePracticeRuns = () =>
  useQuery({
    queryKey: [...RUNS, "list"] as const,
    queryFn: async () =>
      (await api(client.GET("/api/practice-runs", { params: { query: { limit: 20 } } }))).items,
    staleTime: 0,
  });

export const usePracticeRun = (id: number) =>
  useQuery({
    queryKey: [...RUNS, id] as const,
    queryFn: async () =>
      (await api(
        client.GET("/api/practice-runs/{run_id}", { params: { path: { run_id: id } } }),
      )) as PracticeRun,
    staleTime: 0,
  });

export const useBeginRun = () =>
  useMutation({
    mutationFn: (body: { scenario: string; seed: number; key: string }) =>
      api(client.POST("/api/practice-runs", { body })),
  });

export const useActInRun = (id: number) => {
  const queries = useQueryClient();
  const params = { path: { run_id: id } };
  return useMutation({
    mutationFn: async (deed: PracticeDeed) => {
      const after = queries.getQueryData<PracticeRun>([...RUNS, id])?.done ?? 0;
      return (await api(
        "event" in deed
          ? client.POST("/api/practice-runs/{run_id}/events", {
              params,
              body: { event: made(deed.event), after },
            })
          : client.POST("/api/practice-runs/{run_id}/acts", {
              params,
              body: { ...deed.act, after, id: made({}).id },
            }),
      )) as PracticeRun;
    },
    onSuccess: (run) => queries.setQueryData([...RUNS, id], run),
  });
};

export const useCards = (seed: number) =>
  useQuery({
    queryKey: [...RUNS, "cards", seed] as const,
    queryFn: () => api(client.GET("/api/practice-runs/cards", { params: { query: { seed } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
