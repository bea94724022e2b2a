import { racksOfItems, resistanceStock, seatStock } from "../../../core/gear/room";
import { heightsKnown } from "../../../core/resistance/heights";
import { plainNumber } from "../../../core/units/mass";
import { addDays } from "../../../core/units/time";
import { itemsOf } from "../../../db/queries/gear.server";
import { listVariants, singlesOf } from "../../../db/queries/maxes.server";
import { bodyMasses, setupsOf } from "../../../db/queries/person.server";
import { physicalResults, physicalTests } from "../../../db/queries/physical.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { athleteById, listAthletes, listRooms } from "../../../db/queries/squads.server";
import { liftDaysOf } from "../../../db/queries/sums.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { analyseTest } from "../lifters/analyse-test.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";

/** Everything that the bench's tools can be set to: rooms with their gear, people, plans. */
export function readBench(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const rooms = [];
    const racks = [];
    for (const room of await listRooms(tx)) {
      const items = (await itemsOf(tx, room.id)).filter((one) => one.awayOn === null);
      const today = localDate(room.zone);
      rooms.push({ id: room.id, name: room.name, ...seatStock(items) });
      for (const rack of racksOfItems(items)) {
        racks.push({
          id: items.find((one) => one.kind === "rack" && Number(one.name) === rack.number)
            ?.id as string,
          label: `${room.name}, rack ${rack.number}: ${rack.gear.bar.name}`,
          ...rack,
          resistance: resistanceStock(items, rack.pegM, today),
        });
      }
    }
    const variants = await listVariants(tx);
    return {
      coachValues: await coachValues(tx),
      racks,
      rooms,
      athletes: (await listAthletes(tx)).map(({ id, name }) => ({ id, name })),
      variants: variants.map(({ id, name, lift }) => ({ id, name, lift })),
      plans: (await listPlans(tx)).map((row) => ({
        id: row.plan.id,
        name: `${row.plan.name}, ${row.squadName}`,
      })),
    };
  });
}

/**
 * What an athlete brings to the bench for one lift: numbers only, for the tools' fields. The
 * address of the bench keeps the numbers and never says whose they are.
 */
export function readBenchFacts(principal: Principal, athleteId: string, variantId: string) {
  return inTeam(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    const variant = (await listVariants(tx)).find((one) => one.id === variantId);
    if (!person || !variant) {
      return failed("no-athlete", "This athlete or lift is not in your team any more.");
    }
    const places = await readPlaces(tx);
    const found = (await readMaxes(tx, () => places.todayOf(person), athleteId))(athleteId).of(
      variantId,
    );
    const singles = await singlesOf(tx, athleteId);
    const test = (await profileTests(tx, { of: athleteId }))
      .filter((one) => one.variantId === variantId)
      .map((one) => analyseTest(one, variant, singles))
      .find((one) => one.result.ok);
    const used = test?.result.ok ? test.result.used : [];
    const setup = (await setupsOf(tx, athleteId)).find((one) => one.variantId === variantId);
    const heights = heightsKnown(setup, variant.lift, person.statureCm);
    const jumped = new Set(
      (await physicalTests(tx))
        .filter((one) => one.unit === "cm" && /jump/.test(one.family))
        .map((one) => one.id),
    );
    const [mass] = await bodyMasses(tx, athleteId);
    const days = await liftDaysOf(tx, {
      athleteId,
      variantId,
      from: addDays(places.todayOf(person), -REST_DAYS),
    });
    const jumps = (await physicalResults(tx, athleteId)).filter((one) => jumped.has(one.testId));
    const driven = used
      .filter((rep) => rep.forceN !== undefined && rep.powerW !== undefined)
      .sort((a, b) => a.loadKg - b.loadKg);
    return done({
      restSteps: restSteps(days).slice(-MOST_STEPS),
      jumps: jumps.flatMap((one) => one.trials.map((cm) => ({ loadKg: one.loadKg, heightCm: cm }))),
      lightest: driven[0],
      heaviest: driven.at(-1),
      v0Mps: test?.result.ok ? Number(test.result.line.v0Mps.toFixed(3)) : undefined,
      maxKg: "max" in found ? Number(plainNumber(found.max.kg, 2)) : undefined,
      points: used
        .map((rep) => `${plainNumber(rep.loadKg, 2)} ${plainNumber(rep.velocityMps, 3)}`)
        .join(" "),
      metric: test?.metric,
      testedOn: test?.date,
      peakForceMps: test?.power?.peakForce && Number(test.power.peakForce.velocityMps.toFixed(3)),
      peakPowerKg: test?.power && Number(plainNumber(test.power.peakPower.loadKg, 1)),
      thresholdMps: test?.threshold && Number(test.threshold.mps.toFixed(3)),
      bottomM: heights?.bottomM,
      lockoutM: heights?.lockoutM,
      heightsMeasured: heights?.measured ?? false,
      boxSeatCm: setup?.boxSeatCm ?? undefined,
      boxCreaseCm: setup?.boxCreaseCm ?? undefined,
      bodyMass: mass?.mass,
      upperBody: ["bench", "press", "bench-pull", "pull-up"].includes(variant.lift),
    });
  });
}

/** Days of sets that rests are looked for in, and the newest pairs that a field holds. */
const REST_DAYS = 180;
const MOST_STEPS = 60;
/** Loads so close are one load, kg. */
const SAME_KG = 0.01;

/** Sets that follow one at the same load on the same day, with the rest between, the oldest first. */
function restSteps(days: Awaited<ReturnType<typeof liftDaysOf>>) {
  return days.flatMap((day) =>
    day.sum.sets.flatMap((set, i, all) => {
      const before = all[i - 1];
      const same =
        before?.loadKg !== undefined &&
        set.loadKg !== undefined &&
        Math.abs(before.loadKg - set.loadKg) < SAME_KG;
      return same &&
        before.bestMps !== undefined &&
        set.bestMps !== undefined &&
        set.rest !== undefined &&
        set.rest.seconds > 0 &&
        !set.older
        ? [{ restS: set.rest.seconds, changeMps: set.bestMps - before.bestMps }]
        : [];
    }),
  );
}

export type BenchFacts = Extract<Awaited<ReturnType<typeof readBenchFacts>>, { ok: true }>["value"];
