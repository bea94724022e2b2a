import { and, eq } from "drizzle-orm";
import { seededRandom } from "../../core/numeric/random";
import { addDays, type LocalDate } from "../../core/units/time";
import { keepVelocity } from "../../core/units/velocity";
import { analyseStream } from "../../core/velocity/analyse";
import { repForce } from "../../core/velocity/force";
import { PROCESSING_VERSION } from "../../core/velocity/stream";
import { type SimulatedLifter, simulateSet } from "../../device/lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "../../device/sensor";
import { copyLibrary } from "../queries/library.server";
import { addLimit, keepSetup, updateAthlete } from "../queries/person.server";
import { addPhysicalResult, physicalTests } from "../queries/physical.server";
import { addProfile } from "../queries/profiles.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { DEMO_SQUADS, type DemoAthlete } from "./people";
import { DEMO_BASED_VARIANTS } from "./rooms";
import { uuidFrom } from "./uuid";

const SEED = 20260311;
const COACH = "Callum Reyk";
/** Percent of the max at each step of a demo profile test. */
const STEPS = [32, 47, 62, 76, 88];

interface Facts {
  athleteIds: ReadonlyMap<string, string>;
  variants: ReadonlyArray<{ id: string; lift: string; name: string }>;
  now: Date;
  today: LocalDate;
}

/**
 * What a coach knows of the athletes besides their lifts: body mass, goal, competitions, limits
 * with reasons, set-ups, earlier profiles, jumps, throws and sprints.
 */
export async function loadFacts(tx: TeamTransaction, facts: Facts): Promise<void> {
  const random = seededRandom(SEED);
  const uuid = uuidFrom(random);
  await copyLibrary(tx, uuid);
  const entered = { enteredBy: COACH, enteredAt: facts.now };
  const bench = facts.variants.find((one) => one.lift === "bench");
  const squat = facts.variants.find((one) => one.lift === "squat");
  if (!bench || !squat) throw new Error("The demo needs its lifts.");

  await tx.insert(schema.liftVariant).values(
    DEMO_BASED_VARIANTS.map(({ baseOf, ...variant }) => ({
      teamId: tx.teamId,
      id: uuid(),
      ...variant,
      baseId: facts.variants.find((one) => one.name === baseOf)?.id,
    })),
  );
  for (const squad of DEMO_SQUADS) {
    for (const person of squad.athletes) {
      const athleteId = facts.athleteIds.get(person.name);
      if (!athleteId) throw new Error(`No athlete ${person.name}.`);
      const massKg = Math.round(10 * (46 + 0.28 * person.benchKg + 3 * random.normal())) / 10;
      await updateAthlete(tx, athleteId, {
        goal: "sport",
        seasonPhase: squad.name === "Judo" ? "in-season" : "pre-season",
        statureCm: Math.round(152 + 0.42 * massKg + 3 * random.normal()),
      });
      await tx.insert(schema.bodyMass).values(
        [84, 42, 5].map((days, i) => ({
          teamId: tx.teamId,
          id: uuid(),
          athleteId,
          date: addDays(facts.today, -days),
          mass: { amount: Math.round(10 * (massKg - 0.8 + 0.4 * i)) / 10, unit: "kg" as const },
          ...entered,
        })),
      );
      await keepSetup(tx, {
        id: uuid(),
        athleteId,
        variantId: bench.id,
        hook: String(5 + Math.floor(3 * random.uniform())),
        safety: String(2 + Math.floor(2 * random.uniform())),
        grip: ["ring finger on the ring", "thumb's length out", "little finger on the ring"][
          Math.floor(3 * random.uniform())
        ] as string,
        ...entered,
      });
      await loadTests(tx, { person, squad: squad.name, athleteId, massKg, facts, random, uuid });
      if (squad.name === "Sprint kayak") {
        await loadEarlierProfile(tx, {
          athleteId,
          variantId: bench.id,
          person,
          facts,
          random,
          uuid,
        });
      }
      if (
        ["Ansel Quist", "Maren Solhaug", "Arno Velde", "Finn Aldous", "Joss Harrow"].includes(
          person.name,
        )
      ) {
        await loadSquatProfiles(tx, {
          athleteId,
          variantId: squat.id,
          person,
          massKg,
          facts,
          random,
          uuid,
        });
      }
    }
  }
  await loadLimits(tx, facts, uuid, entered);
  await loadCompetitions(tx, facts, uuid, entered);
  const maren = facts.athleteIds.get("Maren Solhaug");
  if (maren) {
    await tx.insert(schema.ownSingle).values({
      teamId: tx.teamId,
      id: uuid(),
      athleteId: maren,
      variantId: bench.id,
      date: addDays(facts.today, -33),
      load: { amount: 92.5, unit: "kg" },
      velocityMps: 0.14,
      metric: "MCV",
      ...entered,
    });
    await tx.insert(schema.dayNote).values(
      [0, 1, 2].map((days) => ({
        teamId: tx.teamId,
        id: uuid(),
        athleteId: maren,
        date: addDays(facts.today, -days),
        sleepH: [7.5, 6, 8][days] as number,
        eating: [4, 3, 4][days] as number,
        soreness: [2, 4, 3][days] as number,
        ...entered,
      })),
    );
  }
}

