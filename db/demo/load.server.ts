import { hashPassword } from "better-auth/crypto";
import { drizzle } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import { freezeSession, type SessionPlan } from "../../core/floor/freeze";
import { workingMax } from "../../core/maxes/records";
import { type Random, seededRandom } from "../../core/numeric/random";
import { type Block, blockOfLift, NOTHING_OWN } from "../../core/plan/block";
import { type Lifter, NO_LIFT_FACTS } from "../../core/prescribe/lifter";
import { loadVelocityLine } from "../../core/profile/line";
import { expandRecipe, type Recipe } from "../../core/recipe/recipe";
import { addDays, dateAt, type LocalDate } from "../../core/units/time";
import { keepVelocity } from "../../core/units/velocity";
import { PROCESSING_VERSION } from "../../core/velocity/stream";
import { type SimulatedLifter, trueVelocities } from "../../device/lifter";
import { racksWithHang } from "../queries/gear.server";
import { copyPlanLibrary, schoolIdByName } from "../queries/plan-library.server";
import { addProfile } from "../queries/profiles.server";
import { allotSeq, endSession, insertEntries, insertSession } from "../queries/sessions.server";
import * as schema from "../schema";
import { type TeamTransaction, withTeam } from "../team.server";
import { loadBlock } from "./block.server";
import { loadBoxAndContrast } from "./box.server";
import { loadCamp } from "./camp.server";
import { loadBoxCycle } from "./cycle.server";
import { loadFacts } from "./facts.server";
import { loadGear } from "./gear.server";
import { simulateSession } from "./history";
import { DEMO_PASSWORD, DEMO_PEOPLE, DEMO_SQUADS, type DemoAthlete } from "./people";
import { publishDemo } from "./publish";
import { loadReviews } from "./review.server";
import { DEMO_ROOMS, DEMO_VARIANTS } from "./rooms";
import { uuidFrom } from "./uuid";
import { FLAT_RISE, RISING_LADDER } from "./waves";

const SEED = 20260310;
export const DEMO_WEEKS = 16;
const BENCH_MVT = 0.17;
const PROFILE_PERCENTS = [30, 45, 60, 75, 88];

interface DemoLifter {
  id: string;
  person: DemoAthlete;
  truth: SimulatedLifter;
  record: { id: string; kg: number; date: LocalDate };
  profile: { testedOn: LocalDate; points: Array<{ loadKg: number; velocityMps: number }> };
}

/**
 * Fills an empty database with Skerry Coast: three squads, 28 athletes, two rooms, sixteen weeks
 * of sessions by the simulated lifter, and a session that is running now.
 * @param now the moment that the data is relative to
 */
export async function loadDemo(ownerUrl: string, now: Date): Promise<void> {
  const client = postgres(ownerUrl, { max: 1, onnotice: () => {} });
  const database = drizzle(client, { schema });
  const random = seededRandom(SEED);
  const uuid = uuidFrom(random);
  const teamId = uuid();
  try {
    await withTeam(database, teamId, async (tx) => {
      await tx.insert(schema.installation).values({ kind: "demo", madeAt: now });
      await tx.insert(schema.team).values({
        id: teamId,
        name: "Skerry Coast",
        unit: "kg",
        zone: "Europe/Oslo",
        firstHour: { over: true },
      });
      // First, for blocks name their school by its id.
      const ofLibrary = uuidFrom(seededRandom(SEED + 1));
      await copyPlanLibrary(tx, { enteredBy: "Callum Reyk", enteredAt: now }, ofLibrary);
      const rooms = await loadRooms(tx, uuid);
      const variants = DEMO_VARIANTS.map((variant) => ({ teamId, id: uuid(), ...variant }));
      await tx.insert(schema.liftVariant).values(variants);
      const [bench, squat] = variants;
      if (!bench || !squat) throw new Error("The demo needs its lifts.");
      const today = dateAt(DEMO_ROOMS[0]?.zone ?? "UTC", now);

      const athleteIds = new Map<string, string>();
      for (const demoSquad of DEMO_SQUADS) {
        const room = rooms.get(demoSquad.room);
        if (!room) throw new Error(`The demo has no room ${demoSquad.room}.`);
        const squadId = uuid();
        await tx.insert(schema.squad).values({
          teamId,
          id: squadId,
          name: demoSquad.name,
          sport: demoSquad.sport,
          roomId: room.id,
        });
        const lifters: DemoLifter[] = [];
        for (const person of demoSquad.athletes) {
          const lifter = await loadAthlete(tx, {
            person,
            squadId,
            bench: bench.id,
            squat: squat.id,
            unit: demoSquad.room === "Dojo gym" ? "lb" : null,
            today,
            random,
            uuid,
          });
          athleteIds.set(person.name, lifter.id);
          lifters.push(lifter);
        }
        await loadTraining(tx, {
          squad: { id: squadId, name: demoSquad.name },
          room,
          bench,
          lifters,
          now,
          today,
          random,
          uuid,
        });
      }
      await loadPeople(tx, uuid, athleteIds, now);
      await loadFacts(tx, { athleteIds, variants, now, today });
      await loadGear(tx, now, today);
      await loadBlock(tx, now, today);
      await loadBoxAndContrast(tx, now, today);
      await loadBoxCycle(tx, now, today);
      await loadCamp(tx, now, today);
      await loadReviews(tx, now, today);
    });
    // Filled in one go: the planner would know nothing of it for the first minutes.
    await client.unsafe("ANALYZE");
  } finally {
    await client.end();
  }
}

