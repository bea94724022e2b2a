import { and, asc, desc, eq, gt, inArray, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import type { Complex } from "../../core/contrast/complex";
import type { RunEntry } from "../../core/contrast/run";
import type { LocalDate } from "../../core/units/time";
import { SHIPPED_COMPLEXES } from "../library/complexes";
import { complexEntry, complexRun, gapTestDay, teamComplex } from "../schema";
import type { TeamTransaction } from "../team.server";

/** Gives a team that has none the shipped complexes; two who come first at once wait. */
export async function ensureComplexes(
  tx: TeamTransaction,
  uuid: () => string = uuidv7,
): Promise<void> {
  const empty = async () =>
    (await tx.select({ id: teamComplex.id }).from(teamComplex).limit(1)).length === 0;
  if (!(await empty())) return;
  await tx.execute(
    sql`SELECT pg_advisory_xact_lock(hashtextextended(${`complexes ${tx.teamId}`}, 0))`,
  );
  if (!(await empty())) return;
  await tx.insert(teamComplex).values(
    SHIPPED_COMPLEXES.map((complex) => ({
      teamId: tx.teamId,
      id: uuid(),
      lineageId: uuid(),
      version: 1,
      complex,
      enteredBy: "shipped",
      enteredAt: new Date(0),
    })),
  );
}

export interface ComplexRow {
  id: string;
  lineageId: string;
  version: number;
  complex: Complex;
  awayOn: string | null;
  enteredBy: string;
}

/** The newest version of every complex, by name. */
export async function listComplexes(tx: TeamTransaction): Promise<ComplexRow[]> {
  const rows = await tx
    .select()
    .from(teamComplex)
    .orderBy(asc(teamComplex.lineageId), desc(teamComplex.version));
  return rows
    .filter((row, i) => row.lineageId !== rows[i - 1]?.lineageId)
    .sort((a, b) => a.complex.name.localeCompare(b.complex.name));
}

export async function addComplexVersion(
  tx: TeamTransaction,
  row: Omit<typeof teamComplex.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(teamComplex).values({ teamId: tx.teamId, ...row });
}

export async function putComplexAway(tx: TeamTransaction, id: string, awayOn: LocalDate | null) {
  await tx.update(teamComplex).set({ awayOn }).where(eq(teamComplex.id, id));
}

export async function addRun(
  tx: TeamTransaction,
  row: Omit<typeof complexRun.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(complexRun).values({ teamId: tx.teamId, ...row });
}

/** Undefined also for an id that is none: it stands in an address. */
export async function runById(tx: TeamTransaction, id: string) {
  if (!/^[0-9a-f-]{36}$/.test(id)) return undefined;
  const [row] = await tx.select().from(complexRun).where(eq(complexRun.id, id));
  return row;
}

export function listRuns(tx: TeamTransaction, most: number) {
  return tx.select().from(complexRun).orderBy(desc(complexRun.enteredAt)).limit(most);
}

export async function endRun(tx: TeamTransaction, id: string, at: Date): Promise<void> {
  await tx.update(complexRun).set({ endedAt: at }).where(eq(complexRun.id, id));
}

export async function runEntries(
  tx: TeamTransaction,
  runId: string,
  after = 0,
): Promise<Array<{ seq: number; body: RunEntry }>> {
  return tx
    .select({ seq: complexEntry.seq, body: complexEntry.body })
    .from(complexEntry)
    .where(and(eq(complexEntry.runId, runId), gt(complexEntry.seq, after)))
    .orderBy(asc(complexEntry.seq));
}

/** The newest pairings that an athlete took part in. */
export function runsOfAthlete(tx: TeamTransaction, athleteId: string, most = 60) {
  return tx
    .select()
    .from(complexRun)
    .where(sql`${complexRun.athletes} @> ${JSON.stringify([{ athleteId }])}::jsonb`)
    .orderBy(desc(complexRun.date), desc(complexRun.enteredAt))
    .limit(most);
}

/** The taps of some runs, for an athlete's history. */
export async function entriesOfRuns(tx: TeamTransaction, runIds: readonly string[]) {
  if (runIds.length === 0) return [];
  return tx
    .select({ runId: complexEntry.runId, body: complexEntry.body })
    .from(complexEntry)
    .where(inArray(complexEntry.runId, [...runIds]))
    .orderBy(asc(complexEntry.seq));
}

/**
 * Stores taps under the next numbers of the run, allotted in this transaction. A tap that is
 * there already is passed over; what is acknowledged was read back.
 */
export async function appendRunEntries(
  tx: TeamTransaction,
  input: { runId: string; entries: readonly RunEntry[]; by: string; at: Date },
): Promise<string[]> {
  const ids = input.entries.map((one) => one.id);
  const known = async () =>
    new Set(
      (
        await tx
          .select({ id: complexEntry.id })
          .from(complexEntry)
          .where(and(eq(complexEntry.runId, input.runId), inArray(complexEntry.id, ids)))
      ).map((row) => row.id),
    );
  // The row's lock puts writers of one run in order.
  await tx
    .update(complexRun)
    .set({ lastSeq: sql`${complexRun.lastSeq} + ${input.entries.length}` })
    .where(eq(complexRun.id, input.runId));
  const run = await runById(tx, input.runId);
  const before = await known();
  const fresh = input.entries.filter((one) => !before.has(one.id));
  if (run && fresh.length > 0) {
    const first = run.lastSeq - input.entries.length;
    await tx.insert(complexEntry).values(
      fresh.map((body, i) => ({
        teamId: tx.teamId,
        id: body.id,
        runId: input.runId,
        seq: first + i + 1,
        body,
        receivedAt: input.at,
        enteredBy: input.by,
      })),
    );
  }
  return [...(await known())];
}

export function gapTestDays(tx: TeamTransaction, athleteId?: string) {
  return tx
    .select()
    .from(gapTestDay)
    .where(athleteId ? eq(gapTestDay.athleteId, athleteId) : undefined)
    .orderBy(asc(gapTestDay.date));
}

/** One test of a trial a day: a second one of the day takes its place. */
export async function keepGapDay(
  tx: TeamTransaction,
  row: Omit<typeof gapTestDay.$inferInsert, "teamId">,
): Promise<void> {
  const { baseline, trials, heavySet, output, enteredBy, enteredAt } = row;
  await tx
    .insert(gapTestDay)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [gapTestDay.teamId, gapTestDay.athleteId, gapTestDay.trial, gapTestDay.date],
      set: { baseline, trials, heavySet, output, enteredBy, enteredAt },
    });
}
