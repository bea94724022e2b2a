import { asc, desc, eq, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import type { Complex } from "../../core/contrast/complex";
import type { LocalDate } from "../../core/units/time";
import { SHIPPED_COMPLEXES } from "../library/complexes";
import { gapTestDay, teamComplex } from "../schema";
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
