export * from "./bench";
export { ApiError, api, messageOf } from "./client";
export { emptyFormula } from "./emptyFormula";
export * from "./queries";
export type * from "./types";
export { type Answered, useAnswer } from "./useAnswer";
