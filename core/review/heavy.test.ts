import { describe, expect, it } from "vitest";
import { rampKey } from "../floor/entries";
import { RACK, SLOT, TestDevice, testSession } from "../floor/fixtures/session";
import { reduceFloor } from "../floor/state";
import { heavyBests } from "./heavy";

const session = testSession(["ann", "bo"], 2, { top: { reps: 3 }, variantId: "bench" });
const device = new TestDevice();
const at = (athleteId: string, setKey: string) => ({
  athleteId,
  slotId: SLOT,
  stationId: RACK,
  setKey,
});
type Body = Parameters<TestDevice["entry"]>[0];
const set = (
  athleteId: string,
  setKey: string,
  loadKg: number,
  outcomes: Array<"counted" | "failed">,
): Body[] => [
  ...outcomes.map(
    (outcome, i): Body => ({
      kind: "rep",
      ...at(athleteId, setKey),
      rep: i + 1,
      outcome,
      source: "eye",
    }),
  ),
  { kind: "set-done", ...at(athleteId, setKey), loadKg, endedBy: "hand", cut: false },
];
const bests = (...bodies: Body[]) =>
  heavyBests(
    session,
    reduceFloor(
      session,
      bodies.map((body, i) => ({ ...device.entry(body), seq: i + 1 })),
    ),
  );

describe("the best set of a heavy slot", () => {
  it("is the heaviest whose reps were all counted, on the way up too", () => {
    const found = bests(
      ...set("ann", rampKey(1), 70, ["counted"]),
      ...set("ann", "w1.a.1", 60, ["counted", "counted", "counted"]),
    );
    expect(found).toMatchObject([
      { athleteId: "ann", loadKg: 70, reps: 1, recordKg: 70, kind: "tested", setKey: "ramp.1" },
    ]);
  });

  it("of a measured single has the speed, of what the eye saw or of more reps has none", () => {
    const measured = (source: "sensor" | "video", reps: number): Body[] => [
      ...Array.from(
        { length: reps },
        (_, i): Body => ({
          kind: "rep",
          ...at("ann", "w1.a.1"),
          rep: i + 1,
          mcvMps: 0.31,
          outcome: "counted",
          source,
        }),
      ),
      { kind: "set-done", ...at("ann", "w1.a.1"), loadKg: 90, endedBy: "hand", cut: false },
    ];
    expect(bests(...measured("sensor", 1))[0]?.singleMps).toBe(0.31);
    expect(bests(...measured("video", 1))[0]?.singleMps).toBeUndefined();
    expect(bests(...measured("sensor", 2))[0]?.singleMps).toBeUndefined();
    expect(bests(...set("bo", "w1.a.1", 90, ["counted"]))[0]?.singleMps).toBeUndefined();
  });

  it("of more reps is an estimate by the median of the formulas", () => {
    const [best] = bests(...set("bo", "w1.a.1", 100, ["counted", "counted", "counted"]));
    expect(best).toMatchObject({ loadKg: 100, reps: 3, kind: "rep-max-estimate" });
    expect(best?.recordKg).toBeGreaterThan(105);
    expect(best?.recordKg).toBeLessThan(115);
  });

  it("is none where a rep was lost, and in a slot that is not heavy", () => {
    expect(bests(...set("ann", "w1.a.1", 90, ["counted", "failed"]))).toEqual([]);
    const plain = testSession(["ann"], 2, { variantId: "bench" });
    const entries = set("ann", "w1.a.1", 60, ["counted"]).map((body, i) => ({
      ...device.entry(body),
      seq: i + 1,
    }));
    expect(heavyBests(plain, reduceFloor(plain, entries))).toEqual([]);
  });
});
