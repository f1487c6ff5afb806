import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of troubles: what is seen, what it may be, what it was. */
const TROUBLES = ["troubles"] as const;

export type Symptom = components["schemas"]["SymptomAnswer"];
export type Trouble = components["schemas"]["TroubleAnswer"];
export type TroubleCause = Trouble["causes"][number];
export type TroubleSave = components["schemas"]["TroubleSave"];
export type Answers = components["schemas"]["AnswersSave"]["answers"];

export const useSymptoms = () =>
  useQuery({
    queryKey: ["symptoms"] as const,
    queryFn: async () => (await api(client.GET("/api/symptoms"))).items,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useTroubles = () =>
  useQuery({
    queryKey: [...TROUBLES, "list"] as const,
    queryFn: async () => (await api(client.GET("/api/troubles", { params: { query: { limit: 20 } } }))).items,
    staleTime: 0,
  });

export const useTrouble = (id: number) =>
  useQuery({
    queryKey: [...TROUBLES, id] as const,
    queryFn: () => api(client.GET("/api/troubles/{trouble_id}", { params: { path: { trouble_id: id } } })),
    staleTime: 0,
  });

function useTroubleChange<Ask>(act: (ask: Ask) => Promise<Trouble>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: async (trouble) => {
      queries.setQueryData([...TROUBLES, trouble.id], trouble);
      await queries.invalidateQueries({ queryKey: [...TROUBLES, "list"] });
    },
  });
}

export const useOpenTrouble = () =>
  useTroubleChange((body: TroubleSave) => api(client.POST("/api/troubles", { body })));

export const useAnswerTrouble = (id: number) =>
  useTroubleChange((answers: Answers) =>
    api(
      client.PUT("/api/troubles/{trouble_id}/answers", {
        params: { path: { trouble_id: id } },
        body: { answers },
      }),
    ),
  );

export const useDecideTrouble = (id: number) =>
  useTroubleChange((body: { cause: string | null; remark: string }) =>
    api(client.PUT("/api/troubles/{trouble_id}/outcome", { params: { path: { trouble_id: id } }, body })),
  );

export const takeChange = (id: number, cause: string) =>
  api(
    client.POST("/api/troubles/{trouble_id}/change", {
      params: { path: { trouble_id: id } },
      body: { cause },
    }),
  );
