import { describe, expect, it } from "vitest";
import type { LocalDate } from "../units/time";
import { athleteWeeks, type DayWork, mondayOf } from "./athlete-weeks";
import type { ExerciseSum, LiftPoints } from "./session-sum";

const points = (over: Partial<LiftPoints>): LiftPoints => ({
  metric: "MCV",
  slopeMpsPerKg: undefined,
  stationId: undefined,
  sets: [],
  faults: [],
  setsPlanned: 9,
  setsDone: 8,
  cut: 1,
  reps: 24,
  tonnageKg: 1200,
  topKg: 60,
  topPercent: 55,
  heavy: false,
  lift: "bench",
  hardSets: 0,
  speedSets: 8,
  depth: null,
  ...over,
});
const exercise = (over: Partial<ExerciseSum>): ExerciseSum => ({
  athleteId: "a",
  counts: "reps",
  setsPlanned: 3,
  setsDone: 3,
  repsPlanned: 15,
  repsDone: 12,
  sides: undefined,
  tonnageKg: undefined,
  best: undefined,
  sideGap: undefined,
  rung: undefined,
  ...over,
});
const day = (date: string, over: Partial<DayWork>): DayWork => ({
  date: date as LocalDate,
  lifts: [],
  exercises: [],
  pairings: [],
  ...over,
});

describe("an athlete's weeks", () => {
  it("begin on Mondays, before and after the day that Mondays are counted from", () => {
    expect(mondayOf("2026-03-10" as LocalDate)).toBe("2026-03-09");
    expect(mondayOf("2026-03-09" as LocalDate)).toBe("2026-03-09");
    expect(mondayOf("2026-03-15" as LocalDate)).toBe("2026-03-09");
    expect(mondayOf("2023-12-31" as LocalDate)).toBe("2023-12-25");
  });

  it("sum lifts, doses, depth, sides and sets per muscle", () => {
    const weeks = athleteWeeks([
      day("2026-03-09", {
        lifts: [{ points: points({}), muscles: ["chest", "triceps"] }],
        exercises: [
          { muscles: ["quadriceps"], sum: exercise({ counts: "contacts" }) },
          {
            muscles: ["abdominals"],
            sum: exercise({ sides: { left: 10, right: 8 } }),
          },
          {
            muscles: ["upper back"],
            sum: exercise({ tonnageKg: 900 }),
          },
        ],
        pairings: [
          {
            sum: {
              athleteId: "a",
              rounds: 3,
              roundsDone: 3,
              best: [],
              outputs: [],
              sides: [{ item: "Throw", left: 3, right: 4 }],
            },
          },
        ],
      }),
      day("2026-03-12", {
        lifts: [
          {
            points: points({
              lift: "squat",
              depth: "full",
              heavy: true,
              hardSets: 3,
              speedSets: 5,
            }),
            muscles: ["quadriceps"],
          },
          {
            points: points({ lift: "box-squat", depth: "high-box", faults: [["Knees in", 2, 60]] }),
            muscles: ["glutes"],
          },
        ],
      }),
      day("2026-03-16", { lifts: [{ points: points({}), muscles: ["chest"] }] }),
    ]);
    expect(weeks.map((week) => week.from)).toEqual(["2026-03-09", "2026-03-16"]);
    const [first] = weeks;
    expect(first).toMatchObject({
      tonnageKg: 3 * 1200 + 900,
      sets: { planned: 36, done: 33 },
      heavyDays: 1,
      cut: 3,
      faults: 2,
      contacts: { planned: 15, done: 12 },
      metres: { planned: 0, done: 0 },
      depth: { full: 8, high: 8 },
      sides: { left: 13, right: 12 },
    });
    expect(first?.muscles.find((one) => one.muscle === "upper back")).toEqual({
      muscle: "upper back",
      hard: 3,
      speed: 0,
    });
    expect(first?.muscles.find((one) => one.muscle === "quadriceps")).toEqual({
      muscle: "quadriceps",
      hard: 3,
      speed: 8,
    });
    expect(athleteWeeks([])).toEqual([]);
  });
});
