import { boxHeightFromTrial, seatFor } from "../../core/boxsquat/stack";
import { styleById } from "../../core/boxsquat/styles";
import { freezeSession, type LifterSetup, type SessionPlan } from "../../core/floor/freeze";
import { seatStock } from "../../core/gear/room";
import { workingMax } from "../../core/maxes/records";
import { seededRandom } from "../../core/numeric/random";
import { blockOfLift, NOTHING_OWN, slotWeek } from "../../core/plan/block";
import { type Lifter, NO_LIFT_FACTS } from "../../core/prescribe/lifter";
import type { Recipe } from "../../core/recipe/recipe";
import { plainNumber } from "../../core/units/mass";
import { addDays, type LocalDate } from "../../core/units/time";
import type { SimulatedLifter } from "../../device/lifter";
import { addCycleReview } from "../queries/box.server";
import { listComplexes } from "../queries/contrast.server";
import { itemsOf, racksWithHang } from "../queries/gear.server";
import { schoolIdByName } from "../queries/plan-library.server";
import { insertPlan } from "../queries/plans.server";
import { allotSeq, endSession, insertEntries, insertSession } from "../queries/sessions.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { simulateSession } from "./history";
import { publishDemo } from "./publish";
import { uuidFrom } from "./uuid";

const SEED = 61616;
const COACH = "Callum Reyk";
const SQUAD = "Sprint canoe";
const WEEKS_DONE = 5;
/** The cycle's day lies four days before today, so that none of it is due today. */
const DAYS_AGO = 4;
const SMALLEST_STOP_S = 0.4;
/** What the squad's box squats came to, of the free squat. */
const BOX_TO_FREE = 0.7;

/** Speed squats on the box: three weeks up, the same three again. */
const BOX_WAVE: Recipe = {
  name: "Box doubles, three weeks twice",
  aim: "speed",
  school: "Percent waves, short rest",
  basis: "percent",
  start: 50,
  steps: [{ id: "s1", sets: 8, reps: 2, add: 0 }],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10 },
  ],
  repeats: 2,
  cycle: [],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  lead: "percent",
  stop: { lossPercent: 15, lossFrom: "best" },
};

