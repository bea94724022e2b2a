import { racksOfItems, resistanceStock, seatStock } from "../../../core/gear/room";
import { heightsFromStature } from "../../../core/resistance/heights";
import { plainNumber } from "../../../core/units/mass";
import { itemsOf } from "../../../db/queries/gear.server";
import { listVariants, singlesOf } from "../../../db/queries/maxes.server";
import { bodyMasses, setupsOf } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { athleteById, listAthletes, listRooms } from "../../../db/queries/squads.server";
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
    const estimated =
      person.statureCm === null ? undefined : heightsFromStature(variant.lift, person.statureCm);
    const measured = setup?.bottomM != null && setup.lockoutM != null;
    const [mass] = await bodyMasses(tx, athleteId);
    return done({
      maxKg: "max" in found ? Number(plainNumber(found.max.kg, 2)) : undefined,
      points: used
        .map((rep) => `${plainNumber(rep.loadKg, 2)} ${plainNumber(rep.velocityMps, 3)}`)
        .join(" "),
      metric: test?.metric,
      testedOn: test?.date,
      peakForceMps: test?.power?.peakForce && Number(test.power.peakForce.velocityMps.toFixed(3)),
      peakPowerKg: test?.power && Number(plainNumber(test.power.peakPower.loadKg, 1)),
      thresholdMps: test?.threshold && Number(test.threshold.mps.toFixed(3)),
      bottomM: measured ? (setup.bottomM as number) : estimated?.bottomM,
      lockoutM: measured ? (setup.lockoutM as number) : estimated?.lockoutM,
      heightsMeasured: measured,
      boxSeatCm: setup?.boxSeatCm ?? undefined,
      boxCreaseCm: setup?.boxCreaseCm ?? undefined,
      bodyMass: mass?.mass,
      upperBody: ["bench", "press", "bench-pull", "pull-up"].includes(variant.lift),
    });
  });
}

export type BenchFacts = Extract<Awaited<ReturnType<typeof readBenchFacts>>, { ok: true }>["value"];
