import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { LoadingGear } from "../barload/loading-gear";
import type { BasisFacts } from "../recipe/basis";
import type { ClockMark } from "../units/clock";
import type { Mass } from "../units/mass";
import { workingIn } from "../units/working";
import { readIn } from "../units/written";
import { simplerComplex } from "./adapt";
import { type ComplexItem, complexStave, complexTotals } from "./complex";
import { checkComplex } from "./complex-checks";
import { testItem as item, testComplex as shape } from "./fixtures/complex";
import { itemLoad, itemNumber, loadInWeek, numberSet, toItemStep } from "./item-load";
import { dueIn, earlyStart, foldRun, loadSet, type RunTap } from "./run";
import { RUN_DEFAULTS } from "./run-settings";
import { type SeekRound, seekLoad, seekRounds } from "./seek";
import { sideLedger, sideWords } from "./sides";

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
      foundKg: undefined,
      bodyKg: 80,
    };
    expect(itemLoad({ by: "body", percent: 20 }, facts, 3)).toMatchObject({ kg: 16 });
    expect(itemLoad({ by: "peak-power", percent: 100 }, facts, 3)).toMatchObject({ kg: 60 });
    expect(itemLoad({ by: "none" }, facts, 3)).toEqual({ kg: undefined, words: "body weight" });
    expect(itemLoad({ by: "percent", percent: 50 }, { ...facts, maxKg: undefined }, 3)).toEqual({
      kg: undefined,
      words: "no max: coach's load",
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
    const rows = sideLedger([
      { item: "Throw", left: 6, right: 9 },
      { item: "Turn", left: 3, right: 3 },
      { item: "Throw", left: 2, right: 0 },
    ]);
    expect(rows).toEqual([
      { item: "Throw", left: 8, right: 9, apart: -1 },
      { item: "Turn", left: 3, right: 3, apart: 0 },
    ]);
    expect(rows.map(sideWords)).toEqual(["left: 1 to make up", "even"]);
    expect(sideWords({ apart: 4 })).toBe("right: 4 to make up");
  });
});

