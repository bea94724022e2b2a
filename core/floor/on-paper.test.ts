import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testSession } from "./fixtures/session";
import { type FrozenLift, liftsOf } from "./frozen";
import { forPaper, liftOnPaper, loadFigure, pagesOf, runsOnPaper, schemeOf } from "./on-paper";

const set = (number: number, loadKg: number | undefined, over: object = {}) =>
  ({
    key: `s${number}`,
    number,
    reps: 3,
    cycleItem: undefined,
    percentOf: "",
    asked: "60 %",
    loadKg,
    loadReason: loadKg === undefined ? "no max" : undefined,
    side: loadKg === undefined ? [] : [{ amount: (loadKg - 20) / 2, unit: "kg" as const }],
    truePercent: undefined,
    informationOnly: false,
    overridden: false,
    target: undefined,
    working: { title: "", lines: [] },
    ...over,
  }) as never;

describe("a lifter's sets on paper", () => {
  it("stand together while load, reps and what was asked stay", () => {
    const runs = runsOnPaper({ sets: [set(1, 60), set(2, 60), set(3, 70), set(4, 60)] });
    expect(runs.map((run) => [run.sets.map((one) => one.number), run.loadKg, run.side])).toEqual([
      [[1, 2], 60, "20"],
      [[3], 70, "25"],
      [[4], 60, "20"],
    ]);
    expect(schemeOf(runs)).toBe("4 × 3");
  });

  it("say why there is no load, and the reps of each where they differ", () => {
    const runs = runsOnPaper({
      sets: [set(1, undefined), set(2, undefined, { reps: 5, repsTo: 8 })],
    });
    expect(runs.map((run) => [loadFigure(run, "kg"), run.reason, run.side])).toEqual([
      ["–", "no max", undefined],
      ["–", "no max", undefined],
    ]);
    expect(schemeOf(runs)).toBe("3 + 5 to 8");
  });

  it("never lose a set, whatever comes after what", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.constantFrom(undefined, 60, 70, 72.5), fc.integer({ min: 1, max: 5 })),
        ),
        (all) => {
          const sets = all.map(([kg, reps], i) => set(i + 1, kg, { reps }));
          const back = runsOnPaper({ sets }).flatMap((run) =>
            run.sets.map((one) => [one.number, run.loadKg, run.reps]),
          );
          expect(back).toEqual(all.map(([kg, reps], i) => [i + 1, kg, reps]));
        },
      ),
    );
  });
});

describe("a lift on paper", () => {
  it("has every lifter with the loads of their station, and what all are told once", () => {
    const session = testSession();
    for (const lift of liftsOf(session)) {
      const slot = session.slots.find((one) => one.slotId === lift.slotId) as FrozenLift;
      const paper = liftOnPaper(session, slot);
      const settled = lift.racks.flatMap((rack) =>
        rack.lifters.map((one) => [rack.name, one.athleteId, one.sets.map((own) => own.loadKg)]),
      );
      expect(
        paper.lifters.map((one) => [
          one.station,
          one.athleteId,
          one.runs.flatMap((run) => run.sets.map(() => run.loadKg)),
        ]),
      ).toEqual(settled);
      for (const one of paper.lifters)
        for (const line of paper.how) expect(one.lines).not.toContain(line);
    }
  });
});

describe("what paper is sent", () => {
  it("draws the same, without workings, tested lines and who is refused", () => {
    const session = {
      ...testSession(),
      leftOut: [{ athleteId: "bo", slotId: "slot", code: "age" }],
    };
    const sent = forPaper(session);
    const [slot] = session.slots as FrozenLift[];
    const [thin] = sent.slots as FrozenLift[];
    if (!slot || !thin) throw new Error("no lift");
    expect(liftOnPaper(sent, thin).lifters).toEqual(liftOnPaper(session, slot).lifters);
    expect(sent.leftOut).toBeUndefined();
    expect(JSON.stringify(sent)).not.toMatch(/"(tested|rampKg|pins|hang|resistance)":/);
  });
});

describe("what is said first", () => {
  it("is in the reader's unit on the wall and in the athlete's on a card, and there once", () => {
    const session = testSession(["ann"], 1);
    const [slot] = session.slots as FrozenLift[];
    const [lifter] = slot?.groups[0]?.lifters ?? [];
    if (!slot || !lifter) throw new Error("no lifter");
    lifter.bestKg = 50;
    lifter.unit = "lb";
    lifter.setup = ["20 s more rest than the slot gives"];
    lifter.addRestS = 20;
    const other = { ...lifter, athleteId: "bo", setup: [], addRestS: undefined };
    slot.groups[0]?.lifters.push(other as never);
    const wall = liftOnPaper(session, slot, "kg").lifters[0];
    expect(wall?.first.join()).toContain("60 kg is above the lifetime best of 50 kg");
    const card = liftOnPaper(session, slot).lifters[0];
    expect(card?.first.join()).toContain("lb");
    expect(card?.lines).toEqual(["20 s more rest than the slot gives"]);
  });
});

describe("lines on pages", () => {
  const line = fc.record({
    mm: fc.integer({ min: 5, max: 40 }),
    group: fc.constantFrom("1", "2", "3"),
  });

  it("all stand there once, in order, and no page is fuller than it is high", () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 60 }), (lines) => {
        const pages = pagesOf(lines, {
          mm: (one) => one.mm,
          group: (one) => one.group,
          mostMm: 130,
        });
        expect(pages.flat()).toEqual(lines);
        for (const page of pages)
          expect(page.reduce((sum, one) => sum + one.mm, 0)).toBeLessThanOrEqual(130);
      }),
    );
  });

  it("keep a group together where a page holds it", () => {
    const lines = [..."aaabbbb"].map((group) => ({ group }));
    const pages = pagesOf(lines, { mm: () => 25, group: (one) => one.group, mostMm: 130 });
    expect(pages.map((page) => page.map((one) => one.group).join(""))).toEqual(["aaa", "bbbb"]);
  });
});
