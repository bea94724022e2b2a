import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import type { Block } from "../../../core/plan/block";
import { insertWeek, ownFloor, ownRest } from "../../../core/plan/edits";
import type { CallAction, CallEffect, ReviewCall } from "../../../core/review/calls";
import { formatKg, type Mass, massKg } from "../../../core/units/mass";
import { addDays, type LocalDate } from "../../../core/units/time";
import { addRecord, chooseWorkingMax, currentChoices } from "../../../db/queries/maxes.server";
import { editById, lockPlan } from "../../../db/queries/plans.server";
import { addCall, callById, decisionOn, takeBackCall } from "../../../db/queries/reviews.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { DecideForm } from "../../forms/review-call";
import { now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, type Failure, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readGroupCalls } from "../lifters/group-calls.server";
import { editWithin } from "../lifters/plan-edit.server";
import { readPlaces } from "../lifters/today.server";

type Decision = z.output<typeof DecideForm>;

const GONE = failed(
  "no-call",
  "This call waits no more: it was decided, or what it stood on has changed. Load the page again.",
);

/** Keeps a coach's word on a call, and does what it says, in one transaction. */
export function decideCall(
  principal: Principal,
  input: Decision,
): Promise<Outcome<{ callId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    if (await decisionOn(tx, input.about)) return GONE;
    const { today } = await readPlaces(tx);
    const { calls } = await readGroupCalls(tx, input.groupId, today);
    const call = calls.find((one) => one.about === input.about);
    if (!call) return GONE;
    const action = input.decision === "declined" ? undefined : actionOf(call, input);
    if (action && "code" in action) return action;
    const effect: CallEffect | Failure = action
      ? await carryOut(tx, principal, call, action, today)
      : { type: "none" };
    if ("code" in effect) return effect;
    const callId = uuidv7();
    const { kind, about, proposal, evidence } = call;
    const kept = await addCall(tx, {
      id: callId,
      kind,
      about,
      athleteId: call.athleteId ?? null,
      squadId: call.squadId ?? null,
      planId: call.planId ?? null,
      slotId: call.slotId ?? null,
      variantId: call.variantId ?? null,
      date: today,
      proposal,
      evidence,
      decision: input.decision,
      reason: input.reason,
      effect,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return kept ? done({ callId }) : GONE;
  });
}

/** What is to be done: as proposed, or as the coach changed it. */
function actionOf(call: ReviewCall, input: Decision): CallAction | Failure {
  const { action } = call;
  if (input.decision === "changed") {
    if (action.type === "base" && input.load) return { ...action, toKg: massKg(input.load) };
    if (action.type === "rest" && input.addS !== undefined) return { ...action, addS: input.addS };
    if (action.type === "floor" && input.floorMps !== undefined)
      return { ...action, floorMps: input.floorMps };
    return failed("no-change", "Say what else it shall be: a load, seconds, or a speed.");
  }
  if (action.type === "base" && action.toKg === action.fromKg)
    return failed(
      "no-step",
      "No step is set for a base (Library, what a coach sets). Change the call and write the load.",
    );
  return action;
}

/** Does what a call asks, and says how it is taken back. */
export async function carryOut(
  tx: TeamTransaction,
  principal: Principal,
  call: ReviewCall,
  action: CallAction,
  today: LocalDate,
): Promise<CallEffect | Failure> {
  switch (action.type) {
    case "base":
      return newBase(tx, principal, call, action, today);
    case "rest": {
      const { athleteId } = call;
      if (athleteId === undefined) return GONE;
      const { slotId, addS } = action;
      return edited(tx, principal, action.planId, (block) =>
        ownRest(block, { athleteId, slotId }, { addS, by: principal.name }),
      );
    }
    case "floor": {
      const { athleteId } = call;
      if (athleteId === undefined) return GONE;
      const { slotId, floorMps } = action;
      return edited(tx, principal, action.planId, (block) =>
        ownFloor(block, { athleteId, slotId }, { floorMps, by: principal.name }),
      );
    }
    case "week":
      return edited(tx, principal, action.planId, (block) =>
        insertWeek(block, uuidv7(), {
          week: action.week,
          kind: action.mark,
          words: "From the review",
        }),
      );
    case "to-do":
      return { type: "to-do", what: action.what, until: addDays(today, action.days) };
    case "keep":
      return { type: "none" };
  }
}

