import { and, asc, desc, eq, getTableColumns, gt, inArray, isNull, ne, sql } from "drizzle-orm";
import { type Block, leadSlot } from "../../core/plan/block";
import type { BlockEdit } from "../../core/plan/edits";
import type { LocalDate } from "../../core/units/time";
import { athlete, type PublishedLoads, plan, planEdit, planVersion, room, squad } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";
import { keepBlock, keptBlock } from "./kept-blocks.server";
import { listVariants, type VariantRow } from "./maxes.server";
import type { Group } from "./squads.server";

const withNames = {
  plan,
  /** The squad's, or the athlete's who trains alone. */
  squadName: sql<string>`coalesce(${squad.name}, ${athlete.name})`,
  roomName: room.name,
  zone: room.zone,
};

function joined(tx: TeamTransaction) {
  return tx
    .select(withNames)
    .from(plan)
    .leftJoin(squad, and(eq(squad.teamId, plan.teamId), eq(squad.id, plan.squadId)))
    .leftJoin(athlete, and(eq(athlete.teamId, plan.teamId), eq(athlete.id, plan.athleteId)))
    .innerJoin(room, and(eq(room.teamId, plan.teamId), eq(room.id, plan.roomId)));
}

export interface PlanRow {
  plan: typeof plan.$inferSelect;
  squadName: string;
  roomName: string;
  zone: string;
  /** The lift of its lead slot; undefined where it has none yet. */
  variant: VariantRow | undefined;
  variants: VariantRow[];
}

async function withVariants(
  tx: TeamTransaction,
  rows: Awaited<ReturnType<typeof joined>>,
): Promise<PlanRow[]> {
  const variants = await listVariants(tx);
  return rows.map((row) => withLead(row, variants));
}

function withLead(
  row: Awaited<ReturnType<typeof joined>>[number],
  variants: VariantRow[],
): PlanRow {
  const work = leadSlot(row.plan.block)?.work;
  return {
    ...row,
    variants,
    variant: variants.find((one) => work?.kind === "lift" && one.id === work.variantId),
  };
}

const { block: _, ...withoutBlock } = getTableColumns(plan);
/** Another for each writing of a plan's row, whoever wrote it. */
const stamp = sql<string>`${plan}.xmin::text || ${plan}.ctid::text`;

/**
 * Plans that are not put away, the newest first. Their blocks are not to be changed: they are shared with
 * later readers (a block is read from its row only where that was written since).
 */
export async function listPlans(tx: TeamTransaction): Promise<PlanRow[]> {
  const [heads, variants] = await Promise.all([
    tx
      .select({ ...withNames, plan: withoutBlock, stamp })
      .from(plan)
      .leftJoin(squad, and(eq(squad.teamId, plan.teamId), eq(squad.id, plan.squadId)))
      .leftJoin(athlete, and(eq(athlete.teamId, plan.teamId), eq(athlete.id, plan.athleteId)))
      .innerJoin(room, and(eq(room.teamId, plan.teamId), eq(room.id, plan.roomId)))
      .where(isNull(plan.awayOn))
      .orderBy(desc(plan.startDate), asc(withNames.squadName)),
    listVariants(tx),
  ]);
  // Looked up once: another reader may keep a newer block meanwhile.
  const known = new Map(heads.map((row) => [row.plan.id, keptBlock(row.plan.id, row.stamp)]));
  const unknown = [...known].flatMap(([id, block]) => (block ? [] : [id]));
  const read = new Map<string, typeof plan.$inferSelect>();
  if (unknown.length > 0) {
    const rows = await tx.select({ row: plan, stamp }).from(plan).where(anyOf(plan.id, unknown));
    for (const { row, stamp: at } of rows)
      read.set(row.id, { ...row, block: keepBlock(row.id, at, row.block) });
  }
  return heads.flatMap(({ stamp: _, ...head }) => {
    const block = known.get(head.plan.id);
    // Whole, where its block was read: the row may have been written between the two questions.
    const whole = block ? { ...head.plan, block } : read.get(head.plan.id);
    return whole ? [withLead({ ...head, plan: whole }, variants)] : [];
  });
}

const ofGroup = (group: Group) =>
  group.athleteId === null
    ? eq(plan.squadId, group.squadId ?? "")
    : eq(plan.athleteId, group.athleteId);

/** The other plans of a plan's squad or client, the newest first. */
export async function plansOfSquad(tx: TeamTransaction, of: PlanRow): Promise<PlanRow[]> {
  const rows = await joined(tx)
    .where(and(isNull(plan.awayOn), ofGroup(of.plan), ne(plan.id, of.plan.id)))
    .orderBy(desc(plan.startDate));
  return rows.map((row) => withLead(row, of.variants));
}

/** Plans of other squads and clients in a plan's room, where a day has a time. */
export async function plansInRoom(
  tx: TeamTransaction,
  of: PlanRow,
): Promise<Array<{ id: string; name: string; block: Block }>> {
  const rows = await tx
    .select({
      id: plan.id,
      name: sql<string>`concat_ws(', ', ${plan.name}, coalesce(${squad.name}, ${athlete.name}))`,
      block: plan.block,
    })
    .from(plan)
    .leftJoin(squad, and(eq(squad.teamId, plan.teamId), eq(squad.id, plan.squadId)))
    .leftJoin(athlete, and(eq(athlete.teamId, plan.teamId), eq(athlete.id, plan.athleteId)))
    .where(
      and(
        isNull(plan.awayOn),
        eq(plan.roomId, of.plan.roomId),
        // A squad's own blocks meet by another check; one that was split off trains beside its own.
        sql`(${plan.squadId}, ${plan.athleteId}) IS DISTINCT FROM (${of.plan.squadId}::uuid, ${of.plan.athleteId}::uuid)`,
        // Only where a day has a time is there anything to meet.
        sql`jsonb_path_exists(${plan.block}, '$.days.*.startAt')`,
      ),
    );
  return rows;
}