describe("an item's number for one athlete", () => {
  const kg = (amount: number): Mass => ({ amount, unit: "kg" });
  const gear: LoadingGear = {
    bar: { id: "bar", name: "Bar", mass: kg(20), rated: kg(180), sleeveMm: 400 },
    collar: kg(0),
    plates: [20, 10, 5, 2.5].map((amount) => ({ mass: kg(amount), pairs: 2, thicknessMm: 30 })),
  };
  const facts: BasisFacts = {
    maxKg: 101,
    line: undefined,
    peakForceMps: undefined,
    peakPowerKg: 18,
    foundKg: undefined,
    bodyKg: 81,
  };
  const of = (item: ComplexItem, over: Partial<Parameters<typeof itemNumber>[0]> = {}) =>
    itemNumber({ complex: shape, item, week: 1, facts, gear, ...over });
  const pull = shape.items[0] as ComplexItem;
  const jump = shape.items[1] as ComplexItem;

  it("puts a share of a lift on the room's bar, with the working down to the plates", () => {
    // 70 % of 101 kg are 70.7 kg; this room builds 70 and 75.
    const number = of(pull);
    expect(number).toMatchObject({ words: "70 kg", kg: 70, side: "20 · 5" });
    expect(number.steps).toEqual([55, 60, 65, 70, 75, 80, 85, 90, 95, 100, 105, 110]);
    expect(number.working?.lines.map((one) => readIn(one.value, "kg"))).toEqual([
      "101 kg",
      "70.7 kg",
      "70.7 kg",
      expect.stringMatching(/^70 kg · 69\.3 %/),
      "20 + 20 · 5",
    ]);
    expect(number.working?.lines.filter((one) => one.emphasis === "answer")).toHaveLength(1);
  });

  it("rounds a novice's load down", () => {
    const item76 = { ...pull, load: { by: "percent" as const, percent: 74 } };
    expect(of(item76).kg).toBe(75);
    expect(of(item76, { mode: "down" }).kg).toBe(70);
  });

  it("goes by the scale for what is held, worn or thrown, and moves with its week", () => {
    expect(of(jump)).toMatchObject({ words: "16 kg", kg: 16 });
    expect(of(jump).side).toBeUndefined();
    const third = of(jump, { week: 3 });
    // Down five points a week: 10 % of 81 kg.
    expect(third.kg).toBe(8);
    expect(third.working?.lines[0]).toMatchObject({
      label: "Week 3 of the pairing",
      value: "10 % of body mass",
    });
  });

  it("says what cannot be built, and holds a jump that is lighter than the bar", () => {
    const heavy = { ...pull, load: { by: "percent" as const, percent: 120 } };
    const weak = { ...gear, bar: { ...gear.bar, rated: kg(110) } };
    expect(of(heavy, { gear: weak }).words).toBe("over what the bar here holds: coach's load");
    const light = { ...pull, load: { by: "percent" as const, percent: 15 } };
    expect(of(light).words).toBe("under the empty bar of 20 kg: coach's load");
    expect(of(light).kg).toBeUndefined();
    const power = {
      ...jump,
      load: { by: "peak-power" as const, percent: 100 },
      of: "squat" as const,
    };
    expect(of(power)).toMatchObject({ words: "18 kg", kg: 18 });
    const { of: _, ...nameless } = pull;
    expect(of(nameless)).toEqual({ words: "no lift named for its share" });
    expect(of(pull, { gear: undefined })).toMatchObject({ kg: 70 });
  });

  it("is never further from what was asked than half a step of this room", () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 85 }), (percent) => {
        const number = of({ ...pull, load: { by: "percent", percent } });
        if (number.kg === undefined) return;
        expect(Math.abs(number.kg - (101 * percent) / 100)).toBeLessThanOrEqual(2.5 + 1e-9);
        expect(number.steps).toContain(number.kg);
      }),
    );
  });

  it("keeps what was planned when another load is set at the rack", () => {
    const planned = of(pull);
    expect(numberSet(planned, undefined, "kg")).toBe(planned);
    const set = numberSet(planned, { round: 2, kg: 75 }, "kg");
    expect(set).toMatchObject({ words: "75 kg", kg: 75 });
    expect(set.side).toBeUndefined();
    const last = set.working?.lines[set.working.lines.length - 1];
    expect(last).toEqual({ label: "Set here from round 2", value: "75 kg", emphasis: "answer" });
    expect(set.working?.lines.filter((one) => one.emphasis === "answer")).toHaveLength(1);
  });
});

