import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, client } from "./client";

/** Requests of paired devices. */
const DEVICES = ["paired-devices"] as const;

export type DeviceRole = "look" | "bench" | "all";

export const usePairedDevices = () =>
  useQuery({
    queryKey: DEVICES,
    queryFn: () => api(client.GET("/api/paired-devices")),
    staleTime: 0,
    refetchInterval: 5_000,
  });

export const usePairing = () =>
  useMutation({ mutationFn: (role: DeviceRole) => api(client.POST("/api/pairing", { body: { role } })) });

export const useRevoke = () => {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      api(client.DELETE("/api/paired-devices/{device_id}", { params: { path: { device_id: id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: DEVICES }),
  });
};
