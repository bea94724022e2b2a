import { and, asc, desc, eq } from "drizzle-orm";
import type { MaxRecord } from "../../core/maxes/records";
import { type DatedLine, loadVelocityLine } from "../../core/profile/line";
import { liftVariant, maxRecord, profilePoint, profileTest, workingMaxChoice } from "../schema";
import type { TeamTransaction } from "../team.server";

export function listVariants(tx: TeamTransaction) {
  return tx.select().from(liftVariant).orderBy(asc(liftVariant.name));
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

export async function recordsOf(tx: TeamTransaction, athleteId: string): Promise<StoredRecord[]> {
  return tx
    .select()
    .from(maxRecord)
    .where(eq(maxRecord.athleteId, athleteId))
    .orderBy(desc(maxRecord.date), desc(maxRecord.enteredAt));
}

export async function addRecord(
  tx: TeamTransaction,
  row: Omit<typeof maxRecord.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(maxRecord).values({ teamId: tx.teamId, ...row });
}

export interface Choice {
  athleteId: string;
  variantId: string;
  factor: number | undefined;
  chosenBy: string;
  chosenAt: Date;
  record: MaxRecord;
}

/** The newest choice of each athlete and variant; of all athletes, or of one variant. */
export async function currentChoices(
  tx: TeamTransaction,
  filter: { variantId?: string; athleteId?: string },
): Promise<Choice[]> {
  const rows = await tx
    .selectDistinctOn([workingMaxChoice.athleteId, workingMaxChoice.variantId], {
      choice: workingMaxChoice,
      record: maxRecord,
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
        filter.variantId ? eq(workingMaxChoice.variantId, filter.variantId) : undefined,
        filter.athleteId ? eq(workingMaxChoice.athleteId, filter.athleteId) : undefined,
      ),
    )
    .orderBy(
      workingMaxChoice.athleteId,
      workingMaxChoice.variantId,
      desc(workingMaxChoice.chosenAt),
      desc(workingMaxChoice.id),
    );
  return rows.map(({ choice, record }) => ({
    athleteId: choice.athleteId,
    variantId: choice.variantId,
    factor: choice.factor ?? undefined,
    chosenBy: choice.chosenBy,
    chosenAt: choice.chosenAt,
    record,
  }));
}

export async function chooseWorkingMax(
  tx: TeamTransaction,
  row: Omit<typeof workingMaxChoice.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(workingMaxChoice).values({ teamId: tx.teamId, ...row });
}

export interface StoredProfile extends DatedLine {
  athleteId: string;
  points: Array<{ loadKg: number; velocityMps: number }>;
  source: string;
}

/** The newest test of each athlete and variant that gives a line. */
export async function newestProfiles(
  tx: TeamTransaction,
  filter: { variantId?: string; athleteId?: string },
): Promise<StoredProfile[]> {
  const tests = await tx
    .selectDistinctOn([profileTest.athleteId, profileTest.variantId])
    .from(profileTest)
    .where(
      and(
        filter.variantId ? eq(profileTest.variantId, filter.variantId) : undefined,
        filter.athleteId ? eq(profileTest.athleteId, filter.athleteId) : undefined,
      ),
    )
    .orderBy(profileTest.athleteId, profileTest.variantId, desc(profileTest.date));
  if (tests.length === 0) return [];
  const points = await tx
    .select({ point: profilePoint })
    .from(profilePoint)
    .innerJoin(
      profileTest,
      and(eq(profileTest.teamId, profilePoint.teamId), eq(profileTest.id, profilePoint.testId)),
    )
    .where(
      and(
        filter.variantId ? eq(profileTest.variantId, filter.variantId) : undefined,
        filter.athleteId ? eq(profileTest.athleteId, filter.athleteId) : undefined,
        eq(profilePoint.excluded, false),
      ),
    );
  const byTest = new Map<string, Array<{ loadKg: number; velocityMps: number }>>();
  for (const { point } of points) {
    const list = byTest.get(point.testId) ?? [];
    list.push({ loadKg: point.loadKg, velocityMps: point.velocityMps });
    byTest.set(point.testId, list);
  }
  return tests.flatMap((test) => {
    const own = (byTest.get(test.id) ?? []).sort((a, b) => a.loadKg - b.loadKg);
    const line = loadVelocityLine(own, test.metric);
    if (!line.ok) return [];
    return [
      {
        athleteId: test.athleteId,
        variantId: test.variantId,
        testedOn: test.date,
        source: test.source,
        line,
        points: own,
      },
    ];
  });
}
