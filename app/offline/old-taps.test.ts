import { randomUUID } from "node:crypto";
import { expect, it } from "vitest";
import { EntrySchema } from "../forms/entries";
import { oldTaps } from "./old-taps";

it("taps that waited before pairings joined the log are entries of it", () => {
  const [run, device, athleteId] = [randomUUID(), randomUUID(), randomUUID()];
  const at = { athleteId, round: 1, item: 0, atMs: Date.parse("2026-03-10T16:30:00Z") };
  const start = { id: randomUUID(), kind: "start", device, ...at };
  const taps = [
    start,
    { id: randomUUID(), kind: "output", value: 41, side: "left", ...at },
    { id: randomUUID(), kind: "stop", reason: "Pain", ...at },
    { id: randomUUID(), kind: "void", of: start.id, ...at },
  ];
  const kept = new Map([
    [`pairing-unsent/${run}`, JSON.stringify(taps)],
    ["pairing-unsent/broken", "{"],
    ["theme", "chalk"],
  ]);
  const storage = {
    length: kept.size,
    key: (i: number) => [...kept.keys()][i] ?? null,
    getItem: (key: string) => kept.get(key) ?? null,
  };
  const mine = randomUUID();
  const [found, ...more] = oldTaps(storage, mine);
  expect(more).toEqual([]);
  expect(found?.key).toBe(`pairing-unsent/${run}`);
  const entries = found?.kept.map((one) => one.entry) ?? [];
  expect(entries.map((entry) => entry.body.kind)).toEqual([
    "item-start",
    "item-output",
    "pairing-stop",
    "void",
  ]);
  expect(entries.map((entry) => entry.deviceId)).toEqual([device, mine, mine, mine]);
  expect(entries[3]?.supersedes).toEqual([start.id]);
  for (const entry of entries) expect(EntrySchema.safeParse(entry).error?.issues).toBeUndefined();
});