interface DemoRoomRow {
  id: string;
  name: string;
  zone: string;
}

async function loadRooms(tx: TeamTransaction, uuid: () => string) {
  const rooms = new Map<string, DemoRoomRow>();
  const { teamId } = tx;
  for (const { name, zone, bars, plates } of DEMO_ROOMS) {
    const id = uuid();
    rooms.set(name, { id, name, zone });
    await tx.insert(schema.room).values({ teamId, id, name, zone });
    for (const { racks, ...bar } of bars) {
      const barId = uuid();
      await tx.insert(schema.bar).values({ teamId, id: barId, roomId: id, sleeveMm: 415, ...bar });
      await tx
        .insert(schema.rack)
        .values(racks.map((number) => ({ teamId, id: uuid(), roomId: id, number, barId, plates })));
    }
  }
  return rooms;
}

async function loadAthlete(
  tx: TeamTransaction,
  input: {
    person: DemoAthlete;
    squadId: string;
    bench: string;
    squat: string;
    unit: "lb" | null;
    today: LocalDate;
    random: Random;
    uuid: () => string;
  },
): Promise<DemoLifter> {
  const { person, today, random, uuid } = input;
  const { teamId } = tx;
  const id = uuid();
  await tx.insert(schema.athlete).values({
    teamId,
    id,
    name: person.name,
    squadId: input.squadId,
    birthYear: person.birthYear,
    trainingSince: addDays(today, -Math.round(person.trainingYears * 365.25)),
    unit: input.unit,
  });

  const enteredAt = new Date(`${today}T08:00:00Z`);
  const entered = { enteredBy: "Callum Reyk", enteredAt };
  const tested = addDays(today, -person.testedDaysAgo);
  const recordId = uuid();
  const record = (
    variantId: string,
    kg: number,
    date: LocalDate,
    note: string,
    rowId = uuid(),
  ) => ({
    teamId,
    id: rowId,
    athleteId: id,
    variantId,
    load: { amount: kg, unit: "kg" as const },
    date,
    kind: "tested" as const,
    note,
    ...entered,
  });
  const squatId = uuid();
  await tx
    .insert(schema.maxRecord)
    .values([
      record(input.bench, person.benchKg - 5, addDays(today, -118), "Before the winter block"),
      record(input.bench, person.benchKg - 2.5, addDays(today, -76), "Mid-block"),
      record(input.bench, person.benchKg, tested, "Paused on the chest, one spotter", recordId),
      record(input.squat, person.squatKg, tested, "", squatId),
    ]);
  const chosen = { chosenBy: "Callum Reyk", chosenAt: enteredAt };
  await tx.insert(schema.workingMaxChoice).values([
    { teamId, id: uuid(), athleteId: id, variantId: input.bench, recordId, ...chosen },
    { teamId, id: uuid(), athleteId: id, variantId: input.squat, recordId: squatId, ...chosen },
  ]);

  const v0Mps = 1.42 + 0.09 * random.normal();
  const truth: SimulatedLifter = {
    v0Mps,
    l0Kg: person.benchKg / (1 - BENCH_MVT / v0Mps),
    repFade: 0.02 + 0.045 * random.uniform(),
    setFade: 0.006 + 0.012 * random.uniform(),
    fullRestS: 150,
    spreadMps: 0.015 + 0.008 * random.uniform(),
    rangeM: 0.36 + 0.08 * random.uniform(),
    topM: 1.02 + 0.08 * random.uniform(),
    loweringMps: 0.65 + 0.15 * random.uniform(),
    pauseS: random.uniform() < 0.4 ? 0.15 : 0,
    sticking: 0.28,
  };
  await tx.insert(schema.simulatedLifter).values({
    teamId,
    id: uuid(),
    athleteId: id,
    variantId: input.bench,
    truth,
  });

  const testedOn = addDays(today, -21);
  const testId = uuid();
  const points = PROFILE_PERCENTS.map((percent) => {
    const loadKg = 2.5 * Math.round((person.benchKg * percent) / 100 / 2.5);
    const reps = trueVelocities(truth, {
      loadKg,
      reps: 2,
      setsBefore: 0,
      restS: 180,
      dayShiftMps: 0,
      seed: Math.floor(random.uniform() * 2 ** 31),
    });
    return { loadKg, velocityMps: keepVelocity(Math.max(...reps)) };
  });
  await addProfile(tx, {
    id: testId,
    athleteId: id,
    variantId: input.bench,
    date: testedOn,
    metric: "MCV",
    source: "simulated",
    processing: PROCESSING_VERSION,
    ...entered,
    reps: points.map((point) => ({ id: uuid(), ...point })),
  });

  return {
    id,
    person,
    truth,
    record: { id: recordId, kg: person.benchKg, date: tested },
    profile: { testedOn, points },
  };
}

