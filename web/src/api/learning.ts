import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

const LEARNING = ["learning"] as const;

export type Learning = components["schemas"]["LearningAnswer"];
export type LearntFactor = components["schemas"]["FactorAnswer"];

const LOOK_MS = 3000;
const PROGRESS_MS = 500;

export const useLearning = () =>
  useQuery({
    queryKey: LEARNING,
    queryFn: () => api(client.GET("/api/learning")),
    staleTime: 0,
    refetchInterval: (query) => (query.state.data?.reading ? LOOK_MS : false),
  });

/** How much of the studio's work is read, while it is being read. */
export const useLearningProgress = () =>
  useQuery({
    queryKey: ["learning-progress"] as const,
    queryFn: () => api(client.GET("/api/learning/progress")),
    refetchInterval: PROGRESS_MS,
  });

/** Stop reading, or go on; what is read so far is learnt from. */
export const useReadOn = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (on: boolean) =>
      api(on ? client.POST("/api/learning/progress") : client.DELETE("/api/learning/progress")),
    onSettled: () => queries.invalidateQueries({ queryKey: LEARNING }),
  });
};

export type Measurement = components["schemas"]["MeasurementAnswer"];
const MEASUREMENTS = ["measurements"] as const;

export const useMeasurements = () =>
  useQuery({ queryKey: MEASUREMENTS, queryFn: () => api(client.GET("/api/measurements")), staleTime: 0 });

function useMeasured<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: async () => {
      // One that was asked before knows nothing of it, and a first one is not asked again by itself.
      for (const queryKey of [MEASUREMENTS, LEARNING]) {
        await queries.cancelQueries({ queryKey });
        await queries.invalidateQueries({ queryKey });
      }
    },
  });
}

export const useKeepRope = () =>
  useMeasured((body: components["schemas"]["RopeSave"]) => api(client.POST("/api/measurements", { body })));

export const useKeepDrops = () =>
  useMeasured((body: components["schemas"]["DropsSave"]) =>
    api(client.POST("/api/measurements/drops", { body })),
  );

export const useLeaveOut = () =>
  useMeasured((measurement_id: number) =>
    api(client.DELETE("/api/measurements/{measurement_id}", { params: { path: { measurement_id } } })),
  );

/** Use a factor from now on, or the default again: every figure may be another afterwards. */
export const useFactor = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ factor, accepted }: { factor: string; accepted: boolean }) =>
      api(client.PUT("/api/learning/{factor}", { params: { path: { factor } }, body: { accepted } })),
    onSuccess: (learning) => {
      queries.setQueryData(LEARNING, learning);
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== LEARNING[0] });
    },
  });
};
