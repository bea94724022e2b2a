import { reduceFloor } from "../../../core/floor/state";
import { compareProfiles } from "../../../core/profile/compare";
import { usualPowerBand } from "../../../core/profile/power-band";
import { type DayPoint, dayPoint } from "../../../core/review/day-points";
import { type SpeedTrend, speedTrend } from "../../../core/review/speed-trend";
import { areComparable } from "../../../core/units/velocity";
import { listVariants, singlesOf } from "../../../db/queries/maxes.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { excludeRep, profileTests } from "../../../db/queries/profiles.server";
import { entriesAfter, frozenById, sessionsOfLift } from "../../../db/queries/sessions.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { type AnalysedTest, analyseTest, datedProfile } from "../lifters/analyse-test.server";
import { noteFor } from "../lifters/public-words.server";

const NO_TEST = failed("no-test", "This test is not in your team any more. Open the athlete.");

/** One test with all its reps, and another of the same lift to set it against. */
export function readProfileTest(
  principal: Principal,
  which: { athleteId: string; testId: string; againstId: string | undefined },
) {
  return inTeam(principal, async (tx) => {
    const person = await athleteById(tx, which.athleteId);
    const all = (person ? await profileTests(tx, { of: person.id }) : []).map((one) => ({
      ...one,
      note: noteFor(principal, one.note),
    }));
    const stored = all.find((one) => one.id === which.testId);
    const variant = (await listVariants(tx)).find((one) => one.id === stored?.variantId);
    if (!person || !stored || !variant) return NO_TEST;
    const singles = await singlesOf(tx, person.id);
    const test = analyseTest(stored, variant, singles);
    const others = all
      .filter((one) => one.id !== stored.id && one.variantId === stored.variantId)
      .map((one) => analyseTest(one, variant, singles));
    const against =
      others.find((one) => one.id === which.againstId) ??
      others.find(
        (one) =>
          one.date < test.date &&
          one.result.ok &&
          one.metric === test.metric &&
          areComparable(one.source, test.source),
      );
    // The earlier of the two comes first, whichever was opened.
    const pair = against
      ? [against, test]
          .sort((a, b) => a.date.localeCompare(b.date))
          .map((one) => datedProfile(one, variant.id))
      : [];
    const compared = pair[0] && pair[1] ? compareProfiles(pair[0], pair[1]) : undefined;
    return done({
      person: { id: person.id, name: person.name, unit: person.unit },
      variant: { id: variant.id, name: variant.name },
      band: usualPowerBand(variant.lift, await coachValues(tx)),
      test,
      against: against && {
        id: against.id,
        date: against.date,
        line: against.result.ok ? against.result.line : undefined,
        used: against.result.ok ? against.result.used : [],
      },
      compared,
      ...(await trainingSince(tx, person.id, test, variant.id)),
      others: others.map(({ id, date, metric, source }) => ({ id, date, metric, source })),
    });
  });
}

/** Days of training that are set beside a test. */
const MOST_DAYS = 24;

/** What was measured of the lift in training since a test, the newest first. */
async function daysSince(
  tx: TeamTransaction,
  athleteId: string,
  test: Pick<AnalysedTest, "date" | "metric" | "source" | "reps">,
  variantId: string,
): Promise<DayPoint[]> {
  const sessions = await sessionsOfLift(tx, {
    athleteId,
    variantId,
    since: test.date,
    most: MOST_DAYS,
  });
  const frozen = await frozenById(
    tx,
    sessions.map((one) => one.id),
  );
  const days: DayPoint[] = [];
  for (const { id, date } of sessions) {
    const session = frozen.get(id);
    if (!session) continue;
    const entries = await entriesAfter(tx, id, 0, { of: [athleteId] });
    const day = dayPoint({
      floor: reduceFloor(session, entries),
      sessionId: id,
      date,
      athleteId,
      variantId,
      test: { ...test, reps: test.reps.filter((rep) => rep.excluded === undefined) },
    });
    if (day) days.push(day);
  }
  return days;
}

/** The days since a test, and whether speed at equal load has risen over them. */
async function trainingSince(
  tx: TeamTransaction,
  athleteId: string,
  test: Pick<AnalysedTest, "date" | "metric" | "source" | "reps">,
  variantId: string,
): Promise<{ days: DayPoint[]; trend: SpeedTrend | undefined }> {
  const days = await daysSince(tx, athleteId, test, variantId);
  const told = days.flatMap(({ date, reading }) => (reading ? [{ date, ...reading }] : []));
  const trend = told.length > 0 ? speedTrend(told.reverse()) : undefined;
  return { days, trend };
}

/** Leaves a rep out of the line with a reason, or takes it in again. */
export function changeExclusion(
  principal: Principal,
  input: { athleteId: string; testId: string; repId: string; reason: string | undefined },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const [test] = await profileTests(tx, { of: input.athleteId, testId: input.testId });
    if (!test?.reps.some((rep) => rep.id === input.repId)) return NO_TEST;
    if (input.reason !== undefined && input.reason.trim() === "") {
      return failed("no-reason", "Leaving a rep out takes a reason; it stays visible with it.");
    }
    await excludeRep(
      tx,
      input.repId,
      input.reason === undefined
        ? undefined
        : { reason: input.reason.trim(), by: principal.name, at: now() },
    );
    return done(null);
  });
}
