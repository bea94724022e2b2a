import { eq, sql } from "drizzle-orm";
import { type FirstHour, type FirstHourStep, team } from "../schema";
import type { TeamTransaction } from "../team.server";

export interface FirstHourFacts {
  hour: FirstHour;
  schoolId: string | null;
  rooms: number;
  racks: number;
  squads: number;
  athletes: number;
  /** Athletes with a working max of at least one lift. */
  withMax: number;
  plans: number;
  published: number;
  tablets: number;
}

/** What stands and what is left, in one question. */
export async function firstHourFacts(tx: TeamTransaction): Promise<FirstHourFacts> {
  const [row] = await tx.execute<{ facts: FirstHourFacts }>(sql`SELECT json_build_object(
    'hour', (SELECT first_hour FROM team),
    'schoolId', (SELECT school_id FROM team),
    'rooms', (SELECT count(*) FROM room),
    'racks', (SELECT count(*) FROM rack WHERE away_on IS NULL),
    'squads', (SELECT count(*) FROM squad WHERE archived_at IS NULL),
    'athletes', (SELECT count(*) FROM athlete WHERE archived_at IS NULL),
    'withMax', (SELECT count(*) FROM athlete WHERE archived_at IS NULL AND EXISTS (
      SELECT 1 FROM working_max_choice c WHERE c.team_id = athlete.team_id
        AND c.athlete_id = athlete.id)),
    'plans', (SELECT count(*) FROM plan WHERE away_on IS NULL),
    'published', (SELECT count(DISTINCT plan_id) FROM plan_version),
    'tablets', (SELECT count(*) FROM rack_device WHERE revoked_at IS NULL)
  ) AS facts`);
  return (row as { facts: FirstHourFacts }).facts;
}

/** Whether the first hour still runs, without counting anything. */
export async function firstHourOf(tx: TeamTransaction): Promise<FirstHour> {
  const [row] = await tx.select({ hour: team.firstHour }).from(team);
  return row?.hour ?? { over: true };
}

/** Sets a step aside, or takes it up again. */
export async function setAside(
  tx: TeamTransaction,
  step: FirstHourStep,
  aside: boolean,
): Promise<void> {
  const [row] = await tx.select({ hour: team.firstHour }).from(team).for("update");
  const steps = (row?.hour.aside ?? []).filter((one) => one !== step);
  await tx
    .update(team)
    .set({ firstHour: { ...row?.hour, aside: aside ? [...steps, step] : steps } })
    .where(eq(team.id, tx.teamId));
}

/** The first hour has come to its end: its page leaves. */
export async function endFirstHour(tx: TeamTransaction): Promise<void> {
  await tx
    .update(team)
    .set({ firstHour: sql`${team.firstHour} || '{"over": true}'::jsonb` })
    .where(eq(team.id, tx.teamId));
}

/** The school that new plans start with. */
export async function setTeamSchool(tx: TeamTransaction, schoolId: string): Promise<void> {
  await tx.update(team).set({ schoolId }).where(eq(team.id, tx.teamId));
}
