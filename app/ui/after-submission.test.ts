import { afterEach, describe, expect, it, vi } from "vitest";
import { afterSubmission, duringSubmission, tellFormUnderWay } from "./after-submission";

afterEach(() => {
  tellFormUnderWay(false);
  vi.useRealTimers();
});

describe("an address that changes while a form is on its way", () => {
  it("changes at once where none is", () => {
    const act = vi.fn();
    afterSubmission(act);
    expect(act).toHaveBeenCalledOnce();
  });

  it("waits for the answer and for what is read after it, and only the last is done", async () => {
    vi.useFakeTimers();
    const [first, last] = [vi.fn(), vi.fn()];
    let answer: (value: number) => void = () => {};
    const form = duringSubmission(() => new Promise<number>((done) => (answer = done)));
    tellFormUnderWay(true);
    afterSubmission(first);
    afterSubmission(last);
    answer(7);
    expect(await form).toBe(7);
    await vi.advanceTimersByTimeAsync(1);
    expect(last).not.toHaveBeenCalled();
    tellFormUnderWay(false);
    expect(last).toHaveBeenCalledOnce();
    expect(first).not.toHaveBeenCalled();
  });

  it("waits for no form that hangs", async () => {
    vi.useFakeTimers();
    const act = vi.fn();
    let end: () => void = () => {};
    const form = duringSubmission(() => new Promise<void>((done) => (end = done)));
    afterSubmission(act);
    await vi.advanceTimersByTimeAsync(4900);
    expect(act).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(200);
    expect(act).toHaveBeenCalledOnce();
    end();
    await form;
  });

  it("a form that throws holds nothing", async () => {
    await expect(duringSubmission(() => Promise.reject(new Error("away")))).rejects.toThrow("away");
    const act = vi.fn();
    afterSubmission(act);
    expect(act).toHaveBeenCalledOnce();
  });
});
