import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { analyseProfile, type ProfileRep } from "../../core/profile/analysis";
import { forcePower } from "../../core/profile/power";
import { velocityThreshold } from "../../core/profile/threshold";
import { ProfileFigures } from "./profile-figures";
import { UnitProvider } from "./unit";
import { WorkingProvider } from "./working";

const reps = (points: number[][], forces: number[] = []): ProfileRep[] =>
  points.map(([loadKg, velocityMps], i) => ({
    id: String(i),
    loadKg: loadKg as number,
    velocityMps: velocityMps as number,
    ...(forces[i] === undefined ? {} : { forceN: forces[i], powerW: forces[i] }),
  }));
const TEST = [
  [40, 1.21],
  [60, 0.99],
  [80, 0.78],
  [100, 0.55],
  [110, 0.46],
];

function shown(
  list: ProfileRep[],
  unit: "kg" | "lb" = "kg",
  singles: number[] = [],
  band?: { lowPercent: number; highPercent: number },
): string {
  const threshold = velocityThreshold({
    lift: "squat",
    metric: "MCV",
    teamMps: undefined,
    singles: singles.map((velocityMps) => ({
      loadKg: 120,
      velocityMps,
      metric: "MCV" as const,
      date: "2026-03-01",
    })),
  });
  const result = analyseProfile({ reps: list, metric: "MCV", threshold });
  const power = result.ok
    ? forcePower({
        used: result.used,
        line: result.line,
        addedKg: 0,
        systemName: "bar only",
        oneRmKg: result.oneRepMax?.kg,
      })
    : undefined;
  const html = renderToStaticMarkup(
    <UnitProvider unit={unit}>
      <WorkingProvider>
        <ProfileFigures id="p" result={result} threshold={threshold} power={power} band={band} />
      </WorkingProvider>
    </UnitProvider>,
  );
  return html.replace(/<[^>]+>/g, " ").replace(/\s+/g, " ");
}

describe("the figures of a profile", () => {
  it("show the 1RM with both intervals, the window, the fit and the span", () => {
    const text = shown(reps(TEST));
    for (const part of [
      "124.1 kg",
      "line only 122 kg to 126.3 kg",
      "planning",
      "V0 1.64 m/s, L0 151.9 kg",
      "n 5, R² 1.000, SEE 0.008 m/s, span 70 kg",
      "0.30 m/s group mean",
      "Tends to read high: by 10 kg and more in squats.",
    ]) {
      expect(text).toContain(part);
    }
  });

  it("show default and own threshold beside each other once a single is confirmed", () => {
    expect(shown(reps(TEST), "kg", [0.24])).toContain("default 0.30, own 0.24 from 1");
  });

  it("read in pounds where the athlete does", () => {
    expect(shown(reps(TEST), "lb")).toContain("273.6 lb");
  });

  it("say the peak's share of the 1RM, the fall after it, and a group's band where one is set", () => {
    const text = shown(reps(TEST, [500, 700, 900, 850, 800]));
    // 80 of 124.1 kg; 800 of 900 N.
    expect(text).toMatch(/Peak force 80 kg at 0\.78 m\/s 900 N · 64 % of 1RM · then −11\.1 %/);
    expect(text).not.toContain("usual");
    expect(shown(reps(TEST), "kg", [], { lowPercent: 45, highPercent: 60 })).toContain(
      "group's usual 45 to 60 %".replace("'", "&#x27;"),
    );
  });

  it("say estimated, measured, or not reached", () => {
    expect(shown(reps(TEST))).toMatch(/Peak power .* estimated/);
    expect(shown(reps(TEST))).toContain("needs measured force");
    const rising = shown(reps(TEST, [500, 700, 900, 950, 1000]));
    expect(rising).toMatch(/Peak force 110 kg at 0\.46 m\/s not reached: at least 1000 N/);
    const reached = shown(reps(TEST, [500, 700, 900, 850, 800]));
    expect(reached).toMatch(/Peak force 80 kg at 0\.78 m\/s 900 N/);
  });

  it("say in words why there is no line, no interval, and what to look at", () => {
    expect(shown([])).toContain("No rep yet.");
    expect(shown(reps([[60, 0.9]]))).toContain("One load is a point, not a line.");
    const two = shown(
      reps([
        [40, 1.2],
        [100, 0.5],
      ]),
    );
    expect(two).toContain("no interval from two loads");
    expect(two).toContain("Two loads give a line but no interval.");
  });
});
