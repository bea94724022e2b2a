import { and, asc, desc, eq, isNotNull } from "drizzle-orm";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import {
  boxSetup,
  cardConfirmation,
  cycleReview,
  faultNote,
  ladderGroup,
  ladderMark,
  standardCard,
} from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf, ofAthletes } from "./any-of.server";

/** Ladder marks of one athlete, of some, or of all, in the order they were made. */
export function ladderMarks(tx: TeamTransaction, of?: string | readonly string[]) {
  return tx
    .select()
    .from(ladderMark)
    .where(ofAthletes(ladderMark.athleteId, of))
    .orderBy(asc(ladderMark.date), asc(ladderMark.enteredAt), asc(ladderMark.id));
}

export interface FoundWeightRow {
  athleteId: string;
  variantId: string;
  load: Mass;
  date: LocalDate;
}

/** The newest speed weight that each athlete found in each variant. */
export async function foundWeights(
  tx: TeamTransaction,
  of: string | readonly string[],
): Promise<FoundWeightRow[]> {
  const rows = await tx
    .selectDistinctOn([ladderMark.athleteId, ladderMark.variantId], {
      athleteId: ladderMark.athleteId,
      variantId: ladderMark.variantId,
      load: ladderMark.load,
      date: ladderMark.date,
    })
    .from(ladderMark)
    .where(and(isNotNull(ladderMark.load), ofAthletes(ladderMark.athleteId, of)))
    .orderBy(
      ladderMark.athleteId,
      ladderMark.variantId,
      desc(ladderMark.date),
      desc(ladderMark.enteredAt),
      desc(ladderMark.id),
    );
  return rows.flatMap(({ athleteId, variantId, load, date }) =>
    variantId && load ? [{ athleteId, variantId, load, date }] : [],
  );
}

export async function addLadderMarks(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof ladderMark.$inferInsert, "teamId">>,
): Promise<void> {
  if (rows.length > 0)
    await tx.insert(ladderMark).values(rows.map((row) => ({ teamId: tx.teamId, ...row })));
}

/** The newest word on a squad's ladder. */
export async function ladderGroupOf(tx: TeamTransaction, squadId: string) {
  const [row] = await tx
    .select()
    .from(ladderGroup)
    .where(eq(ladderGroup.squadId, squadId))
    .orderBy(desc(ladderGroup.enteredAt), desc(ladderGroup.id))
    .limit(1);
  return row;
}

/** The newest word on each squad's ladder, by squad. */
export async function ladderGroups(tx: TeamTransaction) {
  const rows = await tx
    .selectDistinctOn([ladderGroup.squadId])
    .from(ladderGroup)
    .orderBy(ladderGroup.squadId, desc(ladderGroup.enteredAt), desc(ladderGroup.id));
  return new Map(rows.map((row) => [row.squadId, row]));
}

export async function addLadderGroup(
  tx: TeamTransaction,
  row: Omit<typeof ladderGroup.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(ladderGroup).values({ teamId: tx.teamId, ...row });
}

/** Set-ups on the box, of one athlete or of all, the newest first. */
export function boxSetups(tx: TeamTransaction, of?: string | readonly string[]) {
  return tx
    .select()
    .from(boxSetup)
    .where(ofAthletes(boxSetup.athleteId, of))
    .orderBy(desc(boxSetup.enteredAt), desc(boxSetup.id));
}

export type BoxSetupRow = typeof boxSetup.$inferSelect;

export async function addBoxSetup(
  tx: TeamTransaction,
  row: Omit<typeof boxSetup.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(boxSetup).values({ teamId: tx.teamId, ...row });
}

export async function markRehearsed(
  tx: TeamTransaction,
  id: string,
  input: { on: LocalDate; by: string },
): Promise<void> {
  await tx
    .update(boxSetup)
    .set({ rehearsedOn: input.on, rehearsedBy: input.by })
    .where(eq(boxSetup.id, id));
}

export function faultNotes(tx: TeamTransaction, athleteIds: readonly string[]) {
  return tx
    .select()
    .from(faultNote)
    .where(anyOf(faultNote.athleteId, athleteIds))
    .orderBy(asc(faultNote.date));
}

export async function addFaultNote(
  tx: TeamTransaction,
  row: Omit<typeof faultNote.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(faultNote).values({ teamId: tx.teamId, ...row });
}

export async function newestCard(tx: TeamTransaction) {
  const [row] = await tx.select().from(standardCard).orderBy(desc(standardCard.version)).limit(1);
  return row;
}

export async function addCard(
  tx: TeamTransaction,
  row: Omit<typeof standardCard.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(standardCard).values({ teamId: tx.teamId, ...row });
}

export function confirmations(tx: TeamTransaction, cardId: string) {
  return tx
    .select()
    .from(cardConfirmation)
    .where(eq(cardConfirmation.cardId, cardId))
    .orderBy(asc(cardConfirmation.enteredAt));
}

export async function confirmCard(
  tx: TeamTransaction,
  row: Omit<typeof cardConfirmation.$inferInsert, "teamId">,
): Promise<void> {
  await tx
    .insert(cardConfirmation)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoNothing();
}

/** What was decided on a cycle, the newest first. */
export function cycleReviews(tx: TeamTransaction, planId: string, slotId: string) {
  return tx
    .select()
    .from(cycleReview)
    .where(and(eq(cycleReview.planId, planId), eq(cycleReview.slotId, slotId)))
    .orderBy(desc(cycleReview.enteredAt), desc(cycleReview.id));
}

export async function addCycleReview(
  tx: TeamTransaction,
  row: Omit<typeof cycleReview.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(cycleReview).values({ teamId: tx.teamId, ...row });
}
