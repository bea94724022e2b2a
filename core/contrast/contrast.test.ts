import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  type Complex,
  type ComplexItem,
  checkComplex,
  complexStave,
  complexTotals,
  itemLoad,
  loadInWeek,
  sideLedger,
  simplerComplex,
  toItemStep,
} from "./complex";
import { dueIn, earlyStart, foldRun, type RunEntry } from "./run";

const item = (over: Partial<ComplexItem>): ComplexItem => ({
  id: over.name ?? "i",
  name: "Item",
  kind: "lift",
  pattern: "olympic-pull",
  reps: 2,
  load: { by: "percent", percent: 70 },
  of: "deadlift",
  gapS: 20,
  output: "none",
  sides: false,
  ...over,
});
/** The shape of DOMAIN 10: pull × 2, 20 s, loaded jump × 3, 20 s, two-hand throw × 3, 150 s; five rounds. */
const shape: Complex = {
  name: "Pull, jump, throw",
  aim: "complex",
  school: "S",
  purpose: "",
  items: [
    item({ name: "Pull" }),
    item({
      name: "Jump",
      kind: "jump",
      pattern: "jump",
      reps: 3,
      load: { by: "body", percent: 20 },
      output: "height",
    }),
    item({ name: "Throw", kind: "throw", pattern: "throw", reps: 3, load: { by: "fixed", kg: 4 } }),
  ],
  rounds: 5,
  restS: 150,
  patternReason: "",
  direction: "speed",
  weekStep: 5,
  beforeMain: true,
};