export async function planById(tx: TeamTransaction, id: string): Promise<PlanRow | undefined> {
  const rows = await joined(tx).where(eq(plan.id, id));
  return (await withVariants(tx, rows))[0];
}

/** Names and absences of some plans, without their blocks. */
export function plansInShort(tx: TeamTransaction, ids: readonly string[]) {
  return tx
    .select({
      id: plan.id,
      name: plan.name,
      away: sql<Block["away"]>`coalesce(${plan.block}->'away', '{}')`,
    })
    .from(plan)
    .where(anyOf(plan.id, ids));
}

/** Plans that are not put away, by name. */
export function planNames(tx: TeamTransaction) {
  return tx
    .select({ id: plan.id, name: plan.name })
    .from(plan)
    .where(isNull(plan.awayOn))
    .orderBy(asc(plan.name));
}

export async function insertPlan(
  tx: TeamTransaction,
  row: Omit<typeof plan.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(plan).values({ teamId: tx.teamId, ...row });
}

/** Locks a plan for an edit and gives it as it now stands. */
export async function lockPlan(tx: TeamTransaction, id: string) {
  const [row] = await tx.select().from(plan).where(eq(plan.id, id)).for("update");
  return row;
}

/** Keeps a block after an edit; name and start stand in the lists too. */
export async function saveBlock(
  tx: TeamTransaction,
  input: { planId: string; seq: number; block: Block; by: string; at: Date },
): Promise<void> {
  await tx
    .update(plan)
    .set({
      block: input.block,
      name: input.block.name,
      startDate: input.block.startDate,
      version: input.seq,
      updatedBy: input.by,
      updatedAt: input.at,
    })
    .where(eq(plan.id, input.planId));
}

export async function putPlanAway(tx: TeamTransaction, planId: string, awayOn: LocalDate | null) {
  await tx.update(plan).set({ awayOn }).where(eq(plan.id, planId));
}

export async function setPlanRoom(
  tx: TeamTransaction,
  planId: string,
  input: { roomId: string; rounding: "nearest" | "down" },
) {
  await tx.update(plan).set(input).where(eq(plan.id, planId));
}

export interface StoredEdit {
  id: string;
  seq: number;
  edit: BlockEdit;
  inverse: BlockEdit;
  undoes: string | null;
  userId: string;
  enteredBy: string;
  enteredAt: Date;
}

/** The edits of a plan after a sequence number, in order. */
export function editsOf(tx: TeamTransaction, planId: string, after = 0): Promise<StoredEdit[]> {
  return tx
    .select({
      id: planEdit.id,
      seq: planEdit.seq,
      edit: planEdit.edit,
      inverse: planEdit.inverse,
      undoes: planEdit.undoes,
      userId: planEdit.userId,
      enteredBy: planEdit.enteredBy,
      enteredAt: planEdit.enteredAt,
    })
    .from(planEdit)
    .where(and(eq(planEdit.planId, planId), gt(planEdit.seq, after)))
    .orderBy(asc(planEdit.seq));
}

/** The newest edits, newest first: for the list of what was done, and for undo. */
export function newestEdits(tx: TeamTransaction, planId: string, most: number) {
  return tx
    .select()
    .from(planEdit)
    .where(eq(planEdit.planId, planId))
    .orderBy(desc(planEdit.seq))
    .limit(most);
}

/** An edit by the id that its sender gave it. */
export async function editById(tx: TeamTransaction, planId: string, id: string) {
  const [row] = await tx
    .select({
      id: planEdit.id,
      seq: planEdit.seq,
      edit: planEdit.edit,
      inverse: planEdit.inverse,
    })
    .from(planEdit)
    .where(and(eq(planEdit.planId, planId), eq(planEdit.id, id)));
  return row;
}

export async function addEdit(
  tx: TeamTransaction,
  row: Omit<typeof planEdit.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(planEdit).values({ teamId: tx.teamId, ...row });
}

export async function newestVersion(tx: TeamTransaction, planId: string) {
  const [row] = await tx
    .select()
    .from(planVersion)
    .where(eq(planVersion.planId, planId))
    .orderBy(desc(planVersion.number))
    .limit(1);
  return row;
}

/** The newest published version of each of these plans, by plan. */
export async function newestVersions(tx: TeamTransaction, planIds: readonly string[]) {
  if (planIds.length === 0) return new Map<string, { number: number; block: Block }>();
  const rows = await tx
    .selectDistinctOn([planVersion.planId], {
      planId: planVersion.planId,
      number: planVersion.number,
      block: planVersion.block,
    })
    .from(planVersion)
    .where(inArray(planVersion.planId, [...planIds]))
    .orderBy(planVersion.planId, desc(planVersion.number));
  return new Map(rows.map(({ planId, ...version }) => [planId, version]));
}

export function versionsOf(tx: TeamTransaction, planId: string) {
  return tx
    .select({
      number: planVersion.number,
      seq: planVersion.seq,
      enteredBy: planVersion.enteredBy,
      enteredAt: planVersion.enteredAt,
    })
    .from(planVersion)
    .where(eq(planVersion.planId, planId))
    .orderBy(desc(planVersion.number));
}

export async function addVersion(
  tx: TeamTransaction,
  row: Omit<typeof planVersion.$inferInsert, "teamId"> & { loads: PublishedLoads },
): Promise<void> {
  await tx.insert(planVersion).values({ teamId: tx.teamId, ...row });
}
