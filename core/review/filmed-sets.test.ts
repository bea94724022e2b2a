import { describe, expect, it } from "vitest";
import { stored, TestDevice, testSession } from "../floor/fixtures/session";
import { reduceFloor } from "../floor/state";
import type { LocalDate } from "../units/time";
import { filmedWords } from "../units/velocity";
import { equalSpeed } from "./equal-speed";
import { equalSpeedWorking } from "./equal-speed-words";
import { pointsOf, sumSession } from "./session-sum";
import { measuredSets } from "./squad-wave";

type Source = "sensor" | "video" | "eye";

/** A day of one athlete: three sets, each of one source. */
function dayOf(date: LocalDate, sources: readonly Source[], mps = 0.8) {
  const tablet = new TestDevice();
  const entries = sources.flatMap((source, i) =>
    tablet
      .set("ann", i + 1, [mps, mps - 0.01, mps - 0.02])
      .map((entry) =>
        entry.body.kind === "rep" ? { ...entry, body: { ...entry.body, source } } : entry,
      ),
  );
  const session = testSession();
  const { lines } = sumSession(session, reduceFloor(session, stored(entries)));
  const line = lines.find((one) => one.kind === "lift" && one.athleteId === "ann");
  if (line?.kind !== "lift") throw new Error("Ann lifted.");
  return { date, points: pointsOf(line.sum) };
}

describe("sets from films", () => {
  const mixed = dayOf("2026-01-05", ["sensor", "video", "eye"]);
  const filmed = [
    dayOf("2026-01-12", ["video", "video"], 0.82),
    dayOf("2026-01-19", ["video", "video"], 0.84),
  ];

  it("stand apart from a device's, and what was only seen in neither", () => {
    expect(mixed.points.sets.map(([, before]) => before)).toEqual([0]);
    expect(mixed.points.filmed?.map(([, before]) => before)).toEqual([1]);
    expect(dayOf("2026-01-05", ["sensor"]).points.filmed).toBeUndefined();
  });

  it("make no line with a device's", () => {
    expect(measuredSets([mixed, ...filmed])).toHaveLength(1);
  });

  it("are a line of their own where no device measured, and it says so", () => {
    const sets = measuredSets(filmed);
    expect(sets).toHaveLength(4);
    const speed = equalSpeed(sets, { slope: { slopeMpsPerKg: -0.01, sdMpsPerKg: 0.002 } });
    if (!speed.ok) throw new Error(speed.reason);
    expect(filmedWords(speed)).toBe(" · from films");
    expect(equalSpeedWorking(speed).lines[0]?.label).toBe("Days with filmed sets");
    const measured = equalSpeed(measuredSets([mixed, dayOf("2026-01-12", ["sensor"])]), {
      slope: { slopeMpsPerKg: -0.01, sdMpsPerKg: 0.002 },
    });
    if (!measured.ok) throw new Error(measured.reason);
    expect(filmedWords(measured)).toBe("");
  });
});