describe("a complex", () => {
  it("counts reps, and rest with and without the last", () => {
    const totals = complexTotals(shape);
    expect(totals.reps.map((one) => one.reps)).toEqual([10, 15, 15]);
    expect(totals.totalReps).toBe(40);
    expect(totals.restS).toBe(5 * (20 + 20 + 150));
    expect(totals.restWithoutLastS).toBe(5 * 40 + 4 * 150);
    // Pull 6 s, jump 9 s, throw 12 s of work a round.
    expect(totals.lengthS).toBe(5 * 27 + 800);
  });

  it("stands on the clock without overlaps, and ends with its length", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.array(
          fc.record({
            reps: fc.integer({ min: 1, max: 6 }),
            gapS: fc.integer({ min: 0, max: 400 }),
          }),
          {
            minLength: 1,
            maxLength: 5,
          },
        ),
        fc.integer({ min: 0, max: 300 }),
        (rounds, items, restS) => {
          const complex = {
            ...shape,
            rounds,
            restS,
            items: items.map((one, i) => item({ id: String(i), ...one })),
          };
          const blocks = complexStave(complex);
          expect(blocks).toHaveLength(rounds * items.length);
          blocks.forEach((block, i) => {
            const next = blocks[i + 1];
            if (next) expect(next.startS).toBeGreaterThanOrEqual(block.startS + block.lengthS);
          });
          const last = blocks[blocks.length - 1];
          expect((last?.startS ?? 0) + (last?.lengthS ?? 0)).toBe(complexTotals(complex).lengthS);
        },
      ),
    );
  });

  it("moves the jump's load by its direction over a block, never under nothing", () => {
    const jump = shape.items[1] as ComplexItem;
    expect(loadInWeek(shape, jump, 1)).toEqual({ by: "body", percent: 20 });
    expect(loadInWeek(shape, jump, 3)).toEqual({ by: "body", percent: 10 });
    expect(loadInWeek(shape, jump, 9)).toEqual({ by: "body", percent: 0 });
    expect(loadInWeek({ ...shape, direction: "load" }, jump, 3)).toEqual({
      by: "body",
      percent: 30,
    });
    expect(loadInWeek({ ...shape, direction: "hold" }, jump, 3)).toEqual({
      by: "body",
      percent: 20,
    });
    expect(loadInWeek(shape, shape.items[0] as ComplexItem, 3)).toEqual({
      by: "percent",
      percent: 70,
    });
  });

  it("takes loads from the athlete's own facts, or says what is missing", () => {
    const facts = {
      maxKg: 100,
      line: undefined,
      peakForceMps: undefined,
      peakPowerKg: 60,
      bodyKg: 80,
    };
    expect(itemLoad({ by: "body", percent: 20 }, facts, 3)).toMatchObject({ kg: 16 });
    expect(itemLoad({ by: "peak-power", percent: 100 }, facts, 3)).toMatchObject({ kg: 60 });
    expect(itemLoad({ by: "none" }, facts, 3)).toEqual({ kg: undefined, words: "body weight" });
    expect(itemLoad({ by: "percent", percent: 50 }, { ...facts, maxKg: undefined }, 3)).toEqual({
      kg: undefined,
      words: "no-max",
    });
  });

  it("has nothing against the example shape", () => {
    expect(checkComplex(shape)).toEqual([]);
  });

  it.each([
    [
      "pattern",
      {
        items: [item({ name: "Bench", pattern: "horizontal-push" }), shape.items[1] as ComplexItem],
      },
    ],
    ["order", { beforeMain: false }],
    ["no-base", { items: shape.items.map((one) => ({ ...one, of: undefined })) as ComplexItem[] }],
    ["gap", { items: shape.items.map((one) => ({ ...one, gapS: 60 })) }],
    [
      "gap",
      { aim: "potentiation" as const, items: shape.items.map((one) => ({ ...one, gapS: 120 })) },
    ],
    [
      "not-light",
      {
        items: shape.items.map((one) =>
          one.kind === "jump" ? { ...one, load: { by: "body" as const, percent: 60 } } : one,
        ),
      },
    ],
    [
      "many-reps",
      { items: shape.items.map((one) => (one.kind === "jump" ? { ...one, reps: 8 } : one)) },
    ],
    [
      "one-side",
      {
        items: [
          shape.items[0] as ComplexItem,
          item({ name: "Rotation throw", kind: "throw", pattern: "throw" }),
        ],
      },
    ],
    ["rest", { restS: 45 }],
    ["one-item", { items: [shape.items[0] as ComplexItem] }],
  ])("names %s", (code, over) => {
    expect(checkComplex({ ...shape, ...over }).map((one) => one.code)).toContain(code);
  });

  it("takes a stated reason for items that do not match", () => {
    const items = [
      item({ name: "Bench", pattern: "horizontal-push" }),
      shape.items[1] as ComplexItem,
    ];
    expect(
      checkComplex({ ...shape, items, patternReason: "Start and finish of the stroke." }),
    ).toEqual([]);
  });

  it("asks for strength first by name, and offers a simpler version", () => {
    const found = checkComplex(shape, [
      { name: "Ann", squatPerBody: 1.8, trainingYears: 3 },
      { name: "Bo", squatPerBody: 1.2, trainingYears: 3 },
      { name: "Cy", squatPerBody: undefined, trainingYears: 4 },
    ]);
    expect(found.find((one) => one.code === "strength-first")?.text).toContain("Bo");
    expect(found.find((one) => one.code === "strength-first")?.text).not.toContain("Ann");
    expect(found.find((one) => one.code === "strength-unknown")?.text).toContain("Cy");
    const simpler = simplerComplex(shape);
    expect(simpler.items.map((one) => one.name)).toEqual(["Jump", "Throw"]);
    expect(simpler.items.every((one) => one.load.by === "none")).toBe(true);
    expect(simpler.rounds).toBe(3);
  });

  it.each<[kg: number, kind: ComplexItem["kind"], unit: "kg" | "lb", to: number]>([
    [66.3, "lift", "kg", 67.5],
    [66.2, "lift", "kg", 65],
    [4.3, "throw", "kg", 4.5],
    // 37.5 kg are 82.7 lb: 85 on a bar, 83 in the hand.
    [37.5, "lift", "lb", 85 * 0.45359237],
    [37.5, "jump", "lb", 83 * 0.45359237],
  ])("%s kg of a %s in %s goes to the nearest step", (kg, kind, unit, to) => {
    expect(toItemStep(kg, kind, unit)).toBeCloseTo(to, 9);
  });

  it("keeps left and right apart", () => {
    expect(
      sideLedger([
        { item: "Throw", side: "left", reps: 6 },
        { item: "Throw", side: "right", reps: 9 },
        { item: "Throw", side: "left", reps: 2 },
      ]),
    ).toEqual([{ item: "Throw", left: 8, right: 9, apart: -1 }]);
  });
});

