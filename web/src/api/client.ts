import createClient from "openapi-fetch";
import { inUnits } from "../lib/units";
import type { paths } from "./schema";

/** A refusal of the server, with its sentence and its facts. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly code: string,
    readonly details: Record<string, unknown>,
  ) {
    super(message);
  }
}

const OFFLINE = "The studio does not answer; is it still running? Nothing typed here is lost.";

async function reach(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ApiError(OFFLINE, 0, "offline", {});
  }
}

export const client = createClient<paths>({ baseUrl: "", fetch: reach });

/** Unwrap an answer, or throw the server's sentence. */
export async function api<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  throw refusal(error, response.status);
}

/** Send or fetch what is no JSON, a file or a photo; throws the server's sentence. */
export async function askRaw(path: string, how?: RequestInit): Promise<Response> {
  const response = await reach(new Request(path, how));
  if (response.ok) return response;
  throw refusal(await response.json().catch(() => null), response.status);
}

function refusal(said: unknown, status: number): ApiError {
  const body = (said ?? {}) as { message?: string; code?: string; details?: Record<string, unknown> };
  return new ApiError(body.message ?? OFFLINE, status, body.code ?? "error", body.details ?? {});
}

export function messageOf(error: unknown): string {
  if (error instanceof Error && error.message) return inUnits(error.message);
  return "Something went wrong; please try again.";
}