/** A coach's record that the percentages stand on from now on. */
async function newBase(
  tx: TeamTransaction,
  principal: Principal,
  call: ReviewCall,
  action: Extract<CallAction, { type: "base" }>,
  today: LocalDate,
): Promise<CallEffect | Failure> {
  const { athleteId } = call;
  const { variantId, fromKg, toKg } = action;
  if (athleteId === undefined) return GONE;
  if (Math.abs(toKg / fromKg - 1) > MOST_STEP_SHARE)
    return failed(
      "large-step",
      `From ${formatKg(fromKg, "kg", 1)} to ${formatKg(toKg, "kg", 1)} is over ${100 * MOST_STEP_SHARE} %. A step so large is a test's: enter the record on the athlete's page.`,
    );
  const [before] = await currentChoices(tx, { of: athleteId, variantIds: [variantId] });
  const recordId = uuidv7();
  const load: Mass = { amount: Math.round(100 * toKg) / 100, unit: "kg" };
  await addRecord(tx, {
    id: recordId,
    athleteId,
    variantId,
    load,
    date: today,
    kind: "coach",
    note: "From the review",
    enteredBy: principal.name,
    enteredAt: now(),
  });
  await choose(tx, principal, { athleteId, variantId, recordId, factor: 1 });
  return {
    type: "base",
    variantId,
    fromKg,
    toKg,
    recordId,
    before: before ? { recordId: before.record.id, factor: before.factor ?? null } : null,
  };
}

/** A base moves by no more than this at once. */
const MOST_STEP_SHARE = 0.1;

const choose = (
  tx: TeamTransaction,
  principal: Principal,
  of: { athleteId: string; variantId: string; recordId: string; factor: number | null },
) => chooseWorkingMax(tx, { id: uuidv7(), ...of, chosenBy: principal.name, chosenAt: now() });

/** An edit of a plan that a call asks for. */
async function edited(
  tx: TeamTransaction,
  principal: Principal,
  planId: string,
  edit: (block: Block) => Parameters<typeof editWithin>[2]["edit"],
): Promise<CallEffect | Failure> {
  const plan = await lockPlan(tx, planId);
  if (!plan) return GONE;
  const editId = uuidv7();
  const made = await editWithin(tx, principal, {
    planId,
    base: plan.version,
    edit: edit(plan.block),
    id: editId,
  });
  return made.ok ? { type: "edit", planId, editId, words: made.value.words } : made;
}

/** The place that the first rest, or floor, made stays: others stand in it by now. */
const isOwnPlace = ({ path }: { path: readonly string[] }): boolean =>
  !(path.length === 1 && (path[0] === "rests" || path[0] === "floors"));

/** Takes a decision back: what it changed is as it was, and the call waits again. */
export function takeBack(
  principal: Principal,
  callId: string,
): Promise<Outcome<{ callId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const call = await callById(tx, callId);
    if (!call) return failed("no-call", "This decision is not in your team any more.");
    if (!(await takeBackCall(tx, callId, { undoneBy: principal.name, undoneAt: now() })))
      return failed("undone", "This decision was taken back already.");
    const { effect, athleteId } = call;
    if (effect.type === "base" && effect.before && athleteId) {
      const [current] = await currentChoices(tx, { of: athleteId, variantIds: [effect.variantId] });
      if (current && current.record.id !== effect.recordId)
        return failed(
          "built-on",
          "Another max was chosen since: choose the one that holds on the athlete's page. Nothing was taken back.",
        );
      await choose(tx, principal, {
        athleteId,
        variantId: effect.variantId,
        recordId: effect.before.recordId,
        factor: effect.before.factor,
      });
    }
    if (effect.type === "edit") {
      const plan = await lockPlan(tx, effect.planId);
      const made = plan && (await editById(tx, effect.planId, effect.editId));
      if (!plan || !made)
        return failed("no-plan", "The plan is not there any more. Nothing was taken back.");
      const back = await editWithin(tx, principal, {
        planId: effect.planId,
        base: made.seq,
        edit: { ...made.inverse, sets: made.inverse.sets.filter(isOwnPlace) },
        undoes: made.id,
      });
      if (!back.ok) return back;
    }
    return done({ callId });
  });
}
