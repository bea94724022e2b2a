import { STALE_AFTER_DAYS } from "../../../core/maxes/records";
import { daysBetween } from "../../../core/units/time";
import { listVariants, singlesOf } from "../../../db/queries/maxes.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { listAthletes, squadsOf } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { analyseTest } from "../lifters/analyse-test.server";
import { readPlaces } from "../lifters/today.server";

/** The newest window of each athlete at one lift: who is where, who is old, who is untested. */
export function readSquadProfiles(
  principal: Principal,
  which: { variantId: string | undefined; squadId: string | undefined },
) {
  return inTeam(principal, async (tx) => {
    const { squads, todayOf } = await readPlaces(tx);
    const variants = await listVariants(tx);
    const tests = await profileTests(tx, {}, 3);
    const counted = new Map<string, number>();
    for (const test of tests) counted.set(test.variantId, (counted.get(test.variantId) ?? 0) + 1);
    const most = [...counted].sort((a, b) => b[1] - a[1])[0]?.[0];
    const variant =
      variants.find((one) => one.id === which.variantId) ??
      variants.find((one) => one.id === most) ??
      variants[0];
    const singles = await singlesOf(tx);
    const people = (await listAthletes(tx)).filter(
      (person) => which.squadId === undefined || squadsOf(person).includes(which.squadId),
    );
    return {
      variant: variant && { id: variant.id, name: variant.name },
      variants: variants.map(({ id, name }) => ({ id, name, tests: counted.get(id) ?? 0 })),
      squads: squads.map(({ id, name }) => ({ id, name })),
      staleAfterDays: STALE_AFTER_DAYS,
      rows: people.map((person) => {
        const own = singles.filter((one) => one.athleteId === person.id);
        const analysed =
          variant &&
          tests
            .filter((test) => test.athleteId === person.id && test.variantId === variant.id)
            .map((test) => analyseTest(test, variant, own))
            .find((test) => test.result.ok);
        const line = analysed?.result.ok ? analysed.result : undefined;
        const ageDays = analysed && daysBetween(analysed.date, todayOf(person));
        return {
          id: person.id,
          name: person.name,
          squadName: squads.find((one) => one.id === person.squadId)?.name ?? "",
          unit: person.unit,
          test:
            analysed && line
              ? {
                  id: analysed.id,
                  date: analysed.date,
                  metric: analysed.metric,
                  ageDays: ageDays ?? 0,
                  stale: (ageDays ?? 0) > STALE_AFTER_DAYS,
                  v0Mps: line.line.v0Mps,
                  l0Kg: line.line.l0Kg,
                  lineWorking: line.working,
                  oneRepMax: line.oneRepMax && {
                    kg: line.oneRepMax.kg,
                    working: line.oneRepMax.working,
                  },
                  peakPower: analysed.power && {
                    loadKg: analysed.power.peakPower.loadKg,
                    reached: analysed.power.peakPower.reached,
                    measured: analysed.power.peakPower.measured,
                    working: analysed.power.peakPower.working,
                  },
                  warnings: line.warnings.length,
                }
              : undefined,
        };
      }),
    };
  });
}
