import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { analyseGaps, type GapAnalysis, type GapTestDay } from "../../../core/contrast/gap-test";
import { OUTPUTS } from "../../../core/contrast/outputs";
import type { LocalDate } from "../../../core/units/time";
import { keepGapDay } from "../../../db/queries/contrast.server";
import { athleteById, listAthletes } from "../../../db/queries/squads.server";
import { GAP_TRIALS, type GapDaySchema } from "../../forms/gap";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { gapDays } from "../lifters/own-gaps.server";
import { readPlaces } from "../lifters/today.server";

/** The gap test of one trial: the chosen athlete's days, and everybody's answer. */
export function readGap(
  principal: Principal,
  asked: { athleteId: string; trial: string; worthwhile: number | undefined },
) {
  return inTeam(principal, async (tx) => {
    const trial = GAP_TRIALS.find((one) => one.id === asked.trial) ?? GAP_TRIALS[0];
    const people = await listAthletes(tx);
    const { byAthlete, worthwhile, firsts } = await gapDays(tx, trial?.id ?? "");
    const by = asked.worthwhile ?? worthwhile;
    const up = OUTPUTS[trial?.output ?? "height"].up;
    const analyse = (days: readonly GapTestDay[]): GapAnalysis | undefined =>
      by !== undefined && by > 0
        ? analyseGaps({ days, worthwhile: by, up, unit: trial?.unit ?? "" })
        : undefined;
    const person = people.find((one) => one.id === asked.athleteId);
    const own = person ? (byAthlete.get(person.id) ?? []) : [];
    return {
      athletes: people.map(({ id, name }) => ({ id, name })),
      athlete: person && { id: person.id, name: person.name },
      days: own,
      squadWorthwhile: worthwhile,
      firsts,
      worthwhile: by,
      squad: people.flatMap((one) => {
        const days = byAthlete.get(one.id);
        if (!days) return [];
        return [{ id: one.id, name: one.name, days: days.length, analysis: analyse(days) }];
      }),
    };
  });
}

/** Keeps a day of an athlete's test, dated where the athlete trains. */
export function saveGapDay(
  principal: Principal,
  input: z.infer<typeof GapDaySchema>,
): Promise<Outcome<{ date: LocalDate }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, input.athleteId);
    if (!person) return failed("no-athlete", "This athlete is not in your team any more.");
    const date = (await readPlaces(tx)).todayOf(person);
    const { output } = GAP_TRIALS.find((one) => one.id === input.trial) ?? { output: "height" };
    await keepGapDay(tx, {
      id: uuidv7(),
      athleteId: person.id,
      date,
      trial: input.trial,
      output,
      heavySet: input.heavySet,
      baseline: input.baseline,
      trials: input.trials,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ date });
  });
}
