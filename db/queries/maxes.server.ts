import { and, asc, desc, eq, inArray } from "drizzle-orm";
import type { MaxRecord } from "../../core/maxes/records";
import { liftVariant, maxRecord, ownSingle, workingMaxChoice } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf, inParts, ofAthletes } from "./any-of.server";

export function listVariants(tx: TeamTransaction) {
  return tx.select().from(liftVariant).orderBy(asc(liftVariant.name));
}

export type VariantRow = typeof liftVariant.$inferSelect;

export async function saveVariant(
  tx: TeamTransaction,
  row: Omit<typeof liftVariant.$inferInsert, "teamId">,
): Promise<void> {
  await tx
    .insert(liftVariant)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({ target: [liftVariant.teamId, liftVariant.id], set: row });
}

export async function variantById(tx: TeamTransaction, id: string) {
  const [row] = await tx.select().from(liftVariant).where(eq(liftVariant.id, id));
  return row;
}

export interface StoredRecord extends MaxRecord {
  athleteId: string;
  variantId: string;
  enteredBy: string;
  enteredAt: Date;
}

/** Records of one athlete, of some, or of all; the newest first. */
export async function recordsOf(
  tx: TeamTransaction,
  of?: string | readonly string[],
): Promise<StoredRecord[]> {
  return tx
    .select()
    .from(maxRecord)
    .where(ofAthletes(maxRecord.athleteId, of))
    .orderBy(desc(maxRecord.date), desc(maxRecord.enteredAt));
}

/** What was lifted, in competition or a test, in some variants: for the best of each athlete. */
export async function liftedRecords(
  tx: TeamTransaction,
  of: string | readonly string[],
  variantIds: readonly string[],
): Promise<StoredRecord[]> {
  return tx
    .select()
    .from(maxRecord)
    .where(
      and(
        ofAthletes(maxRecord.athleteId, of),
        anyOf(maxRecord.variantId, variantIds),
        inArray(maxRecord.kind, ["competition", "tested"]),
      ),
    );
}

export async function addRecord(
  tx: TeamTransaction,
  row: Omit<typeof maxRecord.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(maxRecord).values({ teamId: tx.teamId, ...row });
}

export async function addRecords(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof maxRecord.$inferInsert, "teamId">>,
): Promise<void> {
  for (const part of inParts(rows))
    await tx.insert(maxRecord).values(part.map((row) => ({ teamId: tx.teamId, ...row })));
}

export interface Choice {
  athleteId: string;
  variantId: string;
  factor: number | undefined;
  chosenBy: string;
  chosenAt: Date;
  record: MaxRecord;
}

/** The newest choice of each athlete and variant; of all athletes, of one, or of some. */
export async function currentChoices(
  tx: TeamTransaction,
  filter: {
    of?: string | readonly string[] | undefined;
    variantIds?: readonly string[];
  },
): Promise<Choice[]> {
  const rows = await tx
    .selectDistinctOn([workingMaxChoice.athleteId, workingMaxChoice.variantId], {
      athleteId: workingMaxChoice.athleteId,
      variantId: workingMaxChoice.variantId,
      factor: workingMaxChoice.factor,
      chosenBy: workingMaxChoice.chosenBy,
      chosenAt: workingMaxChoice.chosenAt,
      id: maxRecord.id,
      load: maxRecord.load,
      date: maxRecord.date,
      kind: maxRecord.kind,
      note: maxRecord.note,
    })
    .from(workingMaxChoice)
    .innerJoin(
      maxRecord,
      and(
        eq(maxRecord.teamId, workingMaxChoice.teamId),
        eq(maxRecord.id, workingMaxChoice.recordId),
      ),
    )
    .where(
      and(
        ofAthletes(workingMaxChoice.athleteId, filter.of),
        filter.variantIds ? inArray(workingMaxChoice.variantId, [...filter.variantIds]) : undefined,
      ),
    )
    .orderBy(
      workingMaxChoice.athleteId,
      workingMaxChoice.variantId,
      desc(workingMaxChoice.chosenAt),
      desc(workingMaxChoice.id),
    );
  return rows.map(({ athleteId, variantId, factor, chosenBy, chosenAt, ...record }) => ({
    athleteId,
    variantId,
    factor: factor ?? undefined,
    chosenBy,
    chosenAt,
    record,
  }));
}

export async function chooseWorkingMax(
  tx: TeamTransaction,
  row: Omit<typeof workingMaxChoice.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(workingMaxChoice).values({ teamId: tx.teamId, ...row });
}

export async function chooseWorkingMaxes(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof workingMaxChoice.$inferInsert, "teamId">>,
): Promise<void> {
  if (rows.length === 0) return;
  await tx.insert(workingMaxChoice).values(rows.map((row) => ({ teamId: tx.teamId, ...row })));
}

/** Confirmed maximal singles of one athlete, or of all. */
export async function singlesOf(tx: TeamTransaction, of?: string | readonly string[]) {
  return tx
    .select()
    .from(ownSingle)
    .where(ofAthletes(ownSingle.athleteId, of))
    .orderBy(asc(ownSingle.date), asc(ownSingle.enteredAt));
}

export async function addSingle(
  tx: TeamTransaction,
  row: Omit<typeof ownSingle.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(ownSingle).values({ teamId: tx.teamId, ...row });
}
