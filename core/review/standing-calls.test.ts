import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { addDays, type LocalDate } from "../units/time";
import { readIn } from "../units/written";
import type { LiftPoints } from "./session-sum";
import {
  deloadCalls,
  heavyCalls,
  type StationDay,
  speedWeightCalls,
  staleCalls,
  stationCalls,
} from "./standing-calls";

const TODAY = "2026-03-10" as LocalDate;
const who = { athleteId: "a", variantId: "v", liftName: "Back squat" };
const heavy = (date: string) => ({
  date: date as LocalDate,
  points: { heavy: true } as LiftPoints,
});

describe("calls that no wave asks", () => {
  it("asks for a test of a stale max and of an old profile, each by its own day", () => {
    const calls = staleCalls({
      ...who,
      max: { kg: 120, ageDays: 71, stale: true, date: "2025-12-29" as LocalDate },
      profile: { testedOn: "2026-01-01" as LocalDate, ageDays: 68 },
      profileDays: 56,
    });
    expect(calls.map((call) => call.kind)).toEqual(["test", "profile"]);
    expect(readIn(calls[0]?.proposal ?? "", "lb")).toBe(
      "Test the back squat: the max of 264.6 lb is 71 days old",
    );
    const fresh = staleCalls({
      ...who,
      max: { kg: 120, ageDays: 56, stale: false, date: TODAY },
      profile: { testedOn: TODAY, ageDays: 56 },
      profileDays: 56,
    });
    expect(fresh).toEqual([]);
  });

  it("names heavy days that lie too close: for the very strong every second week", () => {
    const asked = { ...who, days: [heavy("2026-02-27"), heavy("2026-03-06")], today: TODAY };
    expect(heavyCalls({ ...asked, bodyKg: 80, maxKg: 150 })).toEqual([]);
    const [strong] = heavyCalls({ ...asked, bodyKg: 80, maxKg: 200 });
    expect(readIn(strong?.proposal ?? "", "kg")).toBe(
      "Heavy back squat again after 7 days: the next not before 2026-03-20",
    );
    const close = [heavy("2026-03-05"), heavy("2026-03-07")];
    expect(heavyCalls({ ...asked, days: close, bodyKg: undefined, maxKg: undefined })).toHaveLength(
      1,
    );
    // Long ago is no matter of today.
    const old = [heavy("2026-01-05"), heavy("2026-01-06")];
    expect(heavyCalls({ ...asked, days: old, bodyKg: 80, maxKg: 200 })).toEqual([]);
  });

  it("asks for the next speed weight when one was held as long as the team holds it", () => {
    const asked = { ...who, holdWeeks: 3, today: TODAY };
    const found = { kg: 60, date: addDays(TODAY, -21) };
    expect(speedWeightCalls({ ...asked, found })).toHaveLength(1);
    expect(speedWeightCalls({ ...asked, found: { ...found, date: addDays(TODAY, -20) } })).toEqual(
      [],
    );
    expect(speedWeightCalls({ ...asked, found: undefined })).toEqual([]);
  });

  it("proposes a deload where the whole squad slowed and the plan has weeks left", () => {
    const asked = { squadId: "s", planId: "p", slotId: "main", run: 1, week: 4 };
    const mean = { athletes: 8, estimate: -0.04, low: -0.07, high: -0.01, seMps: 0.015 };
    expect(deloadCalls({ ...asked, waveMean: mean })[0]?.action).toEqual({
      type: "week",
      planId: "p",
      mark: "deload",
      week: 4,
    });
    expect(deloadCalls({ ...asked, waveMean: { ...mean, high: 0.01 } })).toEqual([]);
    expect(deloadCalls({ ...asked, week: undefined, waveMean: mean })).toEqual([]);
  });

  it("finds a sensor that drifts in nine of ten, and seldom accuses a true one", () => {
    const called = (drift: number) => {
      let hits = 0;
      for (let seed = 1; seed <= 300; seed++) {
        const random = seededRandom(seed);
        const days = Array.from(
          { length: 48 },
          (_, i): StationDay => ({
            stationId: `r${i % 4}`,
            stationName: `rack ${1 + (i % 4)}`,
            date: TODAY,
            offMps: (i % 4 === 0 ? drift : 0) + 0.05 * random.normal(),
          }),
        );
        hits += stationCalls(days, "s").filter((call) => call.about.startsWith("sensor/r0")).length;
      }
      return hits / 300;
    };
    expect(called(0)).toBeLessThan(0.03);
    expect(called(0.08)).toBeGreaterThan(0.9);
  });
});
