import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

const LEARNING = ["learning"] as const;

export type Learning = components["schemas"]["LearningAnswer"];
export type LearntFactor = components["schemas"]["FactorAnswer"];

export const useLearning = () =>
  useQuery({ queryKey: LEARNING, queryFn: () => api(client.GET("/api/learning")), staleTime: 0 });

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
