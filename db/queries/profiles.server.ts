import { and, asc, desc, eq, inArray, sql } from "drizzle-orm";
import type { ProfileRep } from "../../core/profile/analysis";
import { loadVelocityLine, type ProfilePoint } from "../../core/profile/line";
import type { DatedLine } from "../../core/profile/target-speed";
import type { LocalDate } from "../../core/units/time";
import type { VelocityMetric } from "../../core/units/velocity";
import { isOlder } from "../../core/velocity/processing";
import {
  importBatch,
  importMapping,
  profilePoint,
  profileTest,
  readinessDecision,
} from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf, ofAthletes } from "./any-of.server";

export interface StoredProfileTest {
  id: string;
  athleteId: string;
  variantId: string;
  date: LocalDate;
  metric: VelocityMetric;
  source: string;
  processing: string;
  addedKg: number;
  note: string;
  enteredBy: string;
  enteredAt: Date;
  reps: Array<ProfileRep & { rep: number; excludedBy: string | null }>;
}

interface Which {
  of?: string | readonly string[] | undefined;
  variantIds?: readonly string[];
  testId?: string;
}

/** Profile tests with all their reps, the newest first. */
export async function profileTests(
  tx: TeamTransaction,
  which: Which,
  newestOnly?: number,
): Promise<StoredProfileTest[]> {
  const ranked = tx
    .select({
      id: profileTest.id,
      place:
        sql<number>`row_number() OVER (PARTITION BY ${profileTest.athleteId}, ${profileTest.variantId} ORDER BY ${profileTest.date} DESC, ${profileTest.enteredAt} DESC)`.as(
          "place",
        ),
    })
    .from(profileTest)
    .where(matching(which))
    .as("ranked");
  const tests = await tx
    .select({ test: profileTest })
    .from(profileTest)
    .innerJoin(ranked, eq(ranked.id, profileTest.id))
    .where(newestOnly === undefined ? undefined : sql`${ranked.place} <= ${newestOnly}`)
    .orderBy(desc(profileTest.date), desc(profileTest.enteredAt));
  if (tests.length === 0) return [];
  const points = await tx
    .select()
    .from(profilePoint)
    .where(
      inArray(
        profilePoint.testId,
        tests.map(({ test }) => test.id),
      ),
    )
    .orderBy(asc(profilePoint.rep));
  const byTest = new Map<string, StoredProfileTest["reps"]>();
  for (const point of points) {
    const list = byTest.get(point.testId) ?? [];
    byTest.set(point.testId, list);
    list.push({
      id: point.id,
      rep: point.rep,
      loadKg: point.loadKg,
      velocityMps: point.velocityMps,
      forceN: point.forceN ?? undefined,
      powerW: point.powerW ?? undefined,
      excluded: point.excludedReason ?? undefined,
      excludedBy: point.excludedBy,
    });
  }
  return tests.map(({ test }) => ({ ...test, reps: byTest.get(test.id) ?? [] }));
}

function matching(which: Which) {
  return and(
    which.variantIds ? inArray(profileTest.variantId, [...which.variantIds]) : undefined,
    ofAthletes(profileTest.athleteId, which.of),
    which.testId ? eq(profileTest.id, which.testId) : undefined,
  );
}

export interface StoredProfile extends DatedLine {
  athleteId: string;
  testedOn: LocalDate;
  points: ProfilePoint[];
  source: string;
}

/** Tests of one athlete and variant that are looked at for one that gives a line. */
const LOOK_BACK = 3;

/**
 * The newest of the last three tests of each athlete and variant that gives a line; one that was
 * measured by an older processing gives none.
 */
export async function newestProfiles(
  tx: TeamTransaction,
  which: Omit<Which, "testId">,
): Promise<StoredProfile[]> {
  const found = new Map<string, StoredProfile>();
  for (const test of await profileTests(tx, which, LOOK_BACK)) {
    const key = `${test.athleteId}/${test.variantId}`;
    const points = test.reps
      .filter((rep) => rep.excluded === undefined)
      .map(({ loadKg, velocityMps }) => ({ loadKg, velocityMps }))
      .sort((a, b) => a.loadKg - b.loadKg);
    const line = loadVelocityLine(points, test.metric);
    if (found.has(key) || !line.ok || isOlder(test.processing)) continue;
    const { athleteId, variantId, date, source } = test;
    found.set(key, { athleteId, variantId, testedOn: date, source, line, points });
  }
  return [...found.values()];
}

/** The day of each athlete's newest test of some lifts. */
export async function newestTestDays(
  tx: TeamTransaction,
  of: { athleteIds: readonly string[]; variantIds: readonly string[] },
): Promise<Array<{ athleteId: string; variantId: string; testedOn: LocalDate }>> {
  return tx
    .select({
      athleteId: profileTest.athleteId,
      variantId: profileTest.variantId,
      testedOn: sql<LocalDate>`max(${profileTest.date})`,
    })
    .from(profileTest)
    .where(
      and(anyOf(profileTest.athleteId, of.athleteIds), anyOf(profileTest.variantId, of.variantIds)),
    )
    .groupBy(profileTest.athleteId, profileTest.variantId);
}

