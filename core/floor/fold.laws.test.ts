import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testComplex } from "../contrast/fixtures/complex";
import { RUN_DEFAULTS } from "../contrast/run-settings";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "./entries";
import { RACK, SLOT, stored, TestDevice, testSession } from "./fixtures/session";
import type { FrozenSession } from "./frozen";
import { FloorFold, type FloorState, reduceFloor } from "./state";

/** A lift and a pairing in one session: what a day is made of. */
const PAIRING = "pairing";
const WALL = "wall";
const people = ["ann", "bo", "cy"];
const session: FrozenSession = (() => {
  const lifted = testSession(people);
  return {
    ...lifted,
    stations: [...lifted.stations, { kind: "place", id: WALL, name: "Wall" }],
    slots: [
      ...lifted.slots,
      {
        kind: "pairing",
        slotId: PAIRING,
        complex: testComplex,
        settings: RUN_DEFAULTS,
        groups: [
          {
            stationId: WALL,
            athletes: people.map((athleteId) => ({
              athleteId,
              name: athleteId,
              unit: "kg" as const,
              simpler: false,
              loads: [],
            })),
          },
        ],
      },
    ],
  };
})();

type Body = Exclude<EntryBody, { kind: "void" | "admit" }>;

const body: fc.Arbitrary<Body> = fc.oneof(
  fc.record({
    kind: fc.constant("rep" as const),
    athleteId: fc.constantFrom(...people),
    slotId: fc.constant(SLOT),
    stationId: fc.constant(RACK),
    setKey: fc.constantFrom("w1.a.1", "w1.a.2"),
    rep: fc.integer({ min: 1, max: 3 }),
    mcvMps: fc.double({ min: 0.4, max: 1.2, noNaN: true }),
    outcome: fc.constantFrom("counted" as const, "failed" as const),
    source: fc.constant("sensor" as const),
  }),
  fc.record({
    kind: fc.constant("set-done" as const),
    athleteId: fc.constantFrom(...people),
    slotId: fc.constant(SLOT),
    stationId: fc.constant(RACK),
    setKey: fc.constantFrom("w1.a.1", "w1.a.2"),
    loadKg: fc.constantFrom(55, 60),
    endedBy: fc.constant("cap" as const),
    cut: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant("fault" as const),
    athleteId: fc.constantFrom(...people, "stranger"),
    slotId: fc.constant(SLOT),
    stationId: fc.constant(RACK),
    setKey: fc.constantFrom("w1.a.1", "w1.a.9"),
    fault: fc.constantFrom("Short range", "Out of line"),
    cut: fc.boolean(),
  }),
  fc.record({
    kind: fc.constantFrom("item-start" as const, "item-done" as const),
    athleteId: fc.constantFrom(...people),
    slotId: fc.constant(PAIRING),
    stationId: fc.constant(WALL),
    round: fc.integer({ min: 1, max: 2 }),
    item: fc.integer({ min: 0, max: 1 }),
  }),
  fc.record({
    kind: fc.constant("item-load" as const),
    athleteId: fc.constantFrom(...people),
    slotId: fc.constant(PAIRING),
    stationId: fc.constant(WALL),
    round: fc.integer({ min: 1, max: 9 }),
    item: fc.integer({ min: 0, max: 1 }),
    kg: fc.constantFrom(10, 12, 14),
  }),
);

type Step =
  | { what: "log"; by: number; body: Body }
  | { what: "correct" | "void"; by: number; of: number[]; body: Body }
  | { what: "newer"; by: number; of: number[]; body: Body };

const by = fc.integer({ min: 0, max: 2 });
const of = fc.array(fc.nat(40), { minLength: 1, maxLength: 3 });
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ what: fc.constant("log" as const), by, body }) },
  {
    weight: 3,
    arbitrary: fc.record({
      what: fc.constantFrom("correct" as const, "void" as const),
      by,
      of,
      body,
    }),
  },
  { weight: 1, arbitrary: fc.record({ what: fc.constant("newer" as const), by, of, body }) },
);

const shuffled = (entries: readonly LogEntry[], order: readonly number[]) =>
  entries
    .map((entry, i) => ({ entry, at: order[i % (order.length || 1)] ?? 0, i }))
    .sort((a, b) => a.at - b.at || b.i - a.i)
    .map(({ entry }) => entry);

