// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { ApiError, type FormulaAnswer } from "../../api";
import { emptyFormula } from "../../testing/emptyFormula";
import { type Draft, toDraft } from "./draft";
import { unsavedWork, useAutosave } from "./useAutosave";

const put = vi.fn();
const get = vi.fn();
vi.mock("../../api", async (original) => ({
  ...(await original<typeof import("../../api")>()),
  putFormula: (...sent: unknown[]) => put(...sent),
  getFormula: (id: number) => get(id),
}));

const named = (name: string): Draft => ({ ...toDraft(emptyFormula()), name });
const kept = (revision: number) => ({ revision }) as FormulaAnswer;
const pause = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const begin = () =>
  renderHook(({ draft }) => useAutosave(7, 3, draft, false), { initialProps: { draft: named("as it was") } });

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  put.mockReset();
});
afterEach(() => vi.useRealTimers());

describe("what is typed", () => {
  it("is sent once, a moment after the last key, on the revision it was typed on", async () => {
    put.mockResolvedValue(kept(4));
    const hook = begin();
    for (const name of ["a", "ab", "abc"]) hook.rerender({ draft: named(name) });
    await pause(1000);
    expect(put).toHaveBeenCalledTimes(1);
    expect(put.mock.calls[0]?.slice(0, 2)).toEqual([7, 3]);
    expect(put.mock.calls[0]?.[2].name).toBe("abc");
    expect(hook.result.current.state).toEqual({ kind: "saved" });
    expect(hook.result.current.revision).toBe(4);
  });
  it("is kept in the browser until the studio has it, and sent again", async () => {
    put.mockRejectedValueOnce(new TypeError("no network")).mockResolvedValue(kept(4));
    const hook = begin();
    hook.rerender({ draft: named("kept here") });
    await pause(400);
    expect(hook.result.current.state.kind).toBe("offline");
    expect(unsavedWork(7)?.formula.name).toBe("kept here");
    await pause(3000);
    expect(hook.result.current.state.kind).toBe("saved");
    expect(unsavedWork(7)).toBeNull();
  });
  it("never goes over another tab's work until somebody has chosen", async () => {
    const theirs = { ...kept(9), formula: emptyFormula("theirs") };
    put.mockRejectedValueOnce(new ApiError("changed", 409, "conflict", {})).mockResolvedValue(kept(10));
    get.mockResolvedValue(theirs);
    const hook = begin();
    hook.rerender({ draft: named("mine") });
    await pause(400);
    expect(hook.result.current.state).toEqual({ kind: "conflict", theirs });
    hook.rerender({ draft: named("mine, and more") });
    await pause(5000);
    expect(put).toHaveBeenCalledTimes(1);
    act(() => hook.result.current.settle(theirs, true));
    await pause(400);
    expect(put.mock.calls[1]?.[1]).toBe(9);
    expect(hook.result.current.state.kind).toBe("saved");
  });
});
