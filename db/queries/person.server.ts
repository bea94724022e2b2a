import { and, asc, desc, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import { type Limit, limitHolds } from "../../core/maxes/limits";
import type { LocalDate } from "../../core/units/time";
import {
  athlete,
  athleteLimit,
  athleteSetup,
  bodyMass,
  competition,
  dayNote,
  limitReason,
  reasonRead,
} from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf, inParts, ofAthletes } from "./any-of.server";
import { type InSquads, squadsOf } from "./squads.server";

export async function updateAthlete(
  tx: TeamTransaction,
  id: string,
  facts: Partial<Omit<typeof athlete.$inferInsert, "teamId" | "id">>,
): Promise<boolean> {
  const rows = await tx
    .update(athlete)
    .set(facts)
    .where(eq(athlete.id, id))
    .returning({ id: athlete.id });
  return rows.length === 1;
}

export async function addAthlete(
  tx: TeamTransaction,
  row: Omit<typeof athlete.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(athlete).values({ teamId: tx.teamId, ...row });
}

/** Many new athletes. */
export async function addAthletes(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof athlete.$inferInsert, "teamId">>,
): Promise<void> {
  for (const part of inParts(rows))
    await tx.insert(athlete).values(part.map((row) => ({ teamId: tx.teamId, ...row })));
}

/** Many changed athletes: those of the same change in one statement. */
export async function updateAthletes(
  tx: TeamTransaction,
  changes: ReadonlyArray<{
    id: string;
    facts: Partial<Omit<typeof athlete.$inferInsert, "teamId" | "id">>;
  }>,
): Promise<void> {
  const all = changes.map((one) => one.id);
  // In one order, so that two who change the same athletes wait for one another, not in a circle.
  await tx
    .select({ id: athlete.id })
    .from(athlete)
    .where(anyOf(athlete.id, all))
    .orderBy(asc(athlete.id))
    .for("update");
  const groups = new Map<string, { facts: (typeof changes)[number]["facts"]; ids: string[] }>();
  for (const { id, facts } of changes) {
    if (Object.keys(facts).length === 0) continue;
    const key = JSON.stringify(facts);
    const group = groups.get(key) ?? { facts, ids: [] };
    group.ids.push(id);
    groups.set(key, group);
  }
  for (const { facts, ids } of groups.values())
    await tx.update(athlete).set(facts).where(anyOf(athlete.id, ids));
}

/** Body masses of many, one a day each. */
export async function addBodyMasses(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof bodyMass.$inferInsert, "teamId">>,
): Promise<void> {
  for (const part of inParts(rows))
    await tx
      .insert(bodyMass)
      .values(part.map((row) => ({ teamId: tx.teamId, ...row })))
      .onConflictDoUpdate({
        target: [bodyMass.teamId, bodyMass.athleteId, bodyMass.date],
        set: {
          mass: sql`excluded.mass`,
          enteredBy: sql`excluded.entered_by`,
          enteredAt: sql`excluded.entered_at`,
        },
      });
}

/** Body masses of one athlete or of all, the newest first. */
export async function bodyMasses(tx: TeamTransaction, of?: string | readonly string[]) {
  return tx
    .select()
    .from(bodyMass)
    .where(ofAthletes(bodyMass.athleteId, of))
    .orderBy(desc(bodyMass.date));
}

/** The newest body mass of each of some athletes. */
export async function newestMasses(tx: TeamTransaction, athleteIds: readonly string[]) {
  return tx
    .selectDistinctOn([bodyMass.athleteId], { athleteId: bodyMass.athleteId, mass: bodyMass.mass })
    .from(bodyMass)
    .where(anyOf(bodyMass.athleteId, athleteIds))
    .orderBy(bodyMass.athleteId, desc(bodyMass.date));
}

/** One body mass a day: a second one of the day takes its place. */
export async function keepBodyMass(
  tx: TeamTransaction,
  row: Omit<typeof bodyMass.$inferInsert, "teamId">,
): Promise<void> {
  const { mass, enteredBy, enteredAt } = row;
  await tx
    .insert(bodyMass)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [bodyMass.teamId, bodyMass.athleteId, bodyMass.date],
      set: { mass, enteredBy, enteredAt },
    });
}

/** Competitions of an athlete and of their squads, or of the whole team; the next first. */
export async function competitions(tx: TeamTransaction, of?: InSquads) {
  return tx
    .select()
    .from(competition)
    .where(
      of
        ? or(eq(competition.athleteId, of.id), anyOf(competition.squadId, squadsOf(of)))
        : undefined,
    )
    .orderBy(asc(competition.date));
}

export async function addCompetition(
  tx: TeamTransaction,
  row: Omit<typeof competition.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(competition).values({ teamId: tx.teamId, ...row });
}

export async function removeCompetition(tx: TeamTransaction, id: string): Promise<void> {
  await tx.delete(competition).where(eq(competition.id, id));
}

