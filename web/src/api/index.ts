export * from "./bench";
export { ApiError, api, messageOf } from "./client";
export * from "./queries";
export type * from "./types";
