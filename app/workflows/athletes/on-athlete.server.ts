import { daysBetween } from "../../../core/units/time";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { NO_ATHLETE } from "./read-athlete.server";
import { readPlaces } from "./today.server";

export const FUTURE = failed(
  "future-date",
  "This date is still to come. Enter it when it was done.",
);

type Person = NonNullable<Awaited<ReturnType<typeof athleteById>>>;

/** One change of one athlete, by one person, in one transaction. */
export function onAthlete<T>(
  principal: Principal,
  athleteId: string,
  work: (
    tx: TeamTransaction,
    person: Person,
    entered: { enteredBy: string; enteredAt: Date },
    today: string,
  ) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  return inTeam(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const today = (await readPlaces(tx)).todayOf(person);
    return work(tx, person, { enteredBy: principal.name, enteredAt: now() }, today);
  });
}

export const isFuture = (today: string, date: string) => daysBetween(today, date) > 0;
