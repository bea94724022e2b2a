import { describe, expect, it } from "vitest";
import { addDays } from "../units/time";
import { equalSpeed } from "./equal-speed";
import { equalSpeedWorking } from "./equal-speed-words";

const slope = { slopeMpsPerKg: -0.01, sdMpsPerKg: 0.002 };
const days = (n: number, rise: number) =>
  Array.from({ length: n }, (_, i) => ({
    date: addDays("2026-01-05", 7 * i),
    loadKg: 60,
    before: 0,
    bestMps: 0.8 + rise * i,
  }));

describe("the working of a speed at equal load", () => {
  it("says the same chance and change that the estimate has", () => {
    const speed = equalSpeed(days(12, 0.02), { slope });
    if (!speed.ok) throw new Error("no estimate");
    const lines = equalSpeedWorking(speed).lines.map((line) => line.value);
    expect(lines).toContain(`${Math.round(100 * speed.chanceRises)} %`);
    expect(lines).toContain("12");
    expect(lines.join()).not.toContain("days more");
  });

  it("says how many days would settle what is not", () => {
    const speed = equalSpeed(days(3, 0), { slope });
    if (!speed.ok) throw new Error("no estimate");
    const lines = equalSpeedWorking(speed).lines;
    expect(lines.at(-1)).toMatchObject({
      label: "To settle it",
      value: `about ${speed.sessionsMore} days more`,
    });
  });
});
