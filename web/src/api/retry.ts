import { ApiError } from "./client";

const FIRST_RETRY_MS = 3_000;
const LONGEST_RETRY_MS = 60_000;
const TOO_MANY = 429;
const SERVER_ERROR = 500;

/** No answer, too many questions, a studio in trouble: what was told waits and is told again. */
export const isPassing = (error: unknown) =>
  !(error instanceof ApiError) ||
  error.code === "offline" ||
  error.status === TOO_MANY ||
  error.status >= SERVER_ERROR;

/** How long to wait after so many failures in a row: slower each time. */
export const retryMs = (failed: number) => Math.min(LONGEST_RETRY_MS, FIRST_RETRY_MS * 2 ** (failed - 1));