/** A log as several devices write it: corrections of one and of many, of each other, voids. */
const log: fc.Arbitrary<LogEntry[]> = fc
  .tuple(fc.array(step, { maxLength: 25 }), fc.array(fc.nat(), { maxLength: 25 }))
  .map(([steps, numbering]) => {
    const devices = ["one", "two", "three"].map((id) => new TestDevice(id));
    const entries: LogEntry[] = [];
    for (const one of steps) {
      const device = devices[one.by];
      if (!device) continue;
      if (one.what === "log") {
        entries.push(device.entry(one.body));
        continue;
      }
      const targets = [
        ...new Set(one.of.flatMap((at) => entries[at % (entries.length || 1)] ?? [])),
      ];
      const ids = targets.map((entry) => entry.id);
      const entry = device.entry(one.what === "void" ? { kind: "void" } : one.body, ids);
      entries.push(one.what === "newer" ? { ...entry, schemaVersion: 99 } : entry);
    }
    // Numbered as the server may come to number them: what is corrected after its correction, too.
    return stored(numbering.length === 0 ? entries : shuffled(entries, numbering));
  });

const counting = (fold: FloorFold) =>
  [SLOT, PAIRING].flatMap((slotId) =>
    people.flatMap((who) => fold.counting(slotId, who).map((one) => one.entry.id)),
  );

/** Which entries count, with no regard to speed: the rules of corrections, word by word. */
function countingBySlowRules(entries: readonly LogEntry[]): Set<string> {
  const valid = [...entries]
    .sort((a, b) => (a.seq ?? 0) - (b.seq ?? 0))
    .filter((one) => reduceFloor(session, [{ ...one, supersedes: [] }]).setAside.length === 0);
  const corrections = valid.filter((one) => one.supersedes.length > 0);
  const acting = new Set<LogEntry>();
  const reached = new Set<LogEntry>();
  const actingOn = (id: string) => [...acting].filter((one) => one.supersedes.includes(id));
  const begin = (one: LogEntry) => {
    if (actingOn(one.id).some((other) => other.body.kind === "void")) return;
    if (one.supersedes.some((target) => actingOn(target).length > 0)) return;
    acting.add(one);
    if (one.body.kind !== "void") return;
    // What it voids acts no more; where that was a void itself, what it had voided acts again.
    const voided = corrections.filter((other) => one.supersedes.includes(other.id));
    const stopped = voided.filter((other) => acting.delete(other) && other.body.kind === "void");
    for (const again of corrections)
      if (reached.has(again) && stopped.some((other) => other.supersedes.includes(again.id)))
        begin(again);
  };
  for (const one of corrections) {
    reached.add(one);
    begin(one);
  }
  return new Set(
    valid
      .filter((one) => one.body.kind !== "void" && actingOn(one.id).length === 0)
      .filter((one) => one.supersedes.length === 0 || acting.has(one))
      .map((one) => one.id),
  );
}

const order = fc.array(fc.nat(), { minLength: 1, maxLength: 25 });

