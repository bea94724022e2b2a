import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boxLoad } from "../boxsquat/box-load";
import { depthLedger } from "../boxsquat/depth";
import { gate, holding } from "../boxsquat/ladder";
import type { Complex, ComplexItem } from "../contrast/complex";
import { COMPLEX_DEFAULTS, checkComplex, complexSettings } from "../contrast/complex-checks";
import { earlyStart, foldRun, type RunTap } from "../contrast/run";
import { RUN_DEFAULTS, runSettings } from "../contrast/run-settings";
import { seekLoad } from "../contrast/seek";
import { COACH_VALUES } from "../settings/coach-values";
import { listTeamDefaults, TEAM_DEFAULTS } from "../settings/team-defaults";
import { type DefaultKey, teamDefault } from "../settings/usual";
import { type ReviewKey, reviewDefault, USUAL_REVIEW } from "../settings/usual-review";

const jump: ComplexItem = {
  id: "jump",
  name: "Jump",
  kind: "jump",
  pattern: "jump",
  reps: 3,
  load: { by: "body", percent: 30 },
  gapS: 40,
  output: "height",
  sides: false,
};
const complex: Complex = {
  name: "Jumps",
  aim: "complex",
  school: "",
  purpose: "",
  items: [jump, { ...jump, id: "again" }],
  rounds: 3,
  restS: 100,
  patternReason: "",
  direction: "hold",
  weekStep: 0,
  beforeMain: true,
};
const at = (atS: number) => ({ deviceId: "a", bootId: "b", monoMs: 1000 * atS, atMs: 0 });
const height = (round: number, value: number): RunTap => ({
  id: `h${round}`,
  kind: "output",
  round,
  item: 0,
  value,
  mark: at(0),
});
const codes = (values: Record<string, number>) =>
  checkComplex(complex, [{ name: "Ann", squatPerBody: 1.4, trainingYears: 2 }], true, {
    ...complexSettings(values),
  }).map((one) => one.code);

describe("usual numbers that a team may set", () => {
  it("are the ones that stand where they are used, as long as nobody set another", () => {
    expect(runSettings({})).toEqual(RUN_DEFAULTS);
    expect(complexSettings({})).toEqual(COMPLEX_DEFAULTS);
    expect(listTeamDefaults({}).every((one) => one.value === undefined)).toBe(true);
  });

  it("lie within their own range, are named once, and are no coach-set values", () => {
    for (const one of TEAM_DEFAULTS) {
      expect(one.fallback).toBeGreaterThanOrEqual(one.low);
      expect(one.fallback).toBeLessThanOrEqual(one.high);
      expect(one.source.length).toBeGreaterThan(0);
    }
    const keys = [...TEAM_DEFAULTS, ...COACH_VALUES].map((one) => one.key);
    expect(new Set(keys).size).toBe(keys.length);
    const names = TEAM_DEFAULTS.map((one) => one.name);
    expect(new Set(names).size).toBe(names.length);
  });

  it("give way to the team's, one by one", () => {
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom(...TEAM_DEFAULTS.map((one) => one.key)), fc.double()),
        (values) => {
          for (const one of TEAM_DEFAULTS) {
            const wanted = one.key in values ? values[one.key] : one.fallback;
            const told =
              one.key in USUAL_REVIEW
                ? reviewDefault(values, one.key as ReviewKey)
                : teamDefault(values, one.key as DefaultKey);
            expect(told).toBe(wanted);
          }
        },
      ),
    );
  });

  it.each<[key: DefaultKey, value: number, code: string]>([
    ["complexGapMostS", 45, "gap"],
    ["pairingSquatPerBody", 1.3, "strength-first"],
  ])("%s of %s takes away %s", (key, value, code) => {
    expect(codes({})).toContain(code);
    expect(codes({ [key]: value })).not.toContain(code);
  });

  it.each<[key: DefaultKey, value: number, code: string]>([
    ["pairingRoundRestS", 120, "rest"],
    ["lightJumpBodyPercent", 25, "not-light"],
  ])("%s of %s adds %s", (key, value, code) => {
    expect(codes({})).not.toContain(code);
    expect(codes({ [key]: value })).toContain(code);
  });

  it("decide when a pairing ends, what is the same, and what is early", () => {
    const taps = [height(1, 40), height(2, 37.5)];
    const run = (values: Record<string, number>) => foldRun(complex, taps, runSettings(values)).run;
    expect(run({}).endProposed).toBeUndefined();
    expect(run({ pairingLossPercent: 6 }).endProposed?.lossPercent).toBeCloseTo(6.25, 9);
    expect(run({}).outputs[1]?.verdict).toBe("fading");
    expect(run({ pairingSamePercent: 7 }).outputs[1]?.verdict).toBe("same");
    const resting = {
      kind: "resting",
      round: 1,
      item: 1,
      since: at(0),
      plannedS: 40,
    } as const;
    expect(earlyStart(resting, at(30), RUN_DEFAULTS)).toBeDefined();
    expect(earlyStart(resting, at(30), runSettings({ pairingEarlyPercent: 70 }))).toBeUndefined();
  });

  it("decide when output rose", () => {
    const seek = (values: Record<string, number>) =>
      seekLoad({
        rounds: [
          { round: 1, loadKg: 60, output: 40 },
          { round: 2, loadKg: 65, output: 41 },
        ],
        measure: { up: true, unit: "cm", name: "jump" },
        steps: [60, 65, 70],
        settings: runSettings(values),
      }).kind;
    expect(seek({})).toBe("found");
    expect(seek({ pairingSamePercent: 2 })).toBe("raise");
  });

  it("decide the gate, the hold of a speed weight, the ledger and the box from free", () => {
    const athletes = Array.from({ length: 10 }, (_, i) => ({ name: `${i}`, ready: i < 7 }));
    const from = { athletes, startedOn: "2026-02-20" as const, today: "2026-03-10" as const };
    const values = { gateSharePercent: 70 };
    expect(gate(from).open).toBe(false);
    expect(gate({ ...from, sharePercent: teamDefault(values, "gateSharePercent") })).toMatchObject({
      open: true,
      sharePercent: 70,
      needed: 7,
    });
    expect(holding("2026-02-20", "2026-03-10").due).toBe(false);
    expect(holding("2026-02-20", "2026-03-10", 2).due).toBe(true);
    const sets = [
      { date: "2026-03-05" as const, sets: 3, depth: "full" as const },
      { date: "2026-03-05" as const, sets: 2, depth: "high-box" as const },
    ];
    expect(depthLedger(sets, "2026-03-10").enough).toBe(true);
    expect(depthLedger(sets, "2026-03-10", { percent: 75 })).toMatchObject({ enough: false });
    const free = {
      baseKg: 100,
      base: "working-max",
      styleName: "wide",
      learnt: undefined,
    } as const;
    expect(boxLoad({ ...free, share: { least: 50, most: 55 } })).toMatchObject({
      leastKg: 50,
      mostKg: expect.closeTo(55, 9),
    });
  });
});