describe("a load that is looked for", () => {
  const steps = [60, 65, 70, 75];
  const seek = (rounds: SeekRound[], over: Partial<Parameters<typeof seekLoad>[0]> = {}) =>
    seekLoad({ rounds, measure: { up: true, unit: "cm", name: "jump" }, steps, ...over });
  const round = (n: number, loadKg: number, output: number): SeekRound => ({
    round: n,
    loadKg,
    output,
  });

  it.each<[what: string, rounds: SeekRound[], answer: object]>([
    ["nothing measured", [], { kind: "begin" }],
    ["one round", [round(1, 60, 40)], { kind: "raise", toKg: 65, rose: false }],
    ["it rose", [round(1, 60, 40), round(2, 65, 42)], { kind: "raise", toKg: 70, rose: true }],
    ["it stayed the same", [round(1, 60, 40), round(2, 65, 41)], { kind: "found", kg: 60 }],
    [
      "it rose, then fell",
      [round(1, 60, 40), round(2, 65, 42), round(3, 70, 41)],
      { kind: "found", kg: 65 },
    ],
    [
      "what comes after the search changes nothing",
      [round(1, 60, 40), round(2, 65, 40), round(3, 60, 50)],
      { kind: "found", kg: 60 },
    ],
    ["nothing heavier here", [round(1, 75, 40)], { kind: "top", kg: 75 }],
    ["rounds in any order", [round(2, 65, 42), round(1, 60, 40)], { kind: "raise", toKg: 70 }],
  ])("%s", (_, rounds, answer) => {
    expect(seek(rounds)).toMatchObject(answer);
  });

  it("takes a sprint's time the other way round", () => {
    const time = { measure: { up: false, unit: "s", name: "sprint" } };
    expect(seek([round(1, 60, 3), round(2, 65, 2.8)], time).kind).toBe("raise");
    expect(seek([round(1, 60, 3), round(2, 65, 3.2)], time)).toMatchObject({
      kind: "found",
      kg: 60,
    });
  });

  it("says which rounds it read, and which was the best", () => {
    const found = seek([round(1, 60, 40), round(2, 65, 42), round(3, 70, 42)]);
    expect("working" in found && workingIn(found.working, "kg").lines).toEqual([
      { label: "Round 1, 60 kg", value: "40 cm" },
      { label: "Round 2, 65 kg", value: "42 cm", detail: "best so far" },
      { label: "Round 3, 70 kg", value: "42 cm" },
      expect.objectContaining({ label: "Found", value: "65 kg", emphasis: "answer" }),
    ]);
  });

  it("never proposes what cannot be built, nor less than was lifted", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...steps), fc.integer({ min: 20, max: 60 })), {
          minLength: 1,
          maxLength: 6,
        }),
        (pairs) => {
          const rounds = pairs.map(([kg, output], i) => round(i + 1, kg, output));
          const answer = seek(rounds);
          if (answer.kind === "raise") {
            expect(steps).toContain(answer.toKg);
            expect(answer.toKg).toBeGreaterThan(rounds[rounds.length - 1]?.loadKg ?? 0);
          }
          if (answer.kind === "found") expect(steps).toContain(answer.kg);
        },
      ),
    );
  });
});