describe("laws of the fold, with corrections", () => {
  it("what counts is what the rules say: valid first, all targets or none, given back when voided", () => {
    fc.assert(
      fc.property(log, (entries) => {
        const fold = new FloorFold(session).add(entries);
        expect(new Set(counting(fold))).toEqual(countingBySlowRules(entries));
      }),
      { numRuns: 400 },
    );
  });

  it("no order of arrival changes anything", () => {
    fc.assert(
      fc.property(log, order, (entries, at) => {
        const straight = reduceFloor(session, entries);
        expect(reduceFloor(session, shuffled(entries, at))).toEqual(straight);
      }),
      { numRuns: 300 },
    );
  });

  it("added one by one, looked at in between, unsent first: the same as all at once", () => {
    fc.assert(
      fc.property(log, order, fc.array(fc.boolean()), (entries, at, unsent) => {
        const fold = new FloorFold(session);
        const arriving = shuffled(entries, at);
        arriving.forEach((entry, i) => {
          if (unsent[i]) {
            const { seq: _, ...bare } = entry;
            fold.add([bare]);
            fold.state();
          }
        });
        for (const entry of arriving) {
          fold.add([entry]);
          fold.state();
        }
        expect(fold.state()).toEqual(reduceFloor(session, entries));
      }),
      { numRuns: 300 },
    );
  });

  it("what was taken out again was never there", () => {
    fc.assert(
      fc.property(log, fc.array(fc.boolean()), (entries, out) => {
        const fold = new FloorFold(session).add(entries);
        fold.state();
        const gone = entries.filter((_, i) => out[i]);
        fold.remove(gone.map((entry) => entry.id));
        const left = entries.filter((_, i) => !out[i]);
        const { seq: _, ...state } = fold.state();
        const { seq: __, ...never } = reduceFloor(session, left);
        expect(state).toEqual(never);
      }),
    );
  });

  it("an entry of a newer version changes nothing but that it is set aside", () => {
    fc.assert(
      fc.property(log, (entries) => {
        const known = entries.filter((entry) => entry.schemaVersion === ENTRY_SCHEMA_VERSION);
        const { setAside: _, seq: __, ...all } = reduceFloor(session, entries);
        const { setAside: ___, seq: ____, ...without } = reduceFloor(session, known);
        // Its numbers leave gaps: order is all that they say.
        expect(all).toEqual(without);
      }),
    );
  });

  it("undo and redo: a void of the last correction, and a void of that void", () => {
    fc.assert(
      fc.property(log, (entries) => {
        const before = reduceFloor(session, entries);
        const target = entries.find((entry) =>
          counting(new FloorFold(session).add(entries)).includes(entry.id),
        );
        if (!target) return;
        const device = new TestDevice("undo");
        const undo = { ...device.entry({ kind: "void" }, [target.id]), seq: 900 };
        const redo = { ...device.entry({ kind: "void" }, [undo.id]), seq: 901 };
        const { seq: _, ...redone } = reduceFloor(session, [...entries, undo, redo]);
        const { seq: __, ...was } = before;
        expect(redone).toEqual(was);
      }),
      { numRuns: 60 },
    );
  });
});

const rack = new TestDevice("rack");
const coach = new TestDevice("coach");
const first = (state: FloorState) =>
  state.racks[0]?.lifters[0]?.sets[0]?.reps.map((rep) => rep.velocityMps);

