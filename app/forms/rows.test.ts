import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { packRows } from "./pack-rows";
import { unpackRows } from "./rows";

const through = <T extends object>(rows: readonly T[]) =>
  unpackRows(JSON.parse(JSON.stringify(packRows(rows)))) as T[];

/** As JSON has it: what is undefined is not there. */
const plain = (value: unknown) => JSON.parse(JSON.stringify(value));

describe("rows as columns", () => {
  it("come back as they went, whatever they hold", () => {
    const value = fc.oneof(
      fc.constantFrom("a", "b", "2026-03-10T16:30:00.000Z", "2026-13-10T16:30:00.000Z", "", null),
      fc.integer(),
      fc.double({ noDefaultInfinity: true, noNaN: true }).filter((one) => !Object.is(one, -0)),
      fc.boolean(),
      fc.uuid(),
      fc.array(fc.uuid(), { maxLength: 2 }),
      fc.dictionary(fc.constantFrom("x", "y"), fc.oneof(fc.integer(), fc.string()), {
        maxKeys: 2,
      }),
    );
    const row = fc.record(
      { id: fc.uuid(), seq: value, body: value, at: value, by: value },
      { requiredKeys: ["id"] },
    );
    fc.assert(
      fc.property(fc.array(row, { maxLength: 40 }), (rows) => {
        expect(through(rows)).toEqual(plain(rows));
      }),
    );
  });

  it("keep the order where shapes take turns, and leave out what is undefined", () => {
    const rows = [
      { id: "1", body: { kind: "rep", rep: 1 }, by: undefined },
      { id: "2", body: { kind: "void" } },
      { id: "3", body: { kind: "rep", rep: 2 }, by: undefined },
    ];
    expect(through(rows)).toEqual(plain(rows));
    expect("by" in (through(rows)[0] ?? {})).toBe(false);
  });

  it("objects of one column do not hang together", () => {
    const shared: string[] = [];
    const [one, other] = through([
      { id: "1", of: shared, body: { a: 1 } },
      { id: "2", of: shared, body: { a: 1 } },
    ]);
    expect(one?.body).not.toBe(other?.body);
  });

  it("a long log is a seventh of its size", () => {
    const uuid = (i: number) => `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`;
    const rows = Array.from({ length: 5000 }, (_, i) => ({
      id: uuid(i),
      deviceId: uuid(90_001 + (i % 6)),
      bootId: uuid(90_011 + (i % 6)),
      deviceSeq: i,
      monoMs: 1000 * i,
      wallTime: new Date(1_770_000_000_000 + 1000 * i).toISOString(),
      receivedAt: new Date(1_770_000_000_500 + 1000 * i).toISOString(),
      supersedes: [],
      schemaVersion: 3,
      seq: i + 1,
      body: {
        kind: "rep",
        athleteId: uuid(80_000 + (i % 28)),
        slotId: "box",
        stationId: uuid(70_000 + (i % 6)),
        setKey: `w1.s1.${i % 9}`,
        rep: (i % 3) + 1,
        mcvMps: 0.9 - (i % 30) / 100,
        outcome: "counted",
        source: "simulated",
      },
    }));
    const [packed, whole] = [JSON.stringify(packRows(rows)), JSON.stringify(rows)];
    expect(packed.length * 7).toBeLessThan(whole.length);
  });
});
