import { describe, expect, it } from "vitest";
import { rampKey } from "../floor/entries";
import { RACK, SLOT, TestDevice, testSession } from "../floor/fixtures/session";
import { reduceFloor } from "../floor/state";
import { dayPoint } from "./day-points";

const session = testSession(["ann", "bo"], 2, { variantId: "bench" });
const device = new TestDevice();
type Body = Parameters<TestDevice["entry"]>[0];
type Rep = Extract<Body, { kind: "rep" }>;

function set(
  athleteId: string,
  n: number,
  loadKg: number,
  speeds: number[],
  more: Partial<Rep> = {},
) {
  const at = { athleteId, slotId: SLOT, stationId: RACK, setKey: rampKey(n) };
  return [
    ...speeds.map(
      (mcvMps, i): Body => ({
        kind: "rep",
        ...at,
        rep: i + 1,
        mcvMps,
        outcome: "counted",
        source: "typed",
        ...more,
      }),
    ),
    { kind: "set-done", ...at, loadKg, endedBy: "hand", cut: false } as Body,
  ];
}

/** The example of docs/sources.md: profile and day with their known shift. */
const TEST = {
  metric: "MCV" as const,
  reps: [
    [40, 1.2],
    [40, 1.21],
    [60, 0.99],
    [60, 0.97],
    [80, 0.78],
    [80, 0.75],
    [100, 0.55],
    [100, 0.53],
  ].map(([loadKg = 0, velocityMps = 0]) => ({ loadKg, velocityMps })),
};
const DAY = [...set("ann", 1, 40, [1.15, 1.16, 1.12]), ...set("ann", 2, 60, [0.95, 0.92, 0.92])];

const pointOf = (
  bodies: Body[],
  over: { variantId?: string; metric?: "MCV" | "MPV"; source?: string } = {},
) =>
  dayPoint({
    floor: reduceFloor(
      session,
      bodies.map((body, i) => ({ ...device.entry(body), seq: i + 1 })),
    ),
    sessionId: "s",
    date: "2026-03-10",
    athleteId: "ann",
    variantId: over.variantId ?? "bench",
    test: { ...TEST, metric: over.metric ?? "MCV", source: over.source ?? "typed" },
  });

describe("a day of training beside a profile test", () => {
  it("has the fastest rep of each load, and the shift that its reps show", () => {
    const point = pointOf(DAY);
    expect(point?.loads).toEqual([
      { loadKg: 40, bestMps: 1.16, reps: 3 },
      { loadKg: 60, bestMps: 0.95, reps: 3 },
    ]);
    expect(point?.shift?.estimate).toBeCloseTo(-0.043828, 6);
    expect(point?.sources).toEqual(["typed"]);
    // Without the usual spread of days the reps alone say more.
    const { shiftMps = 0, readingSdMps = 0 } = point?.reading ?? {};
    const usual = 1 / 0.05 ** 2;
    const precision = 1 / readingSdMps ** 2;
    expect((precision * shiftMps) / (precision + usual)).toBeCloseTo(-0.043828, 6);
    expect(1 / Math.sqrt(precision + usual)).toBeCloseTo(0.015912, 6);
  });

  it("leaves out what is another's, of another lift or metric, lost, bounced, filmed or seen", () => {
    const shift = pointOf(DAY)?.shift?.estimate ?? 0;
    const beside = [
      ...set("bo", 1, 40, [0.5]),
      ...set("ann", 3, 60, [0.4], { outcome: "failed" }),
      ...set("ann", 4, 60, [0.4], { source: "video" }),
    ];
    expect(pointOf([...DAY, ...beside])?.shift?.estimate).toBeCloseTo(shift, 12);
    expect(pointOf(DAY, { variantId: "squat" })).toBeUndefined();
    expect(pointOf(DAY, { metric: "MPV" })).toBeUndefined();
  });

  it("stands beside a film's test where it is a film's, and a sensor's does not", () => {
    const filmed = DAY.map((one) =>
      one.kind === "rep" ? { ...one, source: "video" as const } : one,
    );
    expect(pointOf(filmed, { source: "video" })?.loads).toEqual(pointOf(DAY)?.loads);
    expect(pointOf(DAY, { source: "video" })).toBeUndefined();
  });

  it("tells no shift from loads that the test did not have", () => {
    const point = pointOf(set("ann", 1, 20, [1.6, 1.7]));
    expect(point?.loads).toEqual([{ loadKg: 20, bestMps: 1.7, reps: 2 }]);
    expect(point?.shift).toBeUndefined();
  });
});
