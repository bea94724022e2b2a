import { randomUUID } from "node:crypto";
import { describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION } from "../../core/floor/entries";
import { BatchSchema, EntrySchema, MOST_ENTRIES } from "./entries";

const envelope = {
  id: randomUUID(),
  deviceId: randomUUID(),
  bootId: randomUUID(),
  deviceSeq: 1,
  monoMs: 1000,
  wallTime: "2026-03-10T16:30:00.000Z",
  supersedes: [],
  schemaVersion: ENTRY_SCHEMA_VERSION,
};
const work = { athleteId: randomUUID(), slotId: "pairing", stationId: randomUUID() };
const at = { ...work, round: 1, item: 0 };
const takes = (body: object, over: object = {}) =>
  EntrySchema.safeParse({ ...envelope, body, ...over }).success;

describe("taps of a pairing as a tablet sends them", () => {
  it.each<[what: string, body: object, good: boolean]>([
    ["a start", { kind: "item-start" }, true],
    ["a finish with a reason", { kind: "item-done", why: "Logged late" }, true],
    ["an output of a side", { kind: "item-output", value: 8.2, side: "left" }, true],
    ["an output of no side there is", { kind: "item-output", value: 8.2, side: "up" }, false],
    ["an output of nothing", { kind: "item-output", value: 0 }, false],
    ["a baseline", { kind: "item-baseline", value: 40 }, true],
    ["sides", { kind: "item-sides", left: 3, right: 0 }, true],
    ["half a rep to a side", { kind: "item-sides", left: 1.5, right: 0 }, false],
    ["a load", { kind: "item-load", kg: 62.5 }, true],
    ["a load under nothing", { kind: "item-load", kg: -5 }, false],
    ["a stop with its reason", { kind: "pairing-stop", reason: "Pain" }, true],
    ["a stop whose reason cannot be kept", { kind: "pairing-stop", reason: "a\u0000" }, false],
    ["a kind that nobody knows", { kind: "cheer" }, false],
    ["a round before the first", { kind: "item-start", round: 0 }, false],
    ["a place that no complex has", { kind: "item-start", item: 12 }, false],
    ["somebody without an id", { kind: "item-start", athleteId: "Ann" }, false],
    ["no station", { kind: "item-start", stationId: undefined }, false],
  ])("%s", (_, body, good) => {
    expect(takes({ ...at, ...body })).toBe(good);
  });
});

describe("versions", () => {
  const rep = {
    kind: "rep",
    athleteId: randomUUID(),
    slotId: "main",
    setKey: "w1.s1.1",
    rep: 1,
    outcome: "counted",
    source: "typed",
  };

  it("version 1 names no station, later ones do, and nobody sends a newer one", () => {
    expect(takes(rep, { schemaVersion: 1 })).toBe(true);
    expect(takes(rep)).toBe(false);
    expect(takes({ ...rep, stationId: randomUUID() })).toBe(true);
    expect(takes({ ...rep, stationId: randomUUID() }, { schemaVersion: 2 })).toBe(true);
    expect(takes({ ...rep, stationId: randomUUID() }, { schemaVersion: 4 })).toBe(false);
  });

  it("what only the server says is not taken from a tablet", () => {
    const parsed = EntrySchema.parse({
      ...envelope,
      schemaVersion: 1,
      body: rep,
      seq: 7,
      doubt: "time-unknown",
      madeAt: "2026-03-10T16:30:00.000Z",
      by: "somebody",
    });
    expect(Object.keys(parsed)).not.toEqual(
      expect.arrayContaining([expect.stringMatching(/^(seq|doubt|madeAt|by)$/)]),
    );
  });
});

it("a batch holds up to so many entries, or the clock alone", () => {
  const clock = { deviceId: randomUUID(), bootId: randomUUID(), monoMs: 1, wallMs: 1 };
  const batch = (input: object) => BatchSchema.safeParse(input).success;
  expect(batch({ entries: [{}] })).toBe(true);
  expect(batch({ entries: [] })).toBe(false);
  expect(batch({ entries: [], clock })).toBe(true);
  expect(batch({ entries: Array(MOST_ENTRIES + 1).fill({}) })).toBe(false);
  expect(batch({ entries: [], clock: { ...clock, monoMs: Number.NaN } })).toBe(false);
});
