import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addDays } from "../units/time";
import { reviewBoxCycle } from "./box-cycle";
import { type CycleSession, type CycleSet, weekOf } from "./cycle-week";
import { speedAtEqualLoad } from "./equal-load";

const set = (over: Partial<CycleSet> = {}): CycleSet => ({
  loadKg: 60,
  percent: 50,
  bestMps: 0.9,
  standing: "on",
  reps: 2,
  pausesS: [0.6, 0.5],
  bounces: 0,
  contactsMps: [0.2, 0.3],
  toPeakS: [0.4],
  faults: [],
  cut: false,
  ...over,
});

const session = (
  week: number,
  sets: CycleSet[] | undefined,
  over: Partial<CycleSession> = {},
): CycleSession => ({
  week,
  date: addDays("2026-02-01", 7 * (week - 1)),
  kind: "work",
  planned: { sets: 8, reps: 16 },
  heightCm: 37,
  style: "Wide, sat back",
  sets,
  ...over,
});

const eight = (over: Partial<CycleSet> = {}) => Array.from({ length: 8 }, () => set(over));

const review = (
  sessions: CycleSession[],
  over: Partial<Parameters<typeof reviewBoxCycle>[0]> = {},
) =>
  reviewBoxCycle({
    sessions,
    slope: undefined,
    depthSets: [],
    faults: [],
    nextPercent: undefined,
    today: "2026-03-10",
    ...over,
  });

describe("a week of a box cycle", () => {
  it("stands on the load done most, the heavier where two tie", () => {
    const week = weekOf(
      session(1, [
        set({ loadKg: 50, bestMps: 1.1 }),
        set({ loadKg: 60, bestMps: 0.94 }),
        set({ loadKg: 60, bestMps: 0.9, faults: ["Knees in"], bounces: 1, cut: true }),
        set({ loadKg: 50, bestMps: 1.05 }),
      ]),
    );
    expect(week).toMatchObject({
      loadKg: 60,
      doneSets: 4,
      cutSets: 1,
      reps: 8,
      bounces: 1,
      speedSets: 2,
      onSpeed: 4,
      judged: 4,
      faults: [{ fault: "Knees in", times: 1 }],
    });
    expect(week.speedMps).toBeCloseTo(0.92, 12);
    expect(week.fadeMps).toBeCloseTo(0.04, 12);
    expect(week.meanStopS).toBeCloseTo(0.55, 12);
    expect(week.meanContactMps).toBeCloseTo(0.25, 12);
    expect(week.meanToPeakS).toBeCloseTo(0.4, 12);
  });

  it("without measured stops says nothing of bounces, and without anybody nothing at all", () => {
    expect(weekOf(session(1, [set({ bounces: undefined, pausesS: [] })]))).toMatchObject({
      bounces: undefined,
      meanStopS: undefined,
    });
    expect(weekOf(session(2, undefined))).toMatchObject({
      present: false,
      loadKg: undefined,
      speedMps: undefined,
    });
  });
});