interface TrainingInput {
  squad: { id: string; name: string };
  room: DemoRoomRow;
  bench: { id: string; name: string; lift: string; start: "top" | "bottom"; caution: string };
  lifters: DemoLifter[];
  now: Date;
  today: LocalDate;
  random: Random;
  uuid: () => string;
}

/** Five waves behind, the sixth in its second week today. */
async function loadTraining(tx: TeamTransaction, input: TrainingInput): Promise<void> {
  const { lifters, today, now } = input;
  for (let wave = 0; wave < 6; wave++) {
    const current = wave === 5;
    const recipe = current || wave % 2 === 0 ? RISING_LADDER : FLAT_RISE;
    const startDate = addDays(today, current ? -7 : -7 * (DEMO_WEEKS - 3 * wave));
    const { plan, block } = await loadPlan(tx, input, recipe, startDate);
    // Earlier waves stood on lower maxes, and the lifters were that much weaker.
    const strength = 0.95 + 0.01 * wave;
    const athletes = lifters.map((lifter) => sessionAthlete(lifter, input, strength));
    await publishDemo(tx, {
      planId: plan.id,
      block,
      athletes,
      roomId: input.room.id,
      today,
      at: now,
      by: "Callum Reyk",
    });
    const truths = new Map(
      lifters.map((lifter) => [lifter.id, { ...lifter.truth, l0Kg: lifter.truth.l0Kg * strength }]),
    );
    for (const week of expandRecipe(recipe)) {
      const date = addDays(startDate, 7 * (week.number - 1));
      const runsNow = date === today && input.squad.name === "Sprint kayak";
      if (date >= today && !runsNow) continue;
      const startedAt = runsNow
        ? new Date(now.getTime() - 9 * 60_000)
        : new Date(`${date}T15:30:00Z`);
      await loadSession(tx, input, { plan, week, athletes, truths, date, startedAt, runsNow });
    }
  }
}

async function loadPlan(
  tx: TeamTransaction,
  input: TrainingInput,
  recipe: Recipe,
  startDate: LocalDate,
): Promise<{ plan: SessionPlan; block: Block }> {
  const id = input.uuid();
  const block = blockOfLift({
    name: recipe.name,
    startDate,
    variantId: input.bench.id,
    recipe,
    schoolId: await schoolIdByName(tx, recipe.school),
  });
  await tx.insert(schema.plan).values({
    teamId: tx.teamId,
    id,
    name: recipe.name,
    squadId: input.squad.id,
    roomId: input.room.id,
    startDate,
    block,
    metric: "MCV",
    rounding: "nearest",
    updatedBy: "Callum Reyk",
    updatedAt: input.now,
  });
  return {
    plan: {
      id,
      slotId: "main",
      name: recipe.name,
      squadName: input.squad.name,
      weeks: recipe.weeks.length,
      version: 1,
      recipe,
      variant: input.bench,
      metric: "MCV",
      rounding: "nearest",
    },
    block,
  };
}