describe("running it", () => {
  let n = 0;
  const tap = (kind: "start" | "done", round: number, at: number, atS: number): RunEntry => ({
    id: `e${n++}`,
    athleteId: "ann",
    kind,
    round,
    item: at,
    atMs: 1000 * atS,
  });
  const jump = (round: number, value: number): RunEntry => ({
    id: `e${n++}`,
    athleteId: "ann",
    kind: "output",
    round,
    item: 1,
    value,
    atMs: 0,
  });

  it("waits, works, rests and counts the rest that was taken against the planned", () => {
    expect(foldRun(shape, "ann", []).stage).toEqual({ kind: "waiting", round: 1, item: 0 });
    const entries = [tap("start", 1, 0, 0)];
    expect(foldRun(shape, "ann", entries).stage).toMatchObject({
      kind: "working",
      round: 1,
      item: 0,
    });
    entries.push(tap("done", 1, 0, 6));
    const resting = foldRun(shape, "ann", entries).stage;
    expect(resting).toMatchObject({
      kind: "resting",
      round: 1,
      item: 1,
      untilMs: 26_000,
      plannedS: 20,
    });
    expect(dueIn(resting, 10_000)).toEqual({ leftS: 16, warn: false });
    expect(dueIn(resting, 17_000)).toEqual({ leftS: 9, warn: true });
    expect(dueIn(resting, 30_000)).toEqual({ leftS: -4, warn: true });
    // Four fifths of 20 s are 16 s: at 21 s 15 have been taken, at 22 s 16.
    expect(earlyStart(resting, 21_000)).toEqual({ takenS: 15, plannedS: 20 });
    expect(earlyStart(resting, 22_000)).toBeUndefined();
    entries.push(tap("start", 1, 1, 20));
    expect(foldRun(shape, "ann", entries).rests).toEqual([
      { round: 1, item: 1, plannedS: 20, takenS: 14, early: true },
    ]);
  });

  it("a rest whose ends were tapped on two tablets is an estimate", () => {
    const on = (device: string, entry: RunEntry): RunEntry => ({ ...entry, device });
    const entries = [
      on("a", tap("start", 1, 0, 0)),
      on("a", tap("done", 1, 0, 6)),
      on("a", tap("start", 1, 1, 26)),
      on("b", tap("done", 1, 1, 32)),
      on("a", tap("start", 1, 2, 52)),
    ];
    const { rests } = foldRun(shape, "ann", entries);
    expect(rests.map((one) => one.estimated)).toEqual([undefined, true]);
    expect(rests.map((one) => one.takenS)).toEqual([20, 20]);
  });

  it("is over after the last item of the last round, whatever order the taps came in", () => {
    const entries: RunEntry[] = [];
    let at = 0;
    for (let round = 1; round <= 5; round++)
      for (let i = 0; i < 3; i++) {
        entries.push(tap("start", round, i, at), tap("done", round, i, at + 5));
        at += i === 2 ? 155 : 25;
      }
    const straight = foldRun(shape, "ann", entries);
    expect(straight.stage).toEqual({ kind: "over", why: "done" });
    expect(straight.rests).toHaveLength(14);
    expect(straight.rests.every((one) => !one.early)).toBe(true);
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(foldRun(shape, "ann", shuffled)).toEqual(straight);
      }),
      { numRuns: 30 },
    );
  });

  it("holds output against round 1 and baseline, and proposes the end at 10 % lost", () => {
    const base: RunEntry = {
      id: "b",
      athleteId: "ann",
      kind: "baseline",
      round: 1,
      item: 1,
      value: 38,
      atMs: 0,
    };
    const run = foldRun(shape, "ann", [base, jump(1, 40), jump(2, 42), jump(3, 39.5), jump(4, 36)]);
    expect(run.outputs.map((one) => one.verdict)).toEqual(["better", "better", "same", "fading"]);
    expect(run.outputs[3]?.againstFirst).toBeCloseTo(-10, 9);
    expect(run.outputs[3]?.againstBaseline).toBeCloseTo(-5.26, 2);
    expect(run.endProposed).toMatchObject({ item: 1 });
    expect(foldRun(shape, "ann", [jump(1, 40), jump(2, 36.1)]).endProposed).toBeUndefined();
    expect(
      foldRun(shape, "ann", [jump(1, 40), jump(2, 35), jump(3, 40)]).endProposed,
    ).toBeUndefined();
  });

  it("takes a sprint's time the other way round, and the best of several tries", () => {
    const sprint = {
      ...shape,
      items: [item({ name: "Sprint", kind: "sprint", output: "time", reps: 20 })],
    };
    const out = (round: number, value: number): RunEntry => ({ ...jump(round, value), item: 0 });
    const run = foldRun(sprint, "ann", [out(1, 3), out(1, 2.9), out(2, 3.3)]);
    expect(run.outputs[0]?.value).toBe(2.9);
    expect(run.outputs[1]).toMatchObject({ verdict: "fading" });
    expect(run.endProposed?.lossPercent).toBeCloseTo(13.79, 2);
  });

  it("undoes a tap, stops by hand, and sets aside what does not fit", () => {
    const start = tap("start", 1, 0, 0);
    const undo: RunEntry = {
      id: "v",
      athleteId: "ann",
      kind: "void",
      of: start.id,
      round: 1,
      item: 0,
      atMs: 1,
    };
    expect(foldRun(shape, "ann", [start, undo]).stage).toEqual({
      kind: "waiting",
      round: 1,
      item: 0,
    });
    const stop: RunEntry = {
      id: "s",
      athleteId: "ann",
      kind: "stop",
      round: 1,
      item: 0,
      reason: "Pain",
      atMs: 2,
    };
    expect(foldRun(shape, "ann", [start, stop]).stage).toEqual({ kind: "over", why: "stopped" });
    expect(foldRun(shape, "ann", [tap("start", 9, 0, 0)]).aside).toBe(1);
    expect(foldRun(shape, "bo", [start]).stage.kind).toBe("waiting");
  });
});
