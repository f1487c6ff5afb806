export * from "./bench";
export { ApiError, api, messageOf } from "./client";
export { emptyFormula } from "./emptyFormula";
export * from "./journal";
export * from "./queries";
export * from "./rack";
export type * from "./types";
export { type Answered, useAnswer } from "./useAnswer";
export { type Devices, useAwake, useStream } from "./useStream";