describe("speed at equal load", () => {
  const weeks = (rows: Array<[loadKg: number, mps: number]>) =>
    rows.map(([loadKg, bestMps], i) => weekOf(session(i + 1, eight({ loadKg, bestMps }))));

  it("pairs the weeks of two waves and takes their mean; the noise falls with the pairs", () => {
    const found = speedAtEqualLoad(
      weeks([
        [52.5, 0.96],
        [57.5, 0.89],
        [62.5, 0.86],
        [52.5, 1.05],
        [57.5, 0.98],
      ]),
      undefined,
    );
    expect(found).toMatchObject({ ok: true, byLine: false, verdict: "rose" });
    if (!found.ok) return;
    expect(found.pairs.map((one) => [one.from.week, one.to.week])).toEqual([
      [1, 4],
      [2, 5],
    ]);
    expect(found.changeMps).toBeCloseTo(0.09, 12);
    // By hand: 1.644854 · √(4 · (0.05² + 0.03²/8)) / 2.
    expect(found.changeMps - found.lowMps).toBeCloseTo(0.0840728, 6);
  });

  it("one pair's same change stays within noise", () => {
    const found = speedAtEqualLoad(
      weeks([
        [57.5, 0.89],
        [57.5, 0.98],
      ]),
      undefined,
    );
    expect(found).toMatchObject({ ok: true, verdict: "within-noise" });
    // 1.644854 · √(2 · (0.05² + 0.03²/8))
    if (found.ok) expect(found.highMps - found.changeMps).toBeCloseTo(0.1188969, 6);
  });

  it("carries along the own line where no load comes twice, else names what is missing", () => {
    const rising = weeks([
      [50, 1.0],
      [60, 0.95],
    ]);
    const found = speedAtEqualLoad(rising, -0.02);
    expect(found).toMatchObject({ ok: true, byLine: true, verdict: "rose" });
    if (found.ok) expect(found.changeMps).toBeCloseTo(0.15, 12);
    expect(speedAtEqualLoad(rising, undefined)).toMatchObject({ reason: "no-equal-load" });
    expect(speedAtEqualLoad(rising.slice(1), -0.02)).toMatchObject({ reason: "one-week" });
  });

  it("leaves deloads and tests out", () => {
    const all = [
      ...weeks([[60, 0.9]]),
      weekOf(session(2, eight({ bestMps: 1.4 }), { kind: "deload" })),
      weekOf(session(3, eight({ bestMps: 0.4 }), { kind: "test" })),
    ];
    expect(speedAtEqualLoad(all, -0.01)).toMatchObject({ reason: "one-week" });
  });

  it("turned round in time, the change turns its sign; a week stands in one pair at most", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(50, 55, 60), fc.integer({ min: 40, max: 130 })), {
          minLength: 2,
          maxLength: 9,
        }),
        (rows) => {
          const points = rows.map(([kg, cmps]) => [kg, cmps / 100] as [number, number]);
          const found = speedAtEqualLoad(weeks(points), -0.01);
          if (!found.ok) return;
          const used = found.pairs.flatMap((one) => [one.from.week, one.to.week]);
          expect(new Set(used).size).toBe(used.length);
          for (const { from, to } of found.pairs) {
            expect(from.week).toBeLessThan(to.week);
            if (!found.byLine) expect(from.loadKg).toBe(to.loadKg);
          }
          if (found.pairs.length === 1 && rows.length === 2) {
            const back = speedAtEqualLoad(weeks([...points].reverse()), -0.01);
            if (back.ok) expect(back.changeMps).toBeCloseTo(-found.changeMps, 9);
          }
        },
      ),
    );
  });
});

describe("laws of the cycle", () => {
  const sets = fc.record({
    loadKg: fc.integer({ min: 40, max: 80 }),
    bestMps: fc.double({ min: 0.4, max: 1.4, noNaN: true }),
    cut: fc.boolean(),
    faults: fc.subarray(["Knees in", "Bouncing"]),
  });
  const cycles = fc.array(
    fc.option(fc.array(sets, { minLength: 1, maxLength: 8 }), { nil: undefined }),
    { minLength: 1, maxLength: 8 },
  );

  it("counts what was done, and a week's speed lies between its sets", () => {
    fc.assert(
      fc.property(cycles, (all) => {
        all.forEach((own, i) => {
          const week = weekOf(
            session(
              i + 1,
              own?.map((one) => set(one)),
            ),
          );
          expect(week.doneSets).toBe(own?.length ?? 0);
          expect(week.cutSets).toBe(own?.filter((one) => one.cut).length ?? 0);
          if (!own || week.speedMps === undefined) return;
          const speeds = own.filter((one) => one.loadKg === week.loadKg).map((one) => one.bestMps);
          expect(week.speedMps).toBeGreaterThanOrEqual(Math.min(...speeds) - 1e-9);
          expect(week.speedMps).toBeLessThanOrEqual(Math.max(...speeds) + 1e-9);
        });
      }),
    );
  });

  it("a shift of every speed changes nothing between the weeks", () => {
    fc.assert(
      fc.property(cycles, fc.double({ min: -0.2, max: 0.2, noNaN: true }), (all, shift) => {
        const change = (by: number) => {
          const found = speedAtEqualLoad(
            all.map((own, i) =>
              weekOf(
                session(
                  i + 1,
                  own?.map((one) => set({ ...one, bestMps: one.bestMps + by })),
                ),
              ),
            ),
            undefined,
          );
          return found.ok ? found.changeMps : found.reason;
        };
        const [plain, shifted] = [change(0), change(shift)];
        if (typeof plain === "number") expect(shifted).toBeCloseTo(plain, 9);
        else expect(shifted).toBe(plain);
      }),
    );
  });

  it("proposes more only where speed rose beyond noise and few sets were cut", () => {
    fc.assert(
      fc.property(cycles, (all) => {
        const found = review(
          all.map((own, i) =>
            session(
              i + 1,
              own?.map((one) => set(one)),
            ),
          ),
        );
        expect(found.findings.every((one) => one.words.length > 0)).toBe(true);
        if (found.proposal !== "raise") return;
        expect(found.speed).toMatchObject({ ok: true, verdict: "rose" });
        const done = all.flatMap((own) => own ?? []);
        expect(done.filter((one) => one.cut).length).toBeLessThanOrEqual(0.1 * done.length);
      }),
      { numRuns: 400 },
    );
  });
});

