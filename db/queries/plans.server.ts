import { and, desc, eq } from "drizzle-orm";
import type { Recipe } from "../../core/wave/recipe";
import { liftVariant, plan, planOverride, room, squad } from "../schema";
import type { TeamTransaction } from "../team.server";

const withNames = {
  plan,
  squadName: squad.name,
  variant: liftVariant,
  roomName: room.name,
  zone: room.zone,
};

function joined(tx: TeamTransaction) {
  return tx
    .select(withNames)
    .from(plan)
    .innerJoin(squad, and(eq(squad.teamId, plan.teamId), eq(squad.id, plan.squadId)))
    .innerJoin(
      liftVariant,
      and(eq(liftVariant.teamId, plan.teamId), eq(liftVariant.id, plan.variantId)),
    )
    .innerJoin(room, and(eq(room.teamId, plan.teamId), eq(room.id, plan.roomId)));
}

export type PlanRow = Awaited<ReturnType<typeof listPlans>>[number];

export function listPlans(tx: TeamTransaction) {
  return joined(tx).orderBy(desc(plan.startDate), squad.name);
}

export async function planById(tx: TeamTransaction, id: string): Promise<PlanRow | undefined> {
  const [row] = await joined(tx).where(eq(plan.id, id));
  return row;
}

/** Saves an edit made on `version`; false when somebody else saved first. */
export async function saveRecipe(
  tx: TeamTransaction,
  input: { planId: string; version: number; recipe: Recipe; name: string; by: string; at: Date },
): Promise<boolean> {
  const rows = await tx
    .update(plan)
    .set({
      recipe: input.recipe,
      name: input.name,
      version: input.version + 1,
      updatedBy: input.by,
      updatedAt: input.at,
    })
    .where(and(eq(plan.id, input.planId), eq(plan.version, input.version)))
    .returning({ id: plan.id });
  return rows.length === 1;
}

export interface Override {
  athleteId: string;
  setKey: string;
  loadKg: number;
  setBy: string;
}

export function overridesOf(tx: TeamTransaction, planId: string): Promise<Override[]> {
  return tx
    .select({
      athleteId: planOverride.athleteId,
      setKey: planOverride.setKey,
      loadKg: planOverride.loadKg,
      setBy: planOverride.setBy,
    })
    .from(planOverride)
    .where(eq(planOverride.planId, planId));
}

export async function setOverride(
  tx: TeamTransaction,
  row: Omit<typeof planOverride.$inferInsert, "teamId">,
): Promise<void> {
  await tx
    .insert(planOverride)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [
        planOverride.teamId,
        planOverride.planId,
        planOverride.athleteId,
        planOverride.setKey,
      ],
      set: { loadKg: row.loadKg, setBy: row.setBy, setAt: row.setAt },
    });
}

export async function liftOverride(
  tx: TeamTransaction,
  at: { planId: string; athleteId: string; setKey: string },
): Promise<void> {
  await tx
    .delete(planOverride)
    .where(
      and(
        eq(planOverride.planId, at.planId),
        eq(planOverride.athleteId, at.athleteId),
        eq(planOverride.setKey, at.setKey),
      ),
    );
}
