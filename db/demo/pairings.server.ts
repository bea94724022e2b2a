import type { ItemNumber } from "../../core/contrast/item-load";
import type { RunEntry, Side } from "../../core/contrast/run";
import { addDays, type LocalDate } from "../../core/units/time";
import { addRun, appendRunEntries, endRun, listComplexes } from "../queries/contrast.server";
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
  people: ReadonlyArray<{ id: string }>,
  now: Date,
  today: LocalDate,
): Promise<void> {
  const complexes = await listComplexes(tx);
  for (const demo of PAIRINGS) {
    const complex = complexes.find((one) => one.complex.name === demo.name)?.complex;
    if (!complex) throw new Error(`The demo has no complex ${demo.name}.`);
    const runId = uuid();
    const startMs = now.getTime() - demo.daysAgo * 86_400_000;
    await addRun(tx, {
      id: runId,
      complex,
      athletes: people.map((one) => ({
        athleteId: one.id,
        simpler: false,
        loads: demo.loads,
      })),
      date: addDays(today, -demo.daysAgo),
      enteredBy: COACH,
      enteredAt: new Date(startMs),
    });
    const entries = people.flatMap((person, who) => {
      let atMs = startMs + 15_000 * who;
      const taps: RunEntry[] = [];
      for (let round = 1; round <= complex.rounds; round++) {
        complex.items.forEach((item, i) => {
          const at = { athleteId: person.id, round, item: i };
          const begun = atMs;
          const over = begun + 12_000;
          atMs = over + 1000 * (i === complex.items.length - 1 ? complex.restS : item.gapS);
          taps.push(
            { id: uuid(), kind: "start", ...at, atMs: begun },
            { id: uuid(), kind: "done", ...at, atMs: over },
          );
          const leftOnly = item.sides && demo.leftOnly?.(who, round);
          if (leftOnly)
            taps.push({ id: uuid(), kind: "sides", left: item.reps, right: 0, ...at, atMs: over });
          if (item.output === "none") return;
          const sides: Array<Side | undefined> = item.sides
            ? leftOnly
              ? ["left"]
              : ["left", "right"]
            : [undefined];
          for (const side of sides)
            taps.push({
              id: uuid(),
              kind: "output",
              value: Math.round(10 * demo.output(who, round, side)) / 10,
              ...(side ? { side } : {}),
              ...at,
              atMs: over,
            });
        });
      }
      return taps;
    });
    await appendRunEntries(tx, { runId, entries, by: COACH, at: new Date(startMs) });
    await endRun(tx, runId, new Date(startMs + 900_000));
  }
}
