import { daysOf, pairingsOf, pairingWeek } from "../../../core/plan/block";
import { listComplexes } from "../../../db/queries/contrast.server";
import { planById } from "../../../db/queries/plans.server";
import { inTeam } from "../../platform/database.server";
import { done } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { loadsOf, pairingLifters } from "../lifters/pairing-loads.server";
import { NO_PLAN } from "../lifters/plan-edit.server";

/**
 * Everybody's loads in the pairings of one day of a plan, in words, as a sheet prints them.
 * @param dayId the plan's first day where it is none of its days
 * @returns by pairing, then by athlete: a word for each item of the complex
 */
export function planPairingNumbers(
  principal: Principal,
  asked: { planId: string; dayId: string | null; week: number },
) {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, asked.planId);
    if (!row) return NO_PLAN;
    const { block } = row.plan;
    const days = daysOf(block);
    const day = days.find((one) => one.id === asked.dayId) ?? days[0];
    const pairings = day ? pairingsOf(block, day.id) : [];
    if (pairings.length === 0) return done<Record<string, Record<string, string[]>>>({});
    const complexes = await listComplexes(tx);
    const found = pairings.flatMap((one) => {
      const week = pairingWeek(block, one, asked.week);
      const complex = complexes.find((two) => two.lineageId === one.complexId)?.complex;
      return week === undefined || !complex ? [] : [{ id: one.id, week, complex }];
    });
    const people = await pairingLifters(
      tx,
      row.plan,
      found.map((one) => one.complex),
    );
    return done(
      Object.fromEntries(
        found.map(({ id, week, complex }) => [
          id,
          Object.fromEntries(
            people.map((one) => [
              one.lifter.id,
              loadsOf(complex, week, one).map((number) => number.words),
            ]),
          ),
        ]),
      ),
    );
  });
}
