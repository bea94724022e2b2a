import { aloneRefusal } from "../../../core/floor/alone";
import { type FrozenSession, peopleOf } from "../../../core/floor/frozen";
import { reduceFloor } from "../../../core/floor/state";
import { allAtOne, stationsOf } from "../../../core/floor/stations";
import { ALONE_FROM_AGE, type CoachValues } from "../../../core/settings/coach-values";
import type { LocalDate } from "../../../core/units/time";
import { newestVersion, type PlanRow } from "../../../db/queries/plans.server";
import { entriesAfter, frozenById, sessionsOfPlan } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";

/** A day of a plan as one athlete's phone names it. */
export interface OwnDay {
  planId: string;
  week: number;
  dayId: string;
}

/**
 * Whether a session did a plan's day for everybody of the plan: not where one of a squad trained it
 * alone; a plan of one athlete is done either way.
 */
export const isOfFloor =
  (row: PlanRow) =>
  (session: { ownOf: string | null }): boolean =>
    session.ownOf === null || session.ownOf === row.plan.athleteId;

/** Why a day is not trained alone; a plan that a coach made for one athlete always may be. */
export function mayAlone(
  row: PlanRow,
  person: { id: string; birthYear: number | null },
  today: LocalDate,
  values: CoachValues,
): string | undefined {
  if (row.plan.athleteId === person.id) return undefined;
  return aloneRefusal({
    birthYear: person.birthYear ?? undefined,
    today,
    fromAge: values.aloneFromAge ?? ALONE_FROM_AGE,
  });
}

/** A day of a plan that is on the floor or was: with others, or alone and how far. */
export type OwnStanding = { sessionId: string; status: "running" | "ended" } & (
  | { with: "squad" }
  | { with: "alone"; done: number; planned: number }
);

/** Undefined where nobody has put the day on the floor with this athlete in it. */
export async function standingOf(
  tx: TeamTransaction,
  person: { id: string },
  day: OwnDay,
): Promise<OwnStanding | undefined> {
  const sessions = (await sessionsOfPlan(tx, day.planId)).filter(
    (one) =>
      (one.ownOf === null || one.ownOf === person.id) &&
      one.parts.some((part) => part.planId === day.planId && part.week === day.week),
  );
  const frozen = await frozenById(
    tx,
    sessions.map((one) => one.id),
  );
  const slots = new Set(
    Object.entries((await newestVersion(tx, day.planId))?.block.slots ?? {}).flatMap(
      ([id, slot]) => (slot.dayId === day.dayId ? [id] : []),
    ),
  );
  for (const session of sessions) {
    const settled = frozen.get(session.id);
    const ofDay = session.parts.some((part) => slots.has(part.slotId));
    if (!settled || !ofDay || !isIn(settled, person.id)) continue;
    const { id: sessionId, status } = session;
    if (session.ownOf === null) return { with: "squad", sessionId, status };
    const floor = reduceFloor(settled, await entriesAfter(tx, sessionId, 0));
    const work = allAtOne(settled, stationsOf(settled, floor))?.work ?? [];
    return {
      with: "alone",
      sessionId,
      status,
      done: work.reduce((sum, one) => sum + one.done, 0),
      planned: work.reduce((sum, one) => sum + one.planned, 0),
    };
  }
  return undefined;
}

const isIn = (session: FrozenSession, athleteId: string) =>
  session.slots.some((slot) => peopleOf(slot).some((one) => one.athleteId === athleteId));