function sessionAthlete(lifter: DemoLifter, input: TrainingInput, strength: number): Lifter {
  const record = {
    id: lifter.record.id,
    load: { amount: 2.5 * Math.round((lifter.record.kg * strength) / 2.5), unit: "kg" as const },
    date: lifter.record.date,
    kind: "tested" as const,
    note: "",
  };
  const points = lifter.profile.points.map((point) => ({
    ...point,
    loadKg: point.loadKg * strength,
  }));
  const line = loadVelocityLine(points, "MCV");
  return {
    id: lifter.id,
    name: lifter.person.name,
    unit: input.room.name === "Dojo gym" ? "lb" : "kg",
    instructions: lifter.person.instruction ? [lifter.person.instruction] : [],
    trainingYears: lifter.person.trainingYears,
    bodyKg: undefined,
    byVariant: {
      [input.bench.id]: {
        ...NO_LIFT_FACTS,
        workingMax: workingMax({
          liftName: input.bench.name,
          record,
          factor: undefined,
          today: input.today,
        }),
        profile: line.ok
          ? { line, variantId: input.bench.id, testedOn: lifter.profile.testedOn }
          : undefined,
      },
    },
  };
}

async function loadSession(
  tx: TeamTransaction,
  input: TrainingInput,
  day: {
    plan: SessionPlan;
    week: ReturnType<typeof expandRecipe>[number];
    athletes: Lifter[];
    truths: ReadonlyMap<string, SimulatedLifter>;
    date: LocalDate;
    startedAt: Date;
    runsNow: boolean;
  },
): Promise<void> {
  const { room, uuid, random } = input;
  const frozen = freezeSession({
    plan: day.plan,
    week: day.week,
    athletes: day.athletes,
    setups: new Map(),
    racks: (await racksWithHang(tx, room.id, day.date)).slice(0, 4),
    overrides: new Map(),
    own: NOTHING_OWN,
    date: day.date,
    zone: room.zone,
    roomName: room.name,
    coachValues: {},
  });
  const id = uuid();
  await insertSession(tx, {
    id,
    planId: day.plan.id,
    week: day.week.number,
    date: day.date,
    roomId: room.id,
    status: "running",
    frozen,
    startedAt: day.startedAt,
    startedBy: "Callum Reyk",
  });
  const entries = simulateSession({
    session: frozen,
    truths: day.truths,
    startedAt: day.startedAt,
    rounds: day.runsNow ? 4 : undefined,
    random,
    uuid,
  });
  await allotSeq(tx, id, entries.length);
  for (let i = 0; i < entries.length; i += 1000) {
    await insertEntries(
      tx,
      id,
      day.startedAt,
      entries.slice(i, i + 1000).map((entry) => ({ ...entry, author: "demo" })),
    );
  }
  if (!day.runsNow) await endSession(tx, id, new Date(day.startedAt.getTime() + 3_600_000));
}

async function loadPeople(
  tx: TeamTransaction,
  uuid: () => string,
  athleteIds: ReadonlyMap<string, string>,
  now: Date,
): Promise<void> {
  const password = await hashPassword(DEMO_PASSWORD);
  for (const person of DEMO_PEOPLE) {
    const userId = uuid();
    await tx
      .insert(schema.user)
      .values({ id: userId, name: person.name, email: person.email, emailVerified: true });
    await tx.insert(schema.account).values({
      id: uuid(),
      accountId: userId,
      providerId: "credential",
      userId,
      password,
    });
    await tx.insert(schema.membership).values({
      teamId: tx.teamId,
      id: uuid(),
      userId,
      name: person.name,
      role: person.role,
      athleteId: person.athlete ? (athleteIds.get(person.athlete) ?? null) : null,
      createdAt: now,
    });
  }
}
