import { asc, eq, or } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import { SHIPPED_EXERCISES } from "../library/exercises";
import { SHIPPED_PHYSICAL_TESTS } from "../library/physical-tests";
import { exercise, exerciseEasier, physicalTest } from "../schema";
import type { TeamTransaction } from "../team.server";

export type ExerciseRow = typeof exercise.$inferSelect;

export async function listExercises(tx: TeamTransaction) {
  const rows = await tx.select().from(exercise).orderBy(asc(exercise.name));
  const steps = await tx.select().from(exerciseEasier);
  return { rows, steps };
}

/** Adds an exercise, or changes one; its easier versions are set anew. */
export async function saveExercise(
  tx: TeamTransaction,
  row: Omit<typeof exercise.$inferInsert, "teamId">,
  easierIds: readonly string[],
): Promise<void> {
  await tx
    .insert(exercise)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({ target: [exercise.teamId, exercise.id], set: row });
  await tx.delete(exerciseEasier).where(eq(exerciseEasier.exerciseId, row.id));
  if (easierIds.length > 0) {
    await tx.insert(exerciseEasier).values(
      easierIds.map((easierId) => ({
        teamId: tx.teamId,
        id: uuidv7(),
        exerciseId: row.id,
        easierId,
      })),
    );
  }
}

export async function putAway(tx: TeamTransaction, id: string, at: Date | null): Promise<void> {
  await tx.update(exercise).set({ putAwayAt: at }).where(eq(exercise.id, id));
}

export async function stepsOf(tx: TeamTransaction, id: string) {
  return tx
    .select()
    .from(exerciseEasier)
    .where(or(eq(exerciseEasier.exerciseId, id), eq(exerciseEasier.easierId, id)));
}

/** Copies the shipped library into a new team. */
export async function copyLibrary(tx: TeamTransaction, uuid: () => string): Promise<void> {
  const { teamId } = tx;
  const ids = new Map(SHIPPED_EXERCISES.map((one) => [one.name, uuid()]));
  await tx.insert(exercise).values(
    SHIPPED_EXERCISES.map(({ easier: _, ...one }) => ({
      teamId,
      id: ids.get(one.name) as string,
      ...one,
    })),
  );
  await tx.insert(exerciseEasier).values(
    SHIPPED_EXERCISES.flatMap((one) =>
      one.easier
        ? [
            {
              teamId,
              id: uuid(),
              exerciseId: ids.get(one.name) as string,
              easierId: ids.get(one.easier) as string,
            },
          ]
        : [],
    ),
  );
  await tx
    .insert(physicalTest)
    .values(SHIPPED_PHYSICAL_TESTS.map((test) => ({ teamId, id: uuid(), ...test })));
}
