import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of labels: drawn while they are typed, kept as they were printed. */
const LABELS = ["labels"] as const;

export type LabelAsk = components["schemas"]["LabelAsk"];
export type LabelDrawing = components["schemas"]["LabelDrawing"];
export type DrawnLabel = LabelDrawing["labels"][number];
export type LabelSave = components["schemas"]["LabelSave"];
export type LabelFacts = LabelDrawing["facts"];
export type LabelSheet = components["schemas"]["SheetSave"];

export const drawLabels = (body: LabelAsk, signal: AbortSignal): Promise<LabelDrawing> =>
  api(client.POST("/api/labels/drawing", { body, signal }));

export const useLabels = (of: { formula_id?: number; batch_id?: number }) =>
  useQuery({
    queryKey: [...LABELS, of] as const,
    queryFn: () => api(client.GET("/api/labels", { params: { query: of } })),
    staleTime: 0,
  });

export const useKeepLabel = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: LabelSave) => api(client.POST("/api/labels", { body })),
    onSettled: () => queries.invalidateQueries({ queryKey: LABELS }),
  });
};
