import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { readIn } from "../units/written";
import type { Eye } from "./eye";
import { type AfterSetInput, afterSet, type DoneSet } from "./set";

const gear = testGear([20, 10, 5, 2.5, 1.25]);
const seen = (eye: Eye | undefined, number = 1, velocities: number[] = []): DoneSet => ({
  key: String(number),
  number,
  loadKg: 60,
  velocities,
  target: { lowMps: 0.78, highMps: 0.92 },
  eye,
});
const judged = (sets: DoneSet[], over: Partial<AfterSetInput> = {}) =>
  afterSet({
    sets,
    nextLoadKg: 60,
    gear,
    line: undefined,
    velocityLed: false,
    restLengthened: false,
    loadCall: "none",
    ...over,
  });

describe("the rules by the coach's eye", () => {
  it("say that they are coarser, and need no wanted speed", () => {
    expect(judged([seen("on")])).toEqual({
      standing: "on",
      text: "By eye: on speed. Coarser than a measured speed.",
      call: undefined,
    });
    expect(judged([{ ...seen("slow"), target: undefined }]).standing).toBe("under");
    expect(judged([seen(undefined)]).standing).toBe("not-measured");
  });

  it("a measured speed goes before the eye", () => {
    expect(judged([seen("slow", 1, [0.85])]).standing).toBe("on");
  });

  it("slow at once: one loadable step lighter, once", () => {
    const { call } = judged([seen("slow")]);
    expect(call).toMatchObject({
      kind: "lighten",
      action: { type: "load", deltaKg: -2.5, toKg: 57.5 },
      velocities: [],
      target: undefined,
    });
    expect(call && readIn(call.proposal, "kg")).toBe("Lighten to 57.5 kg");
    expect(judged([seen("slow"), seen("slow", 2)], { loadCall: "changed" }).call?.kind).toBe(
      "end-exercise",
    );
    expect(judged([seen("slow"), seen("slow", 2)], { loadCall: "declined" }).call).toBeUndefined();
  });

  it("slow after a set that was on speed is fading: rest first, then the end", () => {
    const sets = [seen("on"), seen("slow", 2)];
    expect(judged(sets).call).toMatchObject({ kind: "more-rest", action: { addS: 15 } });
    expect(judged(sets, { restLengthened: true }).call?.kind).toBe("end-exercise");
    expect(judged([seen(undefined, 1, [0.8]), seen("slow", 2)]).call?.kind).toBe("more-rest");
  });

  it("fast raises only where speed leads, by a loadable step", () => {
    expect(judged([seen("fast")]).call).toBeUndefined();
    expect(judged([seen("fast")], { velocityLed: true }).call).toMatchObject({
      kind: "add-load",
      action: { deltaKg: 2.5 },
    });
    expect(
      judged([seen("fast")], { velocityLed: true, loadCall: "declined" }).call,
    ).toBeUndefined();
  });

  it("the last set calls for nothing", () => {
    expect(judged([seen("slow")], { nextLoadKg: undefined }).call).toBeUndefined();
  });
});
