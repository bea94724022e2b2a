import { RUNGS } from "../../core/boxsquat/ladder";
import { DEFAULT_GAPS_MIN } from "../../core/contrast/gap-test";
import { seededRandom } from "../../core/numeric/random";
import { addDays, type LocalDate } from "../../core/units/time";
import {
  addBoxSetup,
  addCard,
  addFaultNote,
  addLadderGroup,
  addLadderMarks,
  confirmCard,
} from "../queries/box.server";
import { ensureComplexes, keepGapDay } from "../queries/contrast.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { loadPairings, loadPulls } from "./pairings.server";
import { uuidFrom } from "./uuid";

const SEED = 60606;
const COACH = "Callum Reyk";

/** The judo squad on the teaching ladder, set-ups on the box, and gap tests of the paddlers. */
export async function loadBoxAndContrast(
  tx: TeamTransaction,
  now: Date,
  today: LocalDate,
): Promise<void> {
  const random = seededRandom(SEED);
  const uuid = uuidFrom(random);
  const entered = { enteredBy: COACH, enteredAt: now };
  await ensureComplexes(tx, uuid);
  const squads = await tx.select().from(schema.squad);
  const people = await tx.select().from(schema.athlete).orderBy(schema.athlete.name);
  const judo = squads.find((one) => one.name === "Judo");
  const [box] = (await tx.select().from(schema.liftVariant)).filter(
    (one) => one.lift === "box-squat",
  );
  if (!judo || !box) return;
  const judoka = people.filter((one) => one.squadId === judo.id);

  await addLadderGroup(tx, {
    id: uuid(),
    squadId: judo.id,
    startedOn: addDays(today, -9),
    early: false,
    note: "",
    ...entered,
  });
  for (const [i, person] of judoka.entries()) {
    const reached = i === judoka.length - 1 ? 3 : 5 + (i % 3);
    const marks = RUNGS.slice(0, reached).map((rung, at) => ({
      id: uuid(),
      athleteId: person.id,
      rungId: rung.id,
      outcome: "passed" as const,
      date: addDays(today, -9 + at),
      note: "",
      ...(rung.id === "light-doubles"
        ? { load: { amount: 40 + 5 * (i % 3), unit: "kg" as const }, variantId: box.id }
        : {}),
      ...entered,
    }));
    await addLadderMarks(tx, marks);
    await addBoxSetup(tx, {
      id: uuid(),
      athleteId: person.id,
      variantId: box.id,
      styleId: i % 2 === 0 ? "wide" : "athletic",
      contact: i % 2 === 0 ? "weight" : "tight",
      distanceCm: 18 + 2 * (i % 4),
      cues: "Hips back first; Full stop; Knees out",
      styleNote: "",
      freeSquatSigned: true,
      rehearsedOn: i % 3 === 2 ? null : addDays(today, -4),
      rehearsedBy: i % 3 === 2 ? null : COACH,
      ...entered,
    });
  }
  const [first] = judoka;
  if (first) {
    for (const [daysAgo, percent] of [
      [30, 60],
      [4, 78],
    ] as const) {
      await addFaultNote(tx, {
        id: uuid(),
        athleteId: first.id,
        fault: "Knees in",
        date: addDays(today, -daysAgo),
        percent,
        ...entered,
      });
    }
  }

  const cardId = uuid();
  await addCard(tx, {
    id: cardId,
    version: 1,
    cues: [
      "Two steps, then still",
      "One breath, from hooks to top",
      "Hips back first, shins upright",
      "Full stop, nothing moves",
      "Whole foot, drive the floor apart",
    ],
    ...entered,
  });
  await confirmCard(tx, { id: uuid(), cardId, userId: "demo-coach", ...entered });

  const canoe = squads.find((one) => one.name === "Sprint canoe");
  await loadPulls(tx, uuid, [judo.id, ...(canoe ? [canoe.id] : [])], now, today);
  await loadPairings(tx, uuid, judoka.slice(0, 4), now, today);

  // Two days each of four paddlers: one with a clear gap, one without, two in between.
  const kayak = squads.find((one) => one.name === "Sprint kayak");
  const paddlers = people.filter((one) => one.squadId === kayak?.id).slice(0, 4);
  const truths = [
    { gain: 2.6, bestMin: 7, level: 41 },
    { gain: 0, bestMin: 6, level: 34 },
    { gain: 2.4, bestMin: 4, level: 38 },
    { gain: 1.1, bestMin: 8, level: 45 },
  ];
  for (const [i, person] of paddlers.entries()) {
    const truth = truths[i] as (typeof truths)[number];
    for (const daysAgo of [10, 3]) {
      const level = truth.level + 0.4 * random.normal();
      const read = (value: number) => Math.round(10 * (value + 0.4 * random.normal())) / 10;
      await keepGapDay(tx, {
        id: uuid(),
        athleteId: person.id,
        date: addDays(today, -daysAgo),
        trial: "jump",
        output: "height",
        heavySet: "Back squat, 2 at 85 %",
        baseline: [read(level), read(level), read(level)],
        trials: DEFAULT_GAPS_MIN.map((gapMin) => ({
          gapMin,
          value: read(
            level +
              truth.gain * Math.exp(-0.5 * ((gapMin - truth.bestMin) / 2.4) ** 2) -
              0.8 * Math.exp(-gapMin),
          ),
        })),
        ...entered,
      });
    }
  }
}
