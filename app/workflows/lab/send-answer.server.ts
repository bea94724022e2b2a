import { uuidv7 } from "uuidv7";
import { addLabAnswer, dropLabAnswer } from "../../../db/queries/lab.server";
import { planById } from "../../../db/queries/plans.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { AnswerForm } from "../../forms/lab";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/** Sends the bench's answer to an athlete's page or to a plan, with the way back to it. */
export function sendAnswer(
  principal: Principal,
  input: AnswerForm,
): Promise<Outcome<{ name: string; to: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const { kind, id } = input.target;
    const row = { id: uuidv7(), tool: input.tool, state: input.state, answer: input.answer };
    const entered = { enteredBy: principal.name, enteredAt: now() };
    if (kind === "athlete") {
      const athlete = await athleteById(tx, id);
      if (!athlete) return failed("no-athlete", "This athlete is not in your team any more.");
      await addLabAnswer(tx, { ...row, athleteId: id, ...entered });
      return done({ name: athlete.name, to: `/athletes/${id}` });
    }
    const plan = await planById(tx, id);
    if (!plan) return failed("no-plan", "This plan is not there any more.");
    await addLabAnswer(tx, { ...row, planId: id, ...entered });
    return done({ name: plan.plan.name, to: `/plan/${id}` });
  });
}

export function removeAnswer(principal: Principal, id: string): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await dropLabAnswer(tx, id);
    return done(null);
  });
}
