import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { made } from "../lib/askingKey";
import { api, client } from "./client";
import type { components } from "./schema";

/** Requests of lots: what is in the jars, where it came from and where it went. */
const LOTS = ["lots"] as const;

const LIST_POLL_MS = 400;

export type Lot = components["schemas"]["LotAnswer"];
export type LotSave = components["schemas"]["LotSave"];
export type LotTrace = components["schemas"]["LotTraceAnswer"];
export type StockImport = components["schemas"]["ImportAnswer"];
export type ImportSave = components["schemas"]["ImportSave"];

export const STOCK_ADDRESSES = { csv: "/api/stock.csv", xlsx: "/api/stock.xlsx" } as const;

export const useLots = (q: string) =>
  useInfiniteQuery({
    queryKey: [...LOTS, "pages", q] as const,
    queryFn: ({ pageParam: cursor }) =>
      api(client.GET("/api/lots", { params: { query: { q, limit: 100, ...(cursor ? { cursor } : {}) } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: (before) => before,
    staleTime: 0,
  });

export const useLotTrace = (id: number) =>
  useQuery({
    queryKey: [...LOTS, id] as const,
    queryFn: () => api(client.GET("/api/lots/{lot_id}", { params: { path: { lot_id: id } } })),
    staleTime: 0,
  });

/** Names the jar a line of a batch came from; after closing that is an amendment, and stays to be seen. */
export const useNameLot = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({
      batch,
      ingredient,
      code,
      mass_g,
    }: {
      batch: number;
      ingredient: string;
      code: string;
      /** What came from it, beside what other jars are named for. */
      mass_g: number;
    }) =>
      api(
        client.POST("/api/batches/{batch_id}/events", {
          params: { path: { batch_id: batch } },
          // It stands by itself, whatever has happened to the batch since.
          body: { after: 0, hold: false, event: made({ kind: "lot" as const, ingredient, code, mass_g }) },
        }),
      ),
    onSettled: async (_answer, _error, { batch }) => {
      await queries.invalidateQueries({ queryKey: LOTS });
      await queries.invalidateQueries({ queryKey: ["batches", batch] });
    },
  });
};

export const useBatchLots = (batch: number) =>
  useQuery({
    queryKey: [...LOTS, "batch", batch] as const,
    queryFn: () => api(client.GET("/api/batches/{batch_id}/lots", { params: { path: { batch_id: batch } } })),
    staleTime: 0,
  });

function useLotChange<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: async () => {
      await queries.invalidateQueries({ queryKey: LOTS });
      await queries.invalidateQueries({ queryKey: ["ingredients"] });
    },
  });
}

export const useEnterLot = () => useLotChange((body: LotSave) => api(client.POST("/api/lots", { body })));

export const useCountLot = (id: number) =>
  useLotChange((body: { left_g: number; reason: string }) =>
    api(client.PUT("/api/lots/{lot_id}/stock", { params: { path: { lot_id: id } }, body })),
  );

export const useCertifyLot = (id: number) =>
  useLotChange((body: components["schemas"]["CertificateFile"]) =>
    api(client.PUT("/api/lots/{lot_id}/certificate", { params: { path: { lot_id: id } }, body })),
  );

export type SheetRow = components["schemas"]["CertificateRows"]["rows"][number];

/** Reads a pasted allergen sheet; nothing is kept. */
export const readSheet = async (text: string) =>
  (await api(client.POST("/api/certificate-readings", { body: { text } }))).rows;

/** Holds a lot back, or releases it; who and why stay beside it. */
export const useHoldLot = (id: number) =>
  useLotChange((body: components["schemas"]["LotStateSave"]) =>
    api(client.PUT("/api/lots/{lot_id}/state", { params: { path: { lot_id: id } }, body })),
  );

export const useWithdrawLot = (id: number) =>
  useLotChange((_: null) => api(client.DELETE("/api/lots/{lot_id}", { params: { path: { lot_id: id } } })));

export const useStockImport = () =>
  useLotChange((body: ImportSave) => api(client.POST("/api/stock-imports", { body })));

/** How far a long list is, while it is read or taken over. */
export const useListProgress = (watched: boolean) =>
  useQuery({
    queryKey: ["list-progress"] as const,
    queryFn: () => api(client.GET("/api/stock-imports/progress")),
    enabled: watched,
    refetchInterval: watched ? LIST_POLL_MS : false,
  });

export const stopList = () => api(client.DELETE("/api/stock-imports/progress"));

export const useTakeImportBack = () =>
  useLotChange((key: string) =>
    api(client.DELETE("/api/stock-imports/{key}", { params: { path: { key } } })),
  );
