import { describe, expect, it } from "vitest";
import type { SetState } from "../floor/set-state";
import { readIn } from "../units/written";
import { setSum, setWorking } from "./set-working";

const set = (over: Partial<SetState>): SetState =>
  ({
    prescription: { key: "k", number: 2 },
    loadKg: 60,
    reps: [
      { number: 1, outcome: "counted", velocityMps: 0.8, source: "sensor" },
      { number: 2, outcome: "counted", velocityMps: 0.84, source: "sensor" },
      { number: 3, outcome: "failed", velocityMps: 0.9, source: "sensor" },
      { number: 4, outcome: "counted", velocityMps: undefined, source: "eye" },
    ],
    target: { lowMps: 0.85, highMps: 0.95, metric: "MCV", source: "profile" },
    verdict: { standing: "under" },
    restTaken: { seconds: 95, measured: false },
    endedBy: "hand",
    faults: [],
    cut: false,
    ...over,
  }) as unknown as SetState;

describe("what a set came to", () => {
  it("is the best of the reps that counted and were measured", () => {
    const result = setSum(set({}));
    expect(result).toMatchObject({ bestMps: 0.84, standing: "under" });
    expect(result.reps.map((rep) => rep.number)).toEqual([1, 2]);
    const answer = setWorking(set({}), "Maren").lines.find((line) => line.emphasis === "answer");
    expect(answer).toMatchObject({ label: "Best", value: "0.84 m/s, under" });
  });

  it("says of every rep what was seen, and how the rest was taken", () => {
    const working = setWorking(set({}), "Maren");
    expect(working.title).toBe("Maren, set 2");
    expect(readIn(working.lines[0]?.value ?? "", "lb")).toBe("132.3 lb");
    expect(working.lines.map((line) => line.label)).toContain("Rep 3, failed");
    expect(working.lines.find((line) => line.label === "Rest before it")).toMatchObject({
      value: "1:35",
      detail: "estimated: two clocks",
    });
  });

  it("is not measured where nothing was", () => {
    const none = set({ reps: [], verdict: undefined, restTaken: undefined });
    expect(setSum(none)).toMatchObject({ bestMps: undefined, standing: "not-measured" });
    expect(setWorking(none, "M").lines.map((line) => line.label)).toEqual([
      "Load",
      "Wanted",
      "Best",
      "Ended by",
    ]);
  });
});

it("asks the same of a rep on the box as the rack did: whether it was dropped", () => {
  const reps = [
    { number: 1, outcome: "counted", velocityMps: 0.8, source: "sensor", contactMps: 0.6 },
  ] as unknown as SetState["reps"];
  const said = (mostContactMps: number | undefined) =>
    setWorking(set({ reps }), "Maren", mostContactMps).lines.find((line) => line.label === "Rep 1")
      ?.detail;
  expect(said(0.5)).toContain("dropped?");
  expect(said(undefined)).not.toContain("dropped?");
});
