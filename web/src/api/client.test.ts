import { afterEach, describe, expect, it, vi } from "vitest";
import { ApiError, askRaw } from "./client";

afterEach(() => vi.unstubAllGlobals());
const answering = (answer: () => Promise<Response>) => vi.stubGlobal("fetch", answer);
const asked = () => askRaw("http://studio.test/api/studio.zip").catch((error: unknown) => error as ApiError);

describe("asking for a file", () => {
  it("gives what the studio sends", async () => {
    answering(async () => new Response("zip"));
    expect(await (await askRaw("http://studio.test/api/studio.zip")).text()).toBe("zip");
  });
  it("says a refusal in the studio's own sentence, with its code and facts", async () => {
    const said = { code: "conflict", message: "An export is running.", details: { reason: "busy" } };
    answering(async () => new Response(JSON.stringify(said), { status: 409 }));
    expect(await asked()).toMatchObject({ status: 409, ...said });
  });
  it("says that the studio does not answer, in no browser's words", async () => {
    answering(() => Promise.reject(new TypeError("Failed to fetch")));
    const error = await asked();
    expect(error).toBeInstanceOf(ApiError);
    expect(error).toMatchObject({ code: "offline", message: expect.stringContaining("does not answer") });
  });
  it("has a sentence where what stands between answers with a page", async () => {
    answering(async () => new Response("<html>Bad gateway</html>", { status: 502 }));
    expect(await asked()).toMatchObject({ status: 502, message: expect.stringContaining("does not answer") });
  });
});
