import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

const LEARNING = ["learning"] as const;

export type Learning = components["schemas"]["LearningAnswer"];
export type LearntFactor = components["schemas"]["FactorAnswer"];

export const useLearning = () =>
  useQuery({ queryKey: LEARNING, queryFn: () => api(client.GET("/api/learning")), staleTime: 0 });

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
