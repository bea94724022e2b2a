import { uuidv7 } from "uuidv7";
import type { Block } from "../../../core/plan/block";
import { aboutSamePlace, applyEdit, type BlockEdit, inverseOf } from "../../../core/plan/edits";
import { addEdit, editById, editsOf, lockPlan, saveBlock } from "../../../db/queries/plans.server";
import type { TeamTransaction } from "../../../db/team.server";
import { BlockSchema } from "../../forms/block";
import { now } from "../../platform/clock.server";
import { done, type Failure, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

export const NO_PLAN = failed("no-plan", "This plan is not there any more. Open the plan list.");

export const userOf = (principal: Principal) =>
  principal.kind === "person" ? principal.userId : principal.deviceId;

export type EditOutcome = Outcome<{ seq: number; words: string }>;

/** An edit within a transaction of the caller. */
export async function editWithin(
  tx: TeamTransaction,
  principal: Principal,
  input: {
    planId: string;
    /** Undefined for an undo: it has looked at what came after by itself. */
    base: number | undefined;
    edit: BlockEdit;
    undoes?: string;
    id?: string;
  },
): Promise<EditOutcome> {
  const plan = await lockPlan(tx, input.planId);
  if (!plan) return NO_PLAN;
  const there = input.id === undefined ? undefined : await editById(tx, input.planId, input.id);
  if (there) return done({ seq: there.seq, words: there.edit.words });
  const since = input.base === undefined ? [] : await editsOf(tx, input.planId, input.base);
  const other = since.find((one) => aboutSamePlace(one.edit, input.edit));
  if (other) {
    return failed(
      "newer",
      `${other.enteredBy} changed the same place after you opened it: "${other.edit.words}". Yours is still in the form: compare, then save again.`,
    );
  }
  const made = make(plan.block, input.edit);
  if ("code" in made) return made;
  const seq = plan.version + 1;
  const at = now();
  await addEdit(tx, {
    id: input.id ?? uuidv7(),
    planId: input.planId,
    seq,
    edit: input.edit,
    inverse: inverseOf(plan.block, input.edit),
    undoes: input.undoes ?? null,
    userId: userOf(principal),
    enteredBy: principal.name,
    enteredAt: at,
  });
  await saveBlock(tx, { planId: input.planId, seq, block: made.block, by: principal.name, at });
  return done({ seq, words: input.edit.words });
}

function make(block: Block, edit: BlockEdit): { block: Block } | Failure {
  const applied = applyEdit(block, edit);
  if (!applied.ok) {
    return failed(
      "no-place",
      "What this was about is not there any more: somebody took it out. Load the page again.",
    );
  }
  const parsed = BlockSchema.safeParse(applied.block);
  if (!parsed.success) {
    return failed("not-a-block", parsed.error.issues[0]?.message ?? "That cannot be kept.");
  }
  return { block: parsed.data };
}
