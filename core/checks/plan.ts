import { type Block, pairingsOf } from "../plan/block";
import type { CheckedAthlete, CheckInput, PlanCheck } from "./input";
import { RULES } from "./registry";
import { type BlockAt, blockAt, type Findings, names, type Rule, type SlotAt } from "./rule";

/**
 * Everything that stands against a plan, refusals first. The same plan under another school gives
 * another list.
 */
export function checkPlan(input: CheckInput): PlanCheck[] {
  const whole = blockAt(input);
  const checks = RULES.flatMap((rule) => foundBy(rule, input, whole));
  const rank = { refused: 0, warning: 1, note: 2 };
  return checks.sort((a, b) => rank[a.level] - rank[b.level]);
}

function foundBy(rule: Rule, input: CheckInput, whole: BlockAt): PlanCheck[] {
  const said = (findings: Findings, subject?: string, slotId?: string, school = input.school) =>
    asList(findings).map((finding): PlanCheck => {
      const at = finding.slotId ?? slotId;
      // Answers in the database hang on these keys: what they are made of stays as it is.
      const { part } = finding;
      const code = subject !== undefined && part !== undefined ? `${rule.code}-${part}` : rule.code;
      return {
        key: [code, subject ?? part].filter((one) => one !== undefined).join("/"),
        code,
        level: finding.level ?? rule.level,
        text: finding.text,
        from: rule.from === "the school" ? school.name : rule.from,
        ...(at === undefined ? {} : { slotId: at }),
        ...(finding.week === undefined ? {} : { week: finding.week }),
        ...(finding.of === undefined ? {} : { athletes: finding.of.map((one) => one.id) }),
      };
    });
  switch (rule.of) {
    case "block":
      return said(rule.find(whole, input));
    case "day":
      return whole.days.flatMap((day) => said(rule.find(day, input), day.id));
    case "slot":
      return whole.slots.flatMap((at) =>
        groupsOf(at, input, whole).flatMap((group, i, groups) => {
          const own = said(
            rule.find(at, group.input, group.whole),
            at.slot.id,
            at.slot.id,
            group.input.school,
          );
          if (group.schoolId === "" || i === 0) return own;
          // Who follows another school hears only what that school says otherwise.
          const first = said(rule.find(at, groups[0]?.input ?? input, group.whole), at.slot.id);
          return own
            .filter((check) => !first.some((other) => other.text === check.text))
            .map((check) => ({
              ...check,
              key: `${check.key}/${group.schoolId}`,
              text: `${names(group.whole.athletes)}, by ${group.input.school.name}. ${check.text}`,
              athletes: check.athletes ?? group.whole.athletes.map((one) => one.id),
            }));
        }),
      );
    case "pairing":
      return whole.days.flatMap((day) =>
        pairingsOf(input.block, day.id).flatMap((pairing) =>
          said(rule.find({ ...pairing, dayName: day.name }, input), pairing.id),
        ),
      );
  }
}

/**
 * A slot under each school that somebody in it follows: the slot's own for everybody, else the
 * block's, and apart from that an athlete's own.
 */
function groupsOf(
  at: SlotAt,
  input: CheckInput,
  whole: BlockAt,
): Array<{ schoolId: string; input: CheckInput; whole: BlockAt }> {
  const ofSlot = at.slot.schoolId === undefined ? undefined : input.schools[at.slot.schoolId];
  if (ofSlot)
    return [{ schoolId: at.slot.schoolId ?? "", input: { ...input, school: ofSlot }, whole }];
  const own = (one: CheckedAthlete) =>
    one.schoolId !== undefined && input.schools[one.schoolId] !== undefined ? one.schoolId : "";
  const ids = [...new Set(whole.athletes.map(own))].sort();
  if (ids.length === 0) return [{ schoolId: "", input, whole }];
  // The block's own, the empty one, comes first.
  return ids.map((schoolId) => ({
    schoolId,
    input: { ...input, school: input.schools[schoolId] ?? input.school },
    whole: { ...whole, athletes: whole.athletes.filter((one) => own(one) === schoolId) },
  }));
}

const asList = (findings: Findings) =>
  findings === undefined ? [] : "text" in findings ? [findings] : findings;

/** Whether a coach's answer covers a check: the matter, and everybody whom it names today. */
export function isAnswered(block: Block, check: PlanCheck): boolean {
  const answer = block.answered[check.key];
  if (answer === undefined) return false;
  const covered = new Set(answer.athletes ?? []);
  return (check.athletes ?? []).every((id) => covered.has(id));
}

/** Checks that no coach has answered with a reason. */
export const openChecks = (block: Block, checks: readonly PlanCheck[]) =>
  checks.filter((check) => !isAnswered(block, check));

/**
 * What open refusals do to a slot: those that name athletes leave them out of it, those of the
 * slot or the plan itself stop it. A draft lifts neither.
 */
export function refusedInSlot(
  block: Block,
  checks: readonly PlanCheck[],
  slotId: string,
): { stops: PlanCheck[]; leftOut: Map<string, PlanCheck> } {
  const open = openChecks(block, checks).filter(
    (one) => one.level === "refused" && (one.slotId === undefined || one.slotId === slotId),
  );
  const leftOut = new Map<string, PlanCheck>();
  for (const check of open) {
    const answer = block.answered[check.key];
    for (const id of check.athletes ?? []) {
      if (!answer?.athletes?.includes(id) && !leftOut.has(id)) leftOut.set(id, check);
    }
  }
  return { stops: open.filter((one) => one.athletes === undefined), leftOut };
}
