import type { Block } from "../plan/block";
import { athleteRules, muscles, orderRules, overTheBlock, spacing } from "./block-rules";
import { boxRules } from "./box-rules";
import type { CheckInput, PlanCheck } from "./input";
import { pairingRules } from "./pairing-rules";
import { missing, slotRules } from "./slot-rules";

/** Everything that stands against a plan, refusals first. The same plan under another school
 * gives another list. */
export function checkPlan(input: CheckInput): PlanCheck[] {
  const checks = [
    ...missing(input),
    ...slotRules(input),
    ...orderRules(input),
    ...spacing(input),
    ...overTheBlock(input),
    ...muscles(input),
    ...athleteRules(input),
    ...boxRules(input),
    ...pairingRules(input),
  ];
  const rank = { refused: 0, warning: 1, note: 2 };
  return checks.sort((a, b) => rank[a.level] - rank[b.level]);
}

/** Checks that no coach has answered with a reason. */
export const openChecks = (block: Block, checks: readonly PlanCheck[]) =>
  checks.filter((check) => block.answered[check.key] === undefined);