export type NewProfile = Omit<typeof profileTest.$inferInsert, "teamId" | "fingerprint"> & {
  reps: Array<
    Pick<typeof profilePoint.$inferInsert, "id" | "loadKg" | "velocityMps"> & {
      forceN?: number | undefined;
      powerW?: number | undefined;
      excludedReason?: string | undefined;
      excludedBy?: string | undefined;
      excludedAt?: Date | undefined;
    }
  >;
};

/** Loads and speeds in order: two tests with the same are the same test. */
function fingerprintOf(reps: readonly ProfilePoint[]): string {
  return reps.map((rep) => `${rep.loadKg.toFixed(3)}@${rep.velocityMps.toFixed(3)}`).join(" ");
}

/** So many rows an insert: a statement takes 65,535 parameters, and a rep brings ten. */
const ROWS_AT_ONCE = 1000;

/**
 * Keeps some tests, in as few statements as they need.
 * @returns the ids of those that were kept; the very same test is never kept twice
 */
export async function addProfiles(
  tx: TeamTransaction,
  tests: readonly NewProfile[],
): Promise<Set<string>> {
  const kept = new Set<string>();
  for (let i = 0; i < tests.length; i += ROWS_AT_ONCE) {
    const rows = await tx
      .insert(profileTest)
      .values(
        tests.slice(i, i + ROWS_AT_ONCE).map(({ reps, ...row }) => ({
          teamId: tx.teamId,
          ...row,
          fingerprint: fingerprintOf(reps),
        })),
      )
      .onConflictDoNothing()
      .returning({ id: profileTest.id });
    for (const { id } of rows) kept.add(id);
  }
  const points = tests
    .filter((test) => kept.has(test.id))
    .flatMap(({ id, reps }) =>
      reps.map((rep, i) => ({ teamId: tx.teamId, testId: id, rep: i + 1, ...rep })),
    );
  for (let i = 0; i < points.length; i += ROWS_AT_ONCE)
    await tx.insert(profilePoint).values(points.slice(i, i + ROWS_AT_ONCE));
  return kept;
}

/** Keeps a test; false where the very same one is there already, and then nothing is changed. */
export const addProfile = async (tx: TeamTransaction, test: NewProfile): Promise<boolean> =>
  (await addProfiles(tx, [test])).has(test.id);

/** Leaves a rep out of the line, or takes it in again; the rep itself is never changed. */
export async function excludeRep(
  tx: TeamTransaction,
  repId: string,
  exclusion: { reason: string; by: string; at: Date } | undefined,
): Promise<void> {
  await tx
    .update(profilePoint)
    .set({
      excludedReason: exclusion?.reason ?? null,
      excludedBy: exclusion?.by ?? null,
      excludedAt: exclusion?.at ?? null,
    })
    .where(eq(profilePoint.id, repId));
}

export async function decisionsOf(tx: TeamTransaction, athleteId: string) {
  return tx
    .select()
    .from(readinessDecision)
    .where(eq(readinessDecision.athleteId, athleteId))
    .orderBy(desc(readinessDecision.enteredAt));
}

/** What was decided on today's form, the newest of a day by athlete and lift variant. */
export async function decidedToday(
  tx: TeamTransaction,
  asked: { of: readonly string[]; todayOf: (athleteId: string) => LocalDate },
) {
  const days = [...new Set(asked.of.map(asked.todayOf))];
  if (days.length === 0) return [];
  const rows = await tx
    .select({
      athleteId: readinessDecision.athleteId,
      variantId: profileTest.variantId,
      date: readinessDecision.date,
      plannedKg: readinessDecision.plannedKg,
      decidedKg: readinessDecision.decidedKg,
      by: readinessDecision.enteredBy,
    })
    .from(readinessDecision)
    .innerJoin(
      profileTest,
      and(
        eq(profileTest.teamId, readinessDecision.teamId),
        eq(profileTest.id, readinessDecision.testId),
      ),
    )
    .where(
      and(ofAthletes(readinessDecision.athleteId, asked.of), inArray(readinessDecision.date, days)),
    )
    .orderBy(asc(readinessDecision.enteredAt));
  return rows.filter((row) => row.date === asked.todayOf(row.athleteId));
}

export async function addDecision(
  tx: TeamTransaction,
  row: Omit<typeof readinessDecision.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(readinessDecision).values({ teamId: tx.teamId, ...row });
}

export async function mappings(tx: TeamTransaction) {
  return tx.select().from(importMapping);
}

export async function keepMapping(
  tx: TeamTransaction,
  row: Omit<typeof importMapping.$inferInsert, "teamId">,
): Promise<void> {
  const { mapping, enteredBy, enteredAt } = row;
  await tx
    .insert(importMapping)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [importMapping.teamId, importMapping.header],
      set: { mapping, enteredBy, enteredAt },
    });
}

export async function addBatch(
  tx: TeamTransaction,
  row: Omit<typeof importBatch.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(importBatch).values({ teamId: tx.teamId, ...row });
}

export async function batches(tx: TeamTransaction) {
  return tx.select().from(importBatch).orderBy(desc(importBatch.enteredAt)).limit(20);
}