export interface StoredLimit extends Limit {
  athleteId: string;
  enteredBy: string;
  enteredAt: Date;
  liftedBy: string | null;
}

/** Limits of one athlete or of all, without their reasons. */
export async function limitsOf(
  tx: TeamTransaction,
  of?: string | readonly string[],
): Promise<StoredLimit[]> {
  const rows = await tx
    .select()
    .from(athleteLimit)
    .where(ofAthletes(athleteLimit.athleteId, of))
    .orderBy(desc(athleteLimit.enteredAt));
  return rows.map((row) => ({
    ...row,
    lift: row.lift ?? undefined,
    capPercent: row.capPercent ?? undefined,
    until: row.until ?? undefined,
    liftedOn: row.liftedOn ?? undefined,
  }));
}

/** What cards and racks show: the instructions that hold on a day, by athlete. */
export async function instructionsOn(
  tx: TeamTransaction,
  todayOf: (athleteId: string) => LocalDate,
  of?: string | readonly string[],
): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  for (const limit of (await limitsOf(tx, of)).reverse()) {
    if (!limitHolds(limit, todayOf(limit.athleteId))) continue;
    found.set(limit.athleteId, [...(found.get(limit.athleteId) ?? []), limit.instruction]);
  }
  return found;
}

export async function addLimit(
  tx: TeamTransaction,
  limit: Omit<typeof athleteLimit.$inferInsert, "teamId">,
  reason: Omit<typeof limitReason.$inferInsert, "teamId" | "limitId"> | undefined,
): Promise<void> {
  await tx.insert(athleteLimit).values({ teamId: tx.teamId, ...limit });
  if (reason) {
    await tx.insert(limitReason).values({ teamId: tx.teamId, limitId: limit.id, ...reason });
  }
}

export async function liftLimit(
  tx: TeamTransaction,
  id: string,
  lifted: { on: LocalDate; by: string },
): Promise<boolean> {
  const rows = await tx
    .update(athleteLimit)
    .set({ liftedOn: lifted.on, liftedBy: lifted.by })
    .where(and(eq(athleteLimit.id, id), isNull(athleteLimit.liftedOn)))
    .returning({ id: athleteLimit.id });
  return rows.length === 1;
}

/** Reads the reasons of limits and records who did; the caller has checked the right. */
export async function readReasons(
  tx: TeamTransaction,
  limitIds: readonly string[],
  reader: { by: string; at: Date },
) {
  if (limitIds.length === 0) return [];
  const rows = await tx
    .select()
    .from(limitReason)
    .where(inArray(limitReason.limitId, [...limitIds]))
    .orderBy(desc(limitReason.enteredAt));
  if (rows.length > 0) {
    await tx.insert(reasonRead).values(
      rows.map((row) => ({
        teamId: tx.teamId,
        id: uuidv7(),
        limitId: row.limitId,
        readBy: reader.by,
        readAt: reader.at,
      })),
    );
  }
  return rows;
}

/** Notes that every reason of the team was read at once: it left in an archive. */
export async function noteEveryReasonRead(
  tx: TeamTransaction,
  reader: { by: string; at: Date },
): Promise<void> {
  const rows = await tx.select({ limitId: limitReason.limitId }).from(limitReason);
  for (const part of inParts(rows))
    await tx.insert(reasonRead).values(
      part.map(({ limitId }) => ({
        teamId: tx.teamId,
        id: uuidv7(),
        limitId,
        readBy: reader.by,
        readAt: reader.at,
      })),
    );
}

export async function readsOf(tx: TeamTransaction, limitIds: readonly string[]) {
  if (limitIds.length === 0) return [];
  return tx
    .select()
    .from(reasonRead)
    .where(inArray(reasonRead.limitId, [...limitIds]))
    .orderBy(desc(reasonRead.readAt));
}

export async function dayNotes(tx: TeamTransaction, athleteId: string) {
  return tx
    .select()
    .from(dayNote)
    .where(eq(dayNote.athleteId, athleteId))
    .orderBy(desc(dayNote.date))
    .limit(14);
}

export async function keepDayNote(
  tx: TeamTransaction,
  row: Omit<typeof dayNote.$inferInsert, "teamId">,
): Promise<void> {
  const { sleepH, eating, soreness, enteredBy, enteredAt } = row;
  await tx
    .insert(dayNote)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [dayNote.teamId, dayNote.athleteId, dayNote.date],
      set: { sleepH, eating, soreness, enteredBy, enteredAt },
    });
}

export async function setupsOf(tx: TeamTransaction, of: string | readonly string[]) {
  return tx.select().from(athleteSetup).where(ofAthletes(athleteSetup.athleteId, of));
}

export async function keepSetup(
  tx: TeamTransaction,
  row: Omit<typeof athleteSetup.$inferInsert, "teamId">,
): Promise<void> {
  const { id: _, ...changed } = row;
  await tx
    .insert(athleteSetup)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [athleteSetup.teamId, athleteSetup.athleteId, athleteSetup.variantId],
      set: changed,
    });
}