interface OfAthlete {
  person: DemoAthlete;
  athleteId: string;
  facts: Facts;
  random: ReturnType<typeof seededRandom>;
  uuid: () => string;
}

/** The profile of six weeks earlier, when everybody was a little weaker. */
async function loadEarlierProfile(tx: TeamTransaction, input: OfAthlete & { variantId: string }) {
  const [row] = await tx
    .select()
    .from(schema.simulatedLifter)
    .where(
      and(
        eq(schema.simulatedLifter.athleteId, input.athleteId),
        eq(schema.simulatedLifter.variantId, input.variantId),
      ),
    );
  if (!row) return;
  await measure(
    tx,
    input,
    { ...row.truth, l0Kg: row.truth.l0Kg * 0.94 },
    input.person.benchKg,
    63,
    0,
  );
}

/** Squats, measured by the sensor with force and power; the bar and 0.88 of the body move. */
async function loadSquatProfiles(
  tx: TeamTransaction,
  input: OfAthlete & { variantId: string; massKg: number },
) {
  const v0Mps = 1.5 + 0.08 * input.random.normal();
  const truth: SimulatedLifter = {
    v0Mps,
    l0Kg: input.person.squatKg / (1 - 0.3 / v0Mps),
    repFade: 0.03,
    setFade: 0.01,
    fullRestS: 150,
    spreadMps: 0.015,
    rangeM: 0.55 + 0.06 * input.random.uniform(),
    topM: 1.45,
    loweringMps: 0.75,
    pauseS: 0,
    sticking: 0.22,
  };
  await tx.insert(schema.simulatedLifter).values({
    teamId: tx.teamId,
    id: input.uuid(),
    athleteId: input.athleteId,
    variantId: input.variantId,
    truth,
  });
  await measure(tx, input, truth, input.person.squatKg, 19, 0.88 * input.massKg);
}

/** Runs a test with the simulated sensor: each step's reps through the one detector. */
async function measure(
  tx: TeamTransaction,
  input: OfAthlete & { variantId: string },
  truth: SimulatedLifter,
  maxKg: number,
  daysAgo: number,
  addedKg: number,
) {
  const { random, uuid } = input;
  const reps = STEPS.flatMap((percent, step) => {
    const loadKg = 2.5 * Math.round((maxKg * percent) / 250);
    const set = simulateSet(truth, {
      loadKg,
      reps: step < 3 ? 2 : 1,
      setsBefore: 0,
      restS: 180,
      dayShiftMps: 0,
      seed: Math.floor(random.uniform() * 2 ** 31),
    });
    const samples = sampleMovement(set.movement, { ...SENSOR_DEFAULTS, rateHz: 100 }, random);
    const measured = analyseStream({
      timesS: samples.map((one) => one.timeS),
      heightsM: samples.map((one) => one.heightM),
    }).reps;
    return measured.map((rep) => ({
      id: uuid(),
      loadKg,
      velocityMps: keepVelocity(rep.mcvMps),
      ...repForce(rep, loadKg + addedKg),
    }));
  });
  await addProfile(tx, {
    id: uuid(),
    athleteId: input.athleteId,
    variantId: input.variantId,
    date: addDays(input.facts.today, -daysAgo),
    metric: "MCV",
    source: "simulated",
    processing: PROCESSING_VERSION,
    addedKg,
    enteredBy: COACH,
    enteredAt: input.facts.now,
    reps,
  });
}

