import { describe, expect, it } from "vitest";
import { PATTERNS } from "../../core/exercise/exercise";
import { SPEED_CLASSES } from "../../core/exercise/speed-classes";
import { SHIPPED_EXERCISES } from "./exercises";

describe("the shipped exercises", () => {
  const byName = new Map(SHIPPED_EXERCISES.map((one) => [one.name, one]));

  it("are at least ninety, each under its own name, over every pattern and speed class", () => {
    expect(SHIPPED_EXERCISES.length).toBeGreaterThanOrEqual(90);
    expect(byName.size).toBe(SHIPPED_EXERCISES.length);
    expect(new Set(SHIPPED_EXERCISES.map((one) => one.pattern))).toEqual(new Set(PATTERNS));
    expect(new Set(SHIPPED_EXERCISES.map((one) => one.speedClass))).toEqual(new Set(SPEED_CLASSES));
  });

  it("name easier versions that exist, and never run in a circle", () => {
    for (const exercise of SHIPPED_EXERCISES) {
      const passed = [exercise.name];
      for (let at = exercise.easier; at !== undefined; at = byName.get(at)?.easier) {
        expect(byName.has(at), `${exercise.name} → ${at}`).toBe(true);
        expect(passed, exercise.name).not.toContain(at);
        passed.push(at);
      }
    }
  });

  it("work at least one muscle each, none of them twice", () => {
    for (const { name, main, assisting } of SHIPPED_EXERCISES) {
      expect(main.length, name).toBeGreaterThan(0);
      expect(new Set([...main, ...assisting]).size, name).toBe(main.length + assisting.length);
    }
  });
});
