import { and, desc, eq, sql } from "drizzle-orm";
import type { Mass } from "../../core/units/mass";
import { athlete, earlierSet } from "../schema";
import type { TeamTransaction } from "../team.server";
import { inParts, ofAthletes } from "./any-of.server";

/**
 * Keeps sets from before; those that are there already stay as they are.
 * @returns how many are new
 */
export async function addEarlierSets(
  tx: TeamTransaction,
  rows: ReadonlyArray<Omit<typeof earlierSet.$inferInsert, "teamId">>,
): Promise<number> {
  let added = 0;
  for (const part of inParts(rows)) {
    const kept = await tx
      .insert(earlierSet)
      .values(part.map((row) => ({ teamId: tx.teamId, ...row })))
      .onConflictDoNothing()
      .returning({ id: earlierSet.id });
    added += kept.length;
  }
  return added;
}

/** The newest sets from before of one athlete. */
export function earlierSets(tx: TeamTransaction, athleteId: string, most: number) {
  return tx
    .select()
    .from(earlierSet)
    .where(eq(earlierSet.athleteId, athleteId))
    .orderBy(desc(earlierSet.date), desc(earlierSet.id))
    .limit(most);
}

/** Everything from before, with the athletes' names, for what is taken out. */
export function everyEarlierSet(tx: TeamTransaction) {
  return tx
    .select({ set: earlierSet, name: athlete.name })
    .from(earlierSet)
    .innerJoin(
      athlete,
      and(eq(athlete.teamId, earlierSet.teamId), eq(athlete.id, earlierSet.athleteId)),
    )
    .orderBy(athlete.name, earlierSet.date, earlierSet.id);
}

export interface EarlierBest {
  athleteId: string;
  variantId: string;
  load: Mass;
}

/** Every load that was lifted before, once an athlete's lift: for what was lifted already. */
export function earlierLoads(
  tx: TeamTransaction,
  of?: string | readonly string[],
): Promise<EarlierBest[]> {
  return tx
    .selectDistinctOn([earlierSet.athleteId, earlierSet.variantId], {
      athleteId: earlierSet.athleteId,
      variantId: earlierSet.variantId,
      load: earlierSet.load,
    })
    .from(earlierSet)
    .where(ofAthletes(earlierSet.athleteId, of))
    .orderBy(
      earlierSet.athleteId,
      earlierSet.variantId,
      // In kilograms: a sheet may hold both units.
      desc(
        sql`(${earlierSet.load}->>'amount')::float8 * CASE ${earlierSet.load}->>'unit' WHEN 'lb' THEN 0.45359237 ELSE 1 END`,
      ),
    );
}
