import { describe, expect, it } from "vitest";
import { day } from "../units/fixtures/day";
import type { LocalDate } from "../units/time";
import { readIn } from "../units/written";
import { GUARDED, limitHolds, refusals } from "./limits";
import {
  basedMax,
  isFirstTime,
  lifetimeBestKg,
  type MaxRecord,
  maxWorking,
  plainMax,
  type WorkingMax,
  workingMax,
} from "./records";
import { competitionMark, describeMark } from "./season";
import { learnRatio, resolveMax, type VariantBase } from "./variants";

const variant = (id: string, base: Partial<VariantBase> = {}): VariantBase => ({
  id,
  name: id,
  baseKind: "own",
  baseId: undefined,
  ratio: undefined,
  ...base,
});
const record = (kg: number, date: LocalDate, kind: MaxRecord["kind"] = "tested"): MaxRecord => ({
  id: date,
  load: { amount: kg, unit: "kg" },
  date,
  kind,
  note: "",
});
const known = new Map([["squat", { kg: 150 }]]);

describe("where a variant's max comes from", () => {
  const box = variant("box", { baseKind: "ratio", baseId: "squat", ratio: 0.7 });
  const wide = variant("wide", { baseKind: "shares", baseId: "box" });

  it("goes through shares and ratios to the record, and shows each step", () => {
    const max = resolveMax({ variantId: "wide", variants: [variant("squat"), box, wide], known });
    expect(max).toMatchObject({ ok: true, kg: 105, chain: ["wide", "box", "squat"] });
    expect(max.ok && max.steps).toEqual([
      { by: "ratio", name: "box", of: "squat", ratio: 0.7 },
      { by: "shares", name: "wide", of: "box" },
    ]);
    const squat = workingMax({
      liftName: "squat",
      record: record(150, "2026-03-01"),
      factor: undefined,
      today: "2026-03-10",
    });
    const based = max.ok ? basedMax(squat, max, "wide") : undefined;
    expect(based).toMatchObject({ kg: 105, record: squat.record });
    expect(based?.working.lines.map((line) => [line.label, readIn(line.value, "kg")])).toEqual([
      ["Tested in training, 2026-03-01", "150 kg"],
      ["Factor", "× 1"],
      ["Working max", "150 kg"],
      ["Age", "9 days"],
      ["box, of squat", "× 0.7"],
      ["wide shares the max of", "box"],
      ["Working max, wide", "105 kg"],
    ]);
    expect(based?.working.lines.filter((line) => line.emphasis)).toHaveLength(1);
    // What is sent of hundreds writes the same working where it is read.
    expect(maxWorking(plainMax(based as WorkingMax), "wide")).toEqual(based?.working);
  });

  it("takes an own record before any base", () => {
    const max = resolveMax({
      variantId: "box",
      variants: [variant("squat"), box],
      known: new Map([...known, ["box", { kg: 99 }]]),
    });
    expect(max).toMatchObject({ ok: true, kg: 99, chain: ["box"] });
  });

  it.each([
    ["no-max", [variant("a")]],
    ["no-max", [variant("a", { baseKind: "shares", baseId: "gone" })]],
    ["no-ratio", [variant("a", { baseKind: "ratio", baseId: "squat" }), variant("squat")]],
    [
      "circle",
      [
        variant("a", { baseKind: "shares", baseId: "b" }),
        variant("b", { baseKind: "shares", baseId: "a" }),
      ],
    ],
  ] as const)("refuses as %s", (reason, variants) => {
    expect(resolveMax({ variantId: "a", variants, known })).toMatchObject({ ok: false, reason });
  });

  it("uses a learnt ratio only where the coach has set none", () => {
    const unset = { ...box, ratio: undefined };
    const ratios = new Map([["box", { ratio: 0.8, n: 2 }]]);
    const variants = [variant("squat"), unset];
    expect(resolveMax({ variantId: "box", variants, known, ratios })).toMatchObject({ kg: 120 });
    const set = { variantId: "box", variants: [variant("squat"), box], known, ratios };
    expect(resolveMax(set)).toMatchObject({ kg: 105 });
  });

  it("learns a ratio from lifted records near in time, and from nothing else", () => {
    const own = [record(100, "2026-01-10"), record(110, "2026-03-01"), record(200, "2025-01-01")];
    const base = [
      record(140, "2026-01-05"),
      record(150, "2026-02-20"),
      record(10, "2026-03-01", "coach"),
    ];
    expect(learnRatio(own, base)?.n).toBe(2);
    expect(learnRatio(own, base)?.ratio).toBeCloseTo((100 / 140 + 110 / 150) / 2, 12);
    expect(learnRatio(own, [])).toBeUndefined();
    expect(learnRatio([record(90, "2026-01-01", "velocity-estimate")], base)).toBeUndefined();
  });
});

describe("first time at a load", () => {
  it("counts lifted records only, and asks above the best of them", () => {
    const best = lifetimeBestKg([record(100, "2026-01-01"), record(130, "2026-01-01", "coach")]);
    expect(best).toBe(100);
    expect([100, 100.5].map((kg) => isFirstTime(kg, best))).toEqual([false, true]);
    expect(isFirstTime(300, lifetimeBestKg([]))).toBe(false);
  });
});

describe("competitions", () => {
  const regatta = { name: "Regatta", date: "2026-04-20" as const };
  it.each([
    ["2026-03-22", undefined, undefined],
    ["2026-03-23", "4 weeks to Regatta", false],
    ["2026-04-19", "1 day to Regatta", false],
    ["2026-04-20", "Regatta today", false],
    ["2026-05-04", "No testing: 14 days after Regatta", true],
    ["2026-05-05", undefined, undefined],
  ])("%s: %s", (on, words, refused) => {
    const mark = competitionMark([regatta], day(on));
    expect(mark && describeMark(mark)).toBe(words);
    expect(mark?.testingRefused).toBe(refused);
  });

  it("lets the fortnight after one come before the nearness of the next", () => {
    const next = { name: "Cup", date: "2026-04-26" as const };
    expect(competitionMark([next, regatta], "2026-04-25")?.competition).toBe(regatta);
  });
});

describe("limits", () => {
  const limit = {
    id: "1",
    instruction: "No max tests on the bench",
    refuses: ["max-test" as const],
    lift: "bench",
    capPercent: undefined,
    until: "2026-03-31" as const,
    liftedOn: undefined,
  };
  const ask = (input: Partial<Parameters<typeof refusals>[0]>) =>
    refusals({ limits: [limit], birthYear: 2000, lift: "bench", today: "2026-03-10", ...input });

  it("hold for their lift and their time, with the instruction as the only word", () => {
    expect(ask({})).toEqual([{ guarded: "max-test", because: "No max tests on the bench" }]);
    expect(ask({ lift: "squat" })).toEqual([]);
    expect(ask({ today: "2026-04-01" })).toEqual([]);
    expect(limitHolds({ until: undefined, liftedOn: "2026-03-10" }, "2026-03-10")).toBe(false);
    expect(limitHolds({ until: undefined, liftedOn: "2026-03-11" }, "2026-03-10")).toBe(true);
  });

  it.each([
    [2008, true],
    [2007, false],
    [1967, false],
    [1966, true],
    [undefined, false],
  ])("born %s: refused by age %s", (birthYear, refused) => {
    const found = ask({ limits: [], birthYear }).map((one) => one.guarded);
    expect(found).toEqual(refused ? [...GUARDED] : []);
  });
});