/** A box squat cycle of the canoe squad, five of its six weeks done, with what was seen on it. */
export async function loadBoxCycle(
  tx: TeamTransaction,
  now: Date,
  today: LocalDate,
): Promise<void> {
  const random = seededRandom(SEED);
  const uuid = uuidFrom(random);
  // Of their own, so that the rest of the demo stays as it was drawn.
  const lifterIds = uuidFrom(seededRandom(SEED + 1));
  const entered = { enteredBy: COACH, enteredAt: now };
  const variants = await tx.select().from(schema.liftVariant);
  const box = variants.find((one) => one.lift === "box-squat");
  const squat = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
  const squad = (await tx.select().from(schema.squad)).find((one) => one.name === SQUAD);
  if (!box || !squat || !squad?.roomId)
    throw new Error("The demo's cycle needs a box and a squad.");
  const { roomId } = squad;
  const [room] = (await tx.select().from(schema.room)).filter((one) => one.id === roomId);
  const people = (await tx.select().from(schema.athlete).orderBy(schema.athlete.name)).filter(
    (one) => one.squadId === squad.id,
  );
  const free = (await tx.select().from(schema.maxRecord)).filter(
    (one) => one.variantId === squat.id,
  );
  const trials = (await tx.select().from(schema.athleteSetup)).filter(
    (one) => one.variantId === box.id,
  );
  const { bases, mats } = seatStock(await itemsOf(tx, roomId));
  const style = styleById("wide");

  const startDate = addDays(today, -(DAYS_AGO + 7 * (WEEKS_DONE - 1)));
  const block = blockOfLift({
    name: "Box squat cycle",
    startDate,
    variantId: box.id,
    recipe: BOX_WAVE,
    schoolId: await schoolIdByName(tx, BOX_WAVE.school),
  });
  const slot = block.slots.main;
  if (!slot || !style || !room) throw new Error("The demo's cycle has no slot.");
  slot.box = {
    purpose: "power",
    role: "main",
    styleId: style.id,
    contact: "weight",
    smallestStopS: SMALLEST_STOP_S,
  };
  // A pairing before it from the fourth week on.
  const pairing = (await listComplexes(tx)).find((one) => one.complex.name === "Pull, jump, throw");
  if (pairing)
    block.pairings = {
      p1: { dayId: slot.dayId, complexId: pairing.lineageId, fromWeek: 4 },
    };
  const planId = uuid();
  await insertPlan(tx, {
    id: planId,
    name: block.name,
    squadId: squad.id,
    roomId,
    startDate,
    block,
    metric: "MCV",
    rounding: "nearest",
    updatedBy: COACH,
    updatedAt: now,
  });

  const truths = new Map<string, SimulatedLifter>();
  const athletes: Lifter[] = [];
  const setups = new Map<string, LifterSetup>();
  for (const person of people) {
    const of = free.find((one) => one.athleteId === person.id);
    const kg = 2.5 * Math.round(((of?.load.amount ?? 90) * BOX_TO_FREE) / 2.5);
    const record = {
      id: uuid(),
      load: { amount: kg, unit: "kg" as const },
      date: addDays(startDate, -5),
      kind: "tested" as const,
      note: "Single from the box, full stop",
    };
    await tx.insert(schema.maxRecord).values({
      teamId: tx.teamId,
      athleteId: person.id,
      variantId: box.id,
      ...record,
      ...entered,
    });
    await tx.insert(schema.workingMaxChoice).values({
      teamId: tx.teamId,
      id: uuid(),
      athleteId: person.id,
      variantId: box.id,
      recordId: record.id,
      chosenBy: COACH,
      chosenAt: now,
    });
    const v0Mps = 1.5 + 0.08 * random.normal();
    const truth: SimulatedLifter = {
      v0Mps,
      l0Kg: kg / (1 - 0.3 / v0Mps),
      repFade: 0.02 + 0.02 * random.uniform(),
      setFade: 0.004 + 0.008 * random.uniform(),
      fullRestS: 150,
      spreadMps: 0.015,
      rangeM: 0.52,
      topM: 1.5,
      loweringMps: 0.6,
      pauseS: 0.6,
      sticking: 0.2,
    };
    truths.set(person.id, truth);
    // At the rack some of them rock before the drive, as some do.
    await tx.insert(schema.simulatedLifter).values({
      teamId: tx.teamId,
      id: lifterIds(),
      athleteId: person.id,
      variantId: box.id,
      truth: { ...truth, ...(truths.size % 2 === 1 ? { rockShare: 0.7, rockM: 0.04 } : {}) },
    });
    const trial = trials.find((one) => one.athleteId === person.id);
    const targetCm =
      trial?.boxSeatCm == null || trial.boxCreaseCm == null
        ? undefined
        : boxHeightFromTrial({
            seatCm: trial.boxSeatCm,
            creaseOverKneeCm: trial.boxCreaseCm,
            offsetCm: style.offsetCm,
          });
    const tolerance = { underCm: style.underCm, overCm: style.overCm };
    const seat = targetCm === undefined ? undefined : seatFor({ targetCm, bases, mats, tolerance });
    const heightCm = seat?.ok ? seat.build.heightCm : undefined;
    athletes.push({
      id: person.id,
      name: person.name,
      unit: person.unit ?? "kg",
      instructions: [],
      trainingYears: 3,
      bodyKg: undefined,
      byVariant: {
        [box.id]: {
          ...NO_LIFT_FACTS,
          workingMax: workingMax({ liftName: box.name, record, factor: undefined, today }),
        },
      },
    });
    setups.set(person.id, {
      box: { heightCm, styleId: style.id },
      setup: [
        heightCm === undefined
          ? "No box height yet: take a trial seat"
          : `Box ${plainNumber(heightCm, 1)} cm`,
      ],
    });
  }

  const plan: SessionPlan = {
    id: planId,
    slotId: "main",
    name: block.name,
    squadName: squad.name,
    weeks: block.weeks,
    version: 1,
    recipe: BOX_WAVE,
    variant: box,
    box: slot.box,
    metric: "MCV",
    rounding: "nearest",
  };
  await publishDemo(tx, {
    planId,
    block,
    athletes,
    roomId,
    today,
    at: now,
    by: COACH,
  });
  for (let week = 1; week <= WEEKS_DONE; week++) {
    const wave = slotWeek(block, slot, week);
    if (!wave) continue;
    const date = addDays(startDate, 7 * (week - 1));
    const frozen = freezeSession({
      plan,
      week: wave,
      // One is away in the third week.
      athletes: athletes.filter((_, i) => !(week === 3 && i === 2)),
      setups,
      racks: (await racksWithHang(tx, roomId, today)).slice(0, 4),
      overrides: new Map(),
      own: NOTHING_OWN,
      date,
      zone: room.zone,
      roomName: room.name,
      coachValues: {},
    });
    const startedAt = new Date(`${date}T16:00:00Z`);
    const sessionId = uuid();
    await insertSession(tx, {
      id: sessionId,
      planId,
      week,
      slotId: "main",
      date,
      roomId,
      status: "running",
      frozen,
      startedAt,
      startedBy: COACH,
    });
    const who = new Map(athletes.map((one, i) => [one.id, i]));
    const entries = simulateSession({
      session: frozen,
      // Every other one gets faster at the load from week to week.
      truths: new Map(
        [...truths].map(([id, truth]) => [
          id,
          (who.get(id) ?? 0) % 2 === 0
            ? { ...truth, v0Mps: truth.v0Mps * (1 + 0.035 * (week - 1)) }
            : truth,
        ]),
      ),
      startedAt,
      box: {
        rep: (id) => {
          const early = week < 3 && (who.get(id) ?? 0) % 3 === 0;
          const near = (value: number, spread: number) =>
            Math.max(0.05, Math.round(100 * (value + spread * random.normal())) / 100);
          return {
            pauseS: near(early ? 0.42 : 0.62, 0.08),
            loweringMps: near(early ? 0.85 : 0.68, 0.05),
            contactMps: near(early ? 0.3 : 0.19, 0.03),
            toPeakS: near(0.34, 0.03),
          };
        },
        fault: (id, set) => {
          const i = who.get(id) ?? 0;
          if (i === 0 && week <= 2 && set % 3 === 0) return "Knees in";
          if (i === 1 && week === WEEKS_DONE && set >= 7) return "Soft, slow rise";
          if (i === 4 && (week === 1 || week === WEEKS_DONE) && set === 6)
            return "Heels or toes lifting";
          return i === 3 && week === 2 && set === 5 ? "Wobbly or long walkout" : undefined;
        },
      },
      random,
      uuid,
    });
    await allotSeq(tx, sessionId, entries.length);
    await insertEntries(
      tx,
      sessionId,
      startedAt,
      entries.map((entry) => ({ ...entry, author: "demo" })),
    );
    await endSession(tx, sessionId, new Date(startedAt.getTime() + 3_000_000));
  }
  const [first] = people;
  if (first)
    await addCycleReview(tx, {
      id: uuid(),
      athleteId: first.id,
      planId,
      slotId: "main",
      week: 3,
      decision: "hold",
      note: "Knees first, then load.",
      evidence: ["Knees in, twice a session in weeks 1 and 2."],
      ...entered,
    });
}