/** Jumps, throws and sprints on two days five weeks apart. */
async function loadTests(
  tx: TeamTransaction,
  input: OfAthlete & { squad: string; massKg: number },
) {
  const { person, athleteId, massKg, facts, random, uuid } = input;
  const tests = await physicalTests(tx);
  const relative = person.squatKg / massKg;
  const truths: Array<{
    name: string;
    value: number;
    error: number;
    decimals: number;
    gain: number;
    side?: "left" | "right";
  }> = [
    {
      name: "Vertical jump, hands on hips",
      value: 14 + 13 * relative + 2 * random.normal(),
      error: 1.1,
      decimals: 1,
      gain: 1.4,
    },
    {
      name: "Sprint 20 m",
      value: 3.9 - 0.4 * relative + 0.05 * random.normal(),
      error: 0.025,
      decimals: 2,
      gain: -0.03,
    },
    {
      name: "Rotational throw",
      side: "left",
      value: 3 + 0.05 * person.benchKg + 0.5 * random.normal(),
      error: 0.22,
      decimals: 2,
      gain: 0.2,
    },
    {
      name: "Rotational throw",
      side: "right",
      value: 3.3 + 0.05 * person.benchKg + 0.5 * random.normal(),
      error: 0.22,
      decimals: 2,
      gain: 0.2,
    },
  ];
  for (const { name, value, error, decimals, gain, side } of truths) {
    const test = tests.find((one) => one.name === name);
    if (!test || (input.squad === "Judo" && name.startsWith("Sprint"))) continue;
    const own = gain * (0.5 + random.uniform());
    for (const [i, daysAgo] of [40, 5].entries()) {
      const trials = [0, 1, 2].map(() =>
        Number((value + i * own + error * random.normal()).toFixed(decimals)),
      );
      await addPhysicalResult(tx, {
        id: uuid(),
        testId: test.id,
        athleteId,
        date: addDays(facts.today, -daysAgo),
        side: side ?? "",
        loadKg: name.includes("throw") ? 4 : 0,
        trials,
        splits: test.splitM ? trials.map((time) => Number((time * 0.58).toFixed(2))) : [],
        enteredBy: "Ines Fallow",
        enteredAt: facts.now,
      });
    }
  }
}

type Entered = { enteredBy: string; enteredAt: Date };

async function loadLimits(tx: TeamTransaction, facts: Facts, uuid: () => string, entered: Entered) {
  const minor = facts.athleteIds.get("Tova Ryland");
  const knee = facts.athleteIds.get("Brita Lauder");
  if (!minor || !knee) return;
  await addLimit(
    tx,
    {
      id: uuid(),
      athleteId: minor,
      instruction: "No maximal tests.",
      refuses: ["max-test", "heavy-single"],
      ...entered,
    },
    {
      id: uuid(),
      kind: "other",
      reason: "Still growing; agreed with her guardian in autumn.",
      guardianConsent: true,
      ...entered,
    },
  );
  await addLimit(
    tx,
    {
      id: uuid(),
      athleteId: knee,
      instruction: "Squat no deeper than the box.",
      refuses: ["max-test", "rocking"],
      lift: "squat",
      capPercent: 80,
      until: addDays(facts.today, 40),
      ...entered,
    },
    {
      id: uuid(),
      kind: "knee",
      reason: "Left knee aches at depth since the winter camp.",
      ...entered,
    },
  );
}

async function loadCompetitions(
  tx: TeamTransaction,
  facts: Facts,
  uuid: () => string,
  entered: Entered,
) {
  const squads = await tx.select().from(schema.squad);
  const row = (squad: string, name: string, inDays: number) => ({
    teamId: tx.teamId,
    id: uuid(),
    squadId: squads.find((one) => one.name === squad)?.id ?? null,
    name,
    date: addDays(facts.today, inDays),
    ...entered,
  });
  await tx
    .insert(schema.competition)
    .values([
      row("Sprint kayak", "Sound Regatta", 33),
      row("Sprint canoe", "Sound Regatta", 33),
      row("Judo", "Harbour Open", -6),
      row("Judo", "Island Cup", 47),
    ]);
}
