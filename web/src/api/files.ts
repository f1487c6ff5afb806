import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, askRaw, client } from "./client";
import type { components } from "./schema";

/** Requests of backups and of the studio as a zip. */
const BACKUPS = ["backups"] as const;
const POLL_MS = 400;

export type Backup = components["schemas"]["BackupAnswer"];
export type Imported = components["schemas"]["ImportedAnswer"];
const STUDIO_ZIP = "/api/studio.zip";

export const useBackups = () =>
  useQuery({
    queryKey: BACKUPS,
    queryFn: async () => (await api(client.GET("/api/backups"))).items,
    staleTime: 0,
  });

/** What is to be said of the studio, on its own machine; other devices are told nothing of it. */
export const useStudioWarnings = () =>
  useQuery({
    queryKey: [...BACKUPS, "warnings"] as const,
    queryFn: async () => (await api(client.GET("/api/backups/warnings"))).items,
    retry: false,
  });

/** All that is shown may be another studio's now. */
function useWhole<Ask, Answer>(act: (ask: Ask) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: act, onSettled: () => queries.invalidateQueries() });
}

export const useMakeBackup = () => useWhole((_: null) => api(client.POST("/api/backups")));

export const useBringBack = () =>
  useWhole((name: string) => api(client.POST("/api/backups/{name}/restore", { params: { path: { name } } })));

export const useTakeIn = () =>
  useWhole(async ({ file, merge }: { file: File; merge: boolean }): Promise<Imported> => {
    const body = new FormData();
    body.append("file", file);
    return (await askRaw(`${STUDIO_ZIP}?merge=${merge}`, { method: "POST", body })).json();
  });

export const fetchStudioZip = async (): Promise<Blob> => (await askRaw(STUDIO_ZIP)).blob();

/** How far a running export or import is. */
export const useTransfer = (watched: boolean) =>
  useQuery({
    queryKey: ["transfer"] as const,
    queryFn: () => api(client.GET("/api/studio.zip/progress")),
    enabled: watched,
    refetchInterval: watched ? POLL_MS : false,
  });

export const stopTransfer = () => api(client.DELETE("/api/studio.zip/progress"));

/** An empty studio in the place of this one; what was here is kept among the backups. */
export const useBeginAnew = () => useWhole((_: null) => api(client.DELETE("/api/studio")));