describe("running it", () => {
  const markAt = (atS: number, deviceId = "a"): ClockMark => ({
    deviceId,
    bootId: "boot",
    monoMs: 1000 * atS,
    atMs: 1000 * atS,
  });
  const fold = (complex: Parameters<typeof foldRun>[0], taps: RunTap[]) =>
    foldRun(complex, taps, RUN_DEFAULTS).run;
  let n = 0;
  const tap = (kind: "start" | "done", round: number, at: number, atS: number): RunTap => ({
    id: `e${n++}`,
    kind,
    round,
    item: at,
    mark: markAt(atS),
  });
  const jump = (round: number, value: number): RunTap => ({
    id: `e${n++}`,
    kind: "output",
    round,
    item: 1,
    value,
    mark: markAt(0),
  });

  it("waits, works, rests and counts the rest that was taken against the planned", () => {
    expect(fold(shape, []).stage).toEqual({ kind: "waiting", round: 1, item: 0 });
    const entries = [tap("start", 1, 0, 0)];
    expect(fold(shape, entries).stage).toMatchObject({
      kind: "working",
      round: 1,
      item: 0,
    });
    entries.push(tap("done", 1, 0, 6));
    const resting = fold(shape, entries).stage;
    expect(resting).toMatchObject({
      kind: "resting",
      round: 1,
      item: 1,
      plannedS: 20,
    });
    expect(dueIn(resting, markAt(10))).toEqual({ leftS: 16, warn: false });
    expect(dueIn(resting, markAt(17))).toEqual({ leftS: 9, warn: true });
    expect(dueIn(resting, markAt(30))).toEqual({ leftS: -4, warn: true });
    // Four fifths of 20 s are 16 s: at 21 s 15 have been taken, at 22 s 16.
    expect(earlyStart(resting, markAt(21), RUN_DEFAULTS)).toEqual({ takenS: 15, plannedS: 20 });
    expect(earlyStart(resting, markAt(22), RUN_DEFAULTS)).toBeUndefined();
    entries.push(tap("start", 1, 1, 20));
    expect(fold(shape, entries).rests).toEqual([
      { round: 1, item: 1, plannedS: 20, takenS: 14, early: true },
    ]);
  });

  it("a rest whose ends were tapped on two tablets is an estimate", () => {
    const on = (device: string, entry: RunTap): RunTap => ({
      ...entry,
      mark: { ...entry.mark, deviceId: device },
    });
    const entries = [
      on("a", tap("start", 1, 0, 0)),
      on("a", tap("done", 1, 0, 6)),
      on("a", tap("start", 1, 1, 26)),
      on("b", tap("done", 1, 1, 32)),
      on("a", tap("start", 1, 2, 52)),
    ];
    const { rests } = fold(shape, entries);
    expect(rests.map((one) => one.estimated)).toEqual([undefined, true]);
    expect(rests.map((one) => one.takenS)).toEqual([20, 20]);
  });

  it("is over after the last item of the last round, whatever order the taps came in", () => {
    const entries: RunTap[] = [];
    let at = 0;
    for (let round = 1; round <= 5; round++)
      for (let i = 0; i < 3; i++) {
        entries.push(tap("start", round, i, at), tap("done", round, i, at + 5));
        at += i === 2 ? 155 : 25;
      }
    const straight = fold(shape, entries);
    expect(straight.stage).toEqual({ kind: "over", why: "done" });
    expect(straight.rests).toHaveLength(14);
    expect(straight.rests.every((one) => !one.early)).toBe(true);
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(fold(shape, shuffled)).toEqual(straight);
      }),
      { numRuns: 30 },
    );
  });

  it("holds output against round 1 and baseline, and proposes the end at 10 % lost", () => {
    const base: RunTap = {
      id: "b",
      kind: "baseline",
      round: 1,
      item: 1,
      value: 38,
      mark: markAt(0),
    };
    const run = fold(shape, [base, jump(1, 40), jump(2, 42), jump(3, 39.5), jump(4, 36)]);
    expect(run.outputs.map((one) => one.verdict)).toEqual(["better", "better", "same", "fading"]);
    expect(run.outputs[3]?.againstFirst).toBeCloseTo(-10, 9);
    expect(run.outputs[3]?.againstBaseline).toBeCloseTo(-5.26, 2);
    expect(run.endProposed).toMatchObject({ item: 1 });
    expect(fold(shape, [jump(1, 40), jump(2, 36.1)]).endProposed).toBeUndefined();
    expect(fold(shape, [jump(1, 40), jump(2, 35), jump(3, 40)]).endProposed).toBeUndefined();
  });

  it("takes a sprint's time the other way round, and the best of several tries", () => {
    const sprint = {
      ...shape,
      items: [item({ name: "Sprint", kind: "sprint", output: "time", reps: 20 })],
    };
    const out = (round: number, value: number): RunTap => ({ ...jump(round, value), item: 0 });
    const run = fold(sprint, [out(1, 3), out(1, 2.9), out(2, 3.3)]);
    expect(run.outputs[0]?.value).toBe(2.9);
    expect(run.outputs[1]).toMatchObject({ verdict: "fading" });
    expect(run.endProposed?.lossPercent).toBeCloseTo(13.79, 2);
  });

  it("keeps output by side, and ends by the side that lost", () => {
    const turn = {
      ...shape,
      items: [item({ name: "Turn", kind: "throw", output: "distance", sides: true, reps: 3 })],
    };
    const out = (round: number, side: "left" | "right", value: number): RunTap => ({
      ...jump(round, value),
      kind: "output",
      item: 0,
      side,
      value,
    });
    const run = fold(turn, [
      out(1, "left", 10),
      out(1, "right", 8),
      out(2, "left", 10),
      out(2, "right", 7),
    ]);
    expect(run.outputs.map((one) => [one.round, one.side, one.value, one.verdict])).toEqual([
      [1, "left", 10, "same"],
      [1, "right", 8, "same"],
      [2, "left", 10, "same"],
      [2, "right", 7, "fading"],
    ]);
    const lost = { item: 0, side: "right", lossPercent: expect.closeTo(12.5, 9) };
    expect(run.endProposed).toEqual(lost);
    // The other side holds, whichever comes first: the side that lost still speaks.
    const other = fold(turn, [
      out(1, "left", 8),
      out(1, "right", 10),
      out(2, "left", 7),
      out(2, "right", 10),
    ]);
    expect(other.endProposed).toEqual({ ...lost, side: "left" });
  });

  it("counts both sides as done unless one tap says otherwise, and fills nothing in", () => {
    const turn = { ...shape, items: [item({ name: "Turn", kind: "throw", sides: true, reps: 3 })] };
    const both = fold(turn, [tap("start", 1, 0, 0), tap("done", 1, 0, 9)]);
    expect(both.sides).toEqual([{ round: 1, item: 0, left: 3, right: 3 }]);
    const left: RunTap = {
      id: "l",
      kind: "sides",
      round: 1,
      item: 0,
      left: 3,
      right: 0,
      mark: markAt(0),
    };
    const one = fold(turn, [tap("start", 1, 0, 0), tap("done", 1, 0, 9), left]);
    expect(one.sides).toEqual([{ round: 1, item: 0, left: 3, right: 0 }]);
    // Not finished: nothing counts. Not by sides: nothing is told.
    expect(fold(turn, [left]).sides).toEqual([]);
    expect(fold(shape, [tap("done", 1, 2, 9)]).sides).toEqual([]);
  });

  it("holds a load that was set at the rack from its round on", () => {
    const set = (round: number, kg: number): RunTap => ({
      id: `l${round}`,
      kind: "load",
      round,
      item: 0,
      kg,
      mark: markAt(0),
    });
    const run = fold(shape, [set(3, 80), set(2, 75), jump(1, 40), jump(2, 42)]);
    expect([1, 2, 3, 5].map((round) => loadSet(run, 0, round)?.kg)).toEqual([
      undefined,
      75,
      80,
      80,
    ]);
    expect(loadSet(run, 1, 5)).toBeUndefined();
    // The pull is not measured itself: the jump after it tells.
    expect(seekRounds(shape, run, 0, 70)).toEqual({
      measure: { up: true, unit: "cm", name: "Jump: jump height" },
      rounds: [
        { round: 1, loadKg: 70, output: 40 },
        { round: 2, loadKg: 75, output: 42 },
      ],
    });
    expect(seekRounds(shape, run, 2, 70)).toEqual({ measure: undefined, rounds: [] });
    // Its own speed falls with every kilogram: then power tells.
    const press = { ...shape, items: [item({ name: "Press", output: "speed" as const })] };
    const fast = (round: number, value: number): RunTap => ({ ...jump(round, value), item: 0 });
    const pressed = fold(press, [set(2, 75), fast(1, 0.9), fast(2, 0.88)]);
    expect(seekRounds(press, pressed, 0, 70)).toMatchObject({
      measure: { unit: "W" },
      rounds: [
        { output: expect.closeTo(70 * 9.81 * 0.9, 6) },
        { output: expect.closeTo(75 * 9.81 * 0.88, 6) },
      ],
    });
    expect(seekRounds(shape, run, 0, undefined).rounds).toEqual([
      { round: 2, loadKg: 75, output: 42 },
    ]);
  });

  it("lets the first of two starts stand and says that there were two, and stops by hand", () => {
    const first = tap("start", 1, 0, 0);
    const second = { ...tap("start", 1, 0, 4), id: "second" };
    const { run, twice } = foldRun(shape, [first, second], RUN_DEFAULTS);
    expect(run.stage).toMatchObject({ kind: "working", since: first.mark });
    expect(twice).toEqual([{ round: 1, item: 0, kept: first.id, other: "second" }]);
    const stop: RunTap = { id: "s", kind: "stop", round: 1, item: 0, mark: markAt(2) };
    expect(fold(shape, [first, stop]).stage).toEqual({ kind: "over", why: "stopped" });
  });
});
