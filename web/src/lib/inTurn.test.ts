import { describe, expect, it } from "vitest";
import { inTurn } from "./inTurn";

/** A studio that answers when told to, and what it was told. */
function slowStudio() {
  const told: string[] = [];
  const answers: ((good: boolean) => void)[] = [];
  const send = (word: string) => {
    told.push(word);
    return new Promise<boolean>((resolve, reject) => {
      answers.push((good) => (good ? resolve(true) : reject(new Error("refused"))));
    });
  };
  const answer = async (good = true) => {
    answers.shift()?.(good);
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { told, answer, press: inTurn(send, (word) => (word.startsWith("+") ? null : word)) };
}

describe("presses in turn", () => {
  it("wait while one is on its way, and none is lost", async () => {
    const { told, answer, press } = slowStudio();
    const pressed = [press("+1"), press("+1"), press("done")];
    await Promise.resolve();
    expect(told).toEqual(["+1"]);
    for (let i = 0; i < 3; i++) await answer();
    expect(told).toEqual(["+1", "+1", "done"]);
    expect(await Promise.all(pressed)).toEqual([true, true, true]);
  });
  it("are one where the same is pressed again before its answer, and two after it", async () => {
    const { told, answer, press } = slowStudio();
    const first = press("done");
    expect(await press("done")).toBe(false);
    await Promise.resolve();
    await answer();
    expect(await first).toBe(true);
    void press("done");
    await new Promise((resolve) => setTimeout(resolve));
    expect(told).toEqual(["done", "done"]);
  });
  it("go on after one that was refused, and who pressed that hears of it", async () => {
    const { told, answer, press } = slowStudio();
    const refused = expect(press("mix")).rejects.toThrow("refused");
    const next = press("rest");
    await Promise.resolve();
    await answer(false);
    await refused;
    await answer();
    expect(await next).toBe(true);
    expect(told).toEqual(["mix", "rest"]);
  });
});
