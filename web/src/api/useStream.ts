import { useEffect, useRef, useState } from "react";
import type { DeviceReading } from "./types";

export interface Devices {
  scale: DeviceReading | null;
  thermometer: DeviceReading | null;
  hygrometer: DeviceReading | null;
  /** Whether readings come in at all. */
  live: boolean;
}

const NOTHING: Devices = { scale: null, thermometer: null, hygrometer: null, live: false };
const SILENT_MS = 2500;

interface News {
  readings: DeviceReading[];
  seq: number | null;
}

/** The devices' readings as they come; `onMoved` when another browser has moved the batch on. */
export function useStream(batchId: number | null, seq: number, onMoved: () => void): Devices {
  const [devices, setDevices] = useState<Devices>(NOTHING);
  const known = useRef(seq);
  known.current = Math.max(known.current, seq);
  const moved = useRef(onMoved);
  moved.current = onMoved;
  useEffect(() => {
    let silent = 0;
    const source = new EventSource(`/api/devices/stream${batchId === null ? "" : `?batch=${batchId}`}`);
    const quiet = () => setDevices((before) => ({ ...before, live: false }));
    source.onmessage = (message: MessageEvent<string>) => {
      clearTimeout(silent);
      silent = window.setTimeout(quiet, SILENT_MS);
      const news = JSON.parse(message.data) as News;
      const of = (name: string) => news.readings.find((reading) => reading.device === name) ?? null;
      setDevices({
        scale: of("scale"),
        thermometer: of("thermometer"),
        hygrometer: of("hygrometer"),
        live: true,
      });
      if (news.seq !== null && news.seq > known.current) {
        known.current = news.seq;
        moved.current();
      }
    };
    source.onerror = quiet;
    return () => {
      clearTimeout(silent);
      source.close();
    };
  }, [batchId]);
  return devices;
}

/** Keeps the tablet awake while the page is seen. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        lock = await navigator.wakeLock?.request("screen");
      } catch {
        lock = undefined; // a browser without it, or one low on power, dims as it likes
      }
    };
    void ask();
    const again = () => void ask();
    document.addEventListener("visibilitychange", again);
    return () => {
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
