import { daysBetween, type LocalDate } from "../../../core/units/time";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { NO_ATHLETE } from "./read-athlete.server";

export const FUTURE = failed(
  "future-date",
  "This date is still to come. Enter it when it was done.",
);

type Person = NonNullable<Awaited<ReturnType<typeof athleteById>>>;

type WorkOnAthlete<T> = (
  tx: TeamTransaction,
  person: Person,
  entered: { enteredBy: string; enteredAt: Date },
  today: LocalDate,
) => Promise<Outcome<T>>;

function withAthlete<T>(principal: Principal, athleteId: string, work: WorkOnAthlete<T>) {
  return async (tx: TeamTransaction): Promise<Outcome<T>> => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const today = (await readPlaces(tx)).todayOf(person);
    return work(tx, person, { enteredBy: principal.name, enteredAt: now() }, today);
  };
}

/** One change of one athlete, by one person, in one transaction; the same form makes it once. */
export function onAthlete<T>(principal: Principal, athleteId: string, work: WorkOnAthlete<T>) {
  return inTeamOnce(principal, withAthlete(principal, athleteId, work));
}

/** The same for what may be shown again, and must not be kept with the form. */
export function ofAthlete<T>(principal: Principal, athleteId: string, work: WorkOnAthlete<T>) {
  return inTeam(principal, withAthlete(principal, athleteId, work));
}

export const isFuture = (today: LocalDate, date: LocalDate) => daysBetween(today, date) > 0;