describe("corrections, case by case", () => {
  const wrong = rack.rep("ann", 1, 1, 0.48);
  const next = rack.rep("ann", 1, 2, 0.5);
  const right = coach.entry({ ...wrong.body, mcvMps: 0.84 } as Body, [wrong.id]);
  const take = (of: LogEntry[]) =>
    coach.entry(
      { kind: "void" },
      of.map((entry) => entry.id),
    );
  const fold = (...entries: LogEntry[]) => reduceFloor(testSession(), stored(entries));

  it("a voided correction gives its target back", () => {
    expect(first(fold(wrong, right, take([right])))).toEqual([0.48]);
  });

  it("a correction that is set aside holds nothing", () => {
    const newer = { ...right, schemaVersion: 99 };
    const state = fold(wrong, newer);
    expect(first(state)).toEqual([0.48]);
    expect(state.setAside).toMatchObject([{ entryId: newer.id }]);
    const elsewhere = coach.entry({ ...wrong.body, setKey: "w9.z.9" } as Body, [wrong.id]);
    expect(first(fold(wrong, elsewhere))).toEqual([0.48]);
  });

  it("takes all its targets or none", () => {
    const both = take([wrong, next]);
    const state = fold(wrong, next, right, both);
    expect(first(state)).toEqual([0.84, 0.5]);
    expect(state.conflicts).toEqual([
      { code: "double-correction", of: wrong.id, kept: right.id, other: both.id },
    ]);
  });

  it("a correction of a correction stands, and taking it back leaves the first one", () => {
    const better = coach.entry({ ...wrong.body, mcvMps: 0.86 } as Body, [right.id]);
    expect(first(fold(wrong, right, better))).toEqual([0.86]);
    expect(first(fold(wrong, right, better, take([better])))).toEqual([0.84]);
  });

  it("leaves the detector and the moment of what it corrects", () => {
    const tablet = new TestDevice("r");
    const set = tablet.set("ann", 1, [0.84, 0.86]);
    const again = tablet.wait(90).set("ann", 2, [0.7]);
    const late = new TestDevice("c")
      .wait(4000)
      .entry({ ...again[0]?.body, mcvMps: 0.8 } as Body, [again[0]?.id ?? ""]);
    const rest = (...entries: LogEntry[]) =>
      fold(...entries).racks[0]?.lifters[0]?.sets[1]?.restTaken;
    expect(rest(...set, ...again, late)).toEqual(rest(...set, ...again));
  });

  it("a void of a correction and of what it corrects, taken back, leaves both as they were", () => {
    // Numbered as when the void came before what it names: found by the laws.
    const [v, c, w, undo] = [
      coach.entry({ kind: "void" }, [right.id, wrong.id]),
      right,
      wrong,
      rack.entry({ kind: "void" }, []),
    ];
    expect(first(fold(v, c, w))).toEqual([]);
    expect(first(fold(v, c, w, { ...undo, supersedes: [v.id] }))).toEqual([0.84]);
  });

  it("moves a rep to another athlete and back", () => {
    const moved = coach.entry({ ...wrong.body, athleteId: "bo" } as Body, [wrong.id]);
    const state = fold(wrong, moved);
    expect(first(state)).toEqual([]);
    expect(state.racks[0]?.lifters[1]?.sets[0]?.reps).toHaveLength(1);
    expect(first(fold(wrong, moved, take([moved])))).toEqual([0.48]);
  });

  it("reports a second decision on one call; the first stands", () => {
    const set = rack.set("ann", 1, [0.71, 0.69, 0.66]);
    const say = (device: TestDevice, deltaKg: number) =>
      device.entry({
        kind: "call",
        athleteId: "ann",
        slotId: SLOT,
        stationId: RACK,
        setKey: "w1.a.1",
        call: "lighten",
        decision: "take",
        action: { type: "load", deltaKg, toKg: 60 + deltaKg },
        reason: "",
      });
    const [one, two] = [say(rack, -2.5), say(coach, -5)];
    const state = fold(...set, one, two);
    expect(state.racks[0]?.lifters[0]?.sets[1]?.loadKg).toBe(57.5);
    expect(state.conflicts).toMatchObject([
      { code: "double-decision", kept: one.id, other: two.id },
    ]);
  });

  it("reads version 1, which did not say where", () => {
    const { stationId: _, ...old } = wrong.body as Extract<Body, { stationId: string }>;
    const state = fold({ ...wrong, body: old as Body, schemaVersion: 1 });
    expect(first(state)).toEqual([0.48]);
  });
});

describe("what waits for the coach's word", () => {
  const late: LogEntry = { ...rack.rep("ann", 1, 1, 0.8), seq: 1, doubt: "time-unknown" };
  const word = (take: boolean, seq: number): LogEntry => ({
    ...coach.entry({ kind: "admit", of: [late.id], take }),
    seq,
  });

  it("does not count until it is said, and the newest word stands", () => {
    const waiting = reduceFloor(testSession(), [late]);
    expect(first(waiting)).toEqual([]);
    expect(waiting.doubtful).toEqual([{ entry: late, doubt: "time-unknown" }]);
    const taken = reduceFloor(testSession(), [word(true, 2), late]);
    expect(first(taken)).toEqual([0.8]);
    expect(taken.doubtful).toEqual([]);
    const left = reduceFloor(testSession(), [late, word(true, 2), word(false, 3)]);
    expect(first(left)).toEqual([]);
    expect(left.doubtful).toEqual([]);
  });

  it("holds nothing as a correction while it waits", () => {
    const wrong: LogEntry = { ...rack.rep("bo", 1, 1, 0.4), seq: 1 };
    const doubtful: LogEntry = {
      ...coach.entry({ ...wrong.body, mcvMps: 0.8 } as Body, [wrong.id]),
      seq: 2,
      doubt: "revoked-tablet",
    };
    const reps = (...entries: LogEntry[]) =>
      reduceFloor(testSession(), entries).racks[0]?.lifters[1]?.sets[0]?.reps.map(
        (rep) => rep.velocityMps,
      );
    expect(reps(wrong, doubtful)).toEqual([0.4]);
    const admitted = {
      ...coach.entry({ kind: "admit", of: [doubtful.id], take: true }),
      seq: 3,
    } as LogEntry;
    expect(reps(wrong, doubtful, admitted)).toEqual([0.8]);
  });
});