describe("the review of a box cycle", () => {
  const faster = [
    session(1, eight({ bestMps: 0.8 })),
    session(2, eight({ bestMps: 0.8 })),
    session(3, eight({ bestMps: 0.95 })),
    session(4, eight({ bestMps: 0.95 })),
  ];

  it("proposes to raise where speed rose beyond noise and nothing speaks against it", () => {
    expect(review(faster)).toMatchObject({ proposal: "raise" });
  });

  it.each<[string, CycleSession[], Partial<Parameters<typeof reviewBoxCycle>[0]>, string]>([
    [
      "a fault in the last session",
      [...faster.slice(0, 3), session(4, eight({ bestMps: 0.95, faults: ["Knees in"] }))],
      {},
      "Knees in × 8",
    ],
    [
      "too many cut sets",
      [...faster.slice(0, 3), session(4, eight({ bestMps: 0.95, cut: true }))],
      {},
      "8 sets of 32 cut",
    ],
    [
      "a cured fault that came back where the plan goes",
      faster,
      {
        nextPercent: 62.5,
        faults: [
          { fault: "Soft rise", times: 3, lastOn: "2026-01-02", cured: true, returnsAt: 60 },
        ],
      },
      '"Soft rise" came back at 60 %',
    ],
    [
      "half of the sessions missed",
      [
        ...faster,
        session(5, undefined),
        session(6, undefined),
        session(7, undefined),
        session(8, undefined),
        session(9, undefined),
      ],
      {},
      "There for 4 of 9 sessions",
    ],
  ])("holds for %s, and says so", (_, sessions, over, words) => {
    const found = review(sessions, over);
    expect(found.proposal).toBe("hold");
    expect(found.findings.find((one) => one.words.includes(words))?.speaksFor).toBe("hold");
  });

  it("lowers where speed fell beyond noise, whatever else stands", () => {
    const slower = faster.map((one, i) => ({
      ...one,
      sets: eight({ bestMps: i < 2 ? 0.95 : 0.75 }),
    }));
    expect(review(slower)).toMatchObject({ proposal: "lower" });
  });

  it("proposes nothing where nothing can be set side by side", () => {
    expect(review(faster.slice(0, 1))).toMatchObject({ proposal: "not-enough" });
    expect(review([])).toMatchObject({ proposal: "not-enough", weeks: [] });
  });

  it("takes the coach's own share of cut sets", () => {
    const cut = [...faster.slice(0, 3), session(4, eight({ bestMps: 0.95, cut: true }))];
    expect(review(cut, { fewCutPercent: 25 })).toMatchObject({ proposal: "raise" });
  });
});
