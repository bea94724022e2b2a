import type { Complex } from "../../core/contrast/complex";
import type { ItemNumber } from "../../core/contrast/item-load";
import type { Side } from "../../core/contrast/run";
import { runSettings } from "../../core/contrast/run-settings";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../core/floor/entries";
import { freezePairing, PAIRING_SLOT } from "../../core/floor/freeze-pairing";
import { addDays, type LocalDate } from "../../core/units/time";
import { listComplexes } from "../queries/contrast.server";
import { allotSeq, endSession, insertEntries, insertSession } from "../queries/sessions.server";
import { listRooms } from "../queries/squads.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";

const COACH = "Callum Reyk";

/** A pairing as the demo tells it: who faded in the last round, who left a side out. */
interface DemoPairing {
  name: string;
  daysAgo: number;
  loads: ItemNumber[];
  /** Output of an item in a round for the n-th athlete; nothing where it is not written down. */
  output: (who: number, round: number, side: Side | undefined) => number;
  /** The n-th athlete left the right side out in this round. */
  leftOnly?: (who: number, round: number) => boolean;
}

const PAIRINGS: readonly DemoPairing[] = [
  {
    // The second fades in the last round.
    name: "First pairing",
    daysAgo: 6,
    loads: [{ words: "12 kg", kg: 12 }, { words: "body weight" }],
    output: (who, round) => (34 + 2 * who) * (who === 1 && round === 3 ? 0.88 : 1),
  },
  {
    name: "Rotation both ways",
    daysAgo: 4,
    loads: [
      { words: "60 kg", kg: 60 },
      { words: "4 kg", kg: 4 },
    ],
    output: (who, round, side) => 8.2 + 0.4 * who + 0.1 * round - (side === "right" ? 0.5 : 0),
    leftOnly: (who, round) => who === 0 && round === 4,
  },
];

/** Of the squat, to the nearest 2.5 kg: what the demo's athletes pull. */
const PULL_TO_SQUAT = 1.12;

/** Tested pulls of some squads, one of each squad untested: a share needs a max. */
export async function loadPulls(
  tx: TeamTransaction,
  uuid: () => string,
  squadIds: readonly string[],
  now: Date,
  today: LocalDate,
): Promise<void> {
  const variants = await tx.select().from(schema.liftVariant);
  const squat = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
  const pull = variants.find((one) => one.lift === "deadlift");
  if (!squat || !pull) throw new Error("The demo has no squat or no deadlift.");
  const records = (await tx.select().from(schema.maxRecord)).filter(
    (one) => one.variantId === squat.id,
  );
  for (const squadId of squadIds) {
    const people = (await tx.select().from(schema.athlete))
      .filter((one) => one.squadId === squadId)
      .sort((a, b) => a.name.localeCompare(b.name));
    for (const person of people.slice(0, -1)) {
      const of = records.find((one) => one.athleteId === person.id);
      if (!of) continue;
      const recordId = uuid();
      await tx.insert(schema.maxRecord).values({
        teamId: tx.teamId,
        id: recordId,
        athleteId: person.id,
        variantId: pull.id,
        load: { amount: 2.5 * Math.round((PULL_TO_SQUAT * of.load.amount) / 2.5), unit: "kg" },
        date: addDays(today, -27),
        kind: "tested",
        note: "Single from the floor",
        enteredBy: COACH,
        enteredAt: now,
      });
      await tx.insert(schema.workingMaxChoice).values({
        teamId: tx.teamId,
        id: uuid(),
        athleteId: person.id,
        variantId: pull.id,
        recordId,
        chosenBy: COACH,
        chosenAt: now,
      });
    }
  }
}

/** Pairings of the last days, run to their end by some athletes. */
export async function loadPairings(
  tx: TeamTransaction,
  uuid: () => string,
  people: ReadonlyArray<{ id: string; name: string }>,
  now: Date,
  today: LocalDate,
): Promise<void> {
  const complexes = await listComplexes(tx);
  const zone = (await listRooms(tx))[0]?.zone ?? "UTC";
  for (const demo of PAIRINGS) {
    const complex = complexes.find((one) => one.complex.name === demo.name)?.complex;
    if (!complex) throw new Error(`The demo has no complex ${demo.name}.`);
    const id = uuid();
    const startedAt = new Date(now.getTime() - demo.daysAgo * 86_400_000);
    const date = addDays(today, -demo.daysAgo);
    await insertSession(tx, {
      id,
      slotId: PAIRING_SLOT,
      date,
      status: "running",
      frozen: freezePairing({
        complex,
        settings: runSettings({}),
        athletes: people.map((one) => ({
          athleteId: one.id,
          name: one.name,
          unit: "kg",
          simpler: false,
          loads: demo.loads,
        })),
        place: { id, name: "Floor" },
        date,
        zone,
      }),
      startedAt,
      startedBy: COACH,
    });
    const entries = people.flatMap((person, who) => tapsOf(demo, complex, { id, person, who }));
    entries.sort((a, b) => a.atS - b.atS);
    const deviceId = uuid();
    const bootId = uuid();
    await allotSeq(tx, id, entries.length);
    await insertEntries(
      tx,
      id,
      startedAt,
      entries.map(({ atS, body }, i) => ({
        id: uuid(),
        deviceId,
        bootId,
        deviceSeq: i,
        monoMs: 1000 * atS,
        wallTime: new Date(startedAt.getTime() + 1000 * atS).toISOString(),
        supersedes: [],
        schemaVersion: ENTRY_SCHEMA_VERSION,
        body,
        seq: i + 1,
        author: "demo",
      })),
    );
    await endSession(tx, id, new Date(startedAt.getTime() + 900_000));
  }
}

const WORK_S = 12;

/** One athlete's taps through all rounds, in seconds from the start. */
function tapsOf(
  demo: DemoPairing,
  complex: Complex,
  of: { id: string; person: { id: string }; who: number },
): Array<{ atS: number; body: EntryBody }> {
  const { who } = of;
  const taps: Array<{ atS: number; body: EntryBody }> = [];
  let atS = 15 * who;
  for (let round = 1; round <= complex.rounds; round++) {
    complex.items.forEach((item, i) => {
      const at = {
        athleteId: of.person.id,
        slotId: PAIRING_SLOT,
        stationId: of.id,
        round,
        item: i,
      };
      const overS = atS + WORK_S;
      taps.push(
        { atS, body: { kind: "item-start", ...at } },
        { atS: overS, body: { kind: "item-done", ...at } },
      );
      atS = overS + (i === complex.items.length - 1 ? complex.restS : item.gapS);
      const leftOnly = item.sides && demo.leftOnly?.(who, round);
      if (leftOnly)
        taps.push({
          atS: overS,
          body: { kind: "item-sides", left: item.reps, right: 0, ...at },
        });
      if (item.output === "none") return;
      const sides: Array<Side | undefined> = item.sides
        ? leftOnly
          ? ["left"]
          : ["left", "right"]
        : [undefined];
      for (const side of sides)
        taps.push({
          atS: overS,
          body: {
            kind: "item-output",
            value: Math.round(10 * demo.output(who, round, side)) / 10,
            ...(side ? { side } : {}),
            ...at,
          },
        });
    });
  }
  return taps;
}
