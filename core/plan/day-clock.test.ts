import { describe, expect, it } from "vitest";
import { instantAt } from "../units/time";
import { type Block, blockOfLift } from "./block";
import { dayTimes, minutesOf, roomClashes, staveMinutes, timeOf } from "./day-clock";

const one = blockOfLift({
  name: "One",
  startDate: "2026-03-02",
  variantId: "v",
  schoolId: "",
  recipe: {
    name: "Triples",
    aim: "speed",
    school: "House rules",
    basis: "percent",
    start: 50,
    steps: [{ id: "s1", sets: 8, reps: 3, add: 0 }],
    weeks: [
      { id: "w1", add: 0 },
      { id: "w2", add: 5 },
    ],
    convention: "bar",
    rest: { leastS: 45, mostS: 75 },
    cycle: [],
    lead: "percent",
    stop: { lossFrom: "best" },
  },
});
const at = (startAt: string | undefined, lengthMin?: number): Block => ({
  ...one,
  days: {
    d1: {
      name: "Day 1",
      offset: 0,
      ...(startAt === undefined ? {} : { startAt }),
      ...(lengthMin === undefined ? {} : { lengthMin }),
    },
  },
});

describe("a block on the clock", () => {
  it("reads and writes times of the day", () => {
    expect(minutesOf("17:30")).toBe(1050);
    for (const bad of ["24:00", "7:30", "17:60", "", undefined])
      expect(minutesOf(bad)).toBeUndefined();
    expect(timeOf(1050)).toBe("17:30");
    expect(timeOf(24 * 60 + 5)).toBe("00:05");
  });

  it("has a day in each of its weeks, as long as it was given or as its stave is", () => {
    const stave = staveMinutes(one, "d1", 1, {});
    expect(stave).toBeGreaterThan(15);
    expect(dayTimes(at("17:30", 45))).toEqual([
      { dayId: "d1", name: "Day 1", week: 1, date: "2026-03-02", startMin: 1050, endMin: 1095 },
      { dayId: "d1", name: "Day 1", week: 2, date: "2026-03-09", startMin: 1050, endMin: 1095 },
    ]);
    expect(dayTimes(at("17:30"))[0]?.endMin).toBe(1050 + stave);
    expect(dayTimes(at(undefined, 45))).toEqual([]);
    expect(dayTimes({ ...at("17:30"), slots: {} })).toEqual([]);
  });

  it("finds who wants the room at the same time: once a pair of days, and not where one follows", () => {
    const others = (startAt: string) =>
      dayTimes(at(startAt, 60)).map((other) => ({ ...other, planId: "p", plan: "Judo" }));
    const own = dayTimes(at("17:30", 45));
    expect(roomClashes(own, others("18:00"))).toHaveLength(1);
    expect(roomClashes(own, others("18:15"))).toEqual([]);
    expect(roomClashes(own, others("16:30"))).toEqual([]);
    expect(roomClashes(own, others("16:31"))).toHaveLength(1);
  });

  it("is a moment in its room's zone, on both sides of a clock change", () => {
    const words = (date: "2026-03-28" | "2026-03-29" | "2026-10-25", minutes: number) =>
      instantAt("Europe/Oslo", date, minutes).toISOString();
    expect(words("2026-03-28", 1050)).toBe("2026-03-28T16:30:00.000Z");
    expect(words("2026-03-29", 1050)).toBe("2026-03-29T15:30:00.000Z");
    expect(words("2026-10-25", 1050)).toBe("2026-10-25T16:30:00.000Z");
    expect(instantAt("America/New_York", "2026-03-28", 60).toISOString()).toBe(
      "2026-03-28T05:00:00.000Z",
    );
  });
});
