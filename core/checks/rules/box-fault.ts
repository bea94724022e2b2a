import { boxFaultNamed, returnsWithin } from "../../boxsquat/box-faults";
import { percentOf } from "../../recipe/recipe";
import { plainNumber } from "../../units/mass";
import type { CheckInput } from "../input";
import type { Rule, SlotAt } from "../rule";
import { onBox } from "../slots";

/** Cured faults at whose share of the max the slot arrives: the first such week of each. */
function faultsMet({ weeks }: SlotAt, { athletes }: CheckInput) {
  const met = new Map<string, { fault: string; week: number; percent: number; who: string[] }>();
  for (const { week, own } of weeks) {
    const percent = Math.max(0, ...own.sets.map((set) => percentOf(set) ?? 0));
    if (percent === 0) continue;
    for (const athlete of athletes)
      for (const { fault } of returnsWithin(athlete.returns, percent)) {
        const first = met.get(fault) ?? { fault, week, percent, who: [] };
        if (!first.who.includes(athlete.name)) first.who.push(athlete.name);
        met.set(fault, first);
      }
  }
  return [...met.values()];
}

/** A cured fault's own share of the max, reached again. */
export const boxFault: Rule = {
  code: "box-fault",
  of: "slot",
  level: "warning",
  from: "Fault history",
  find: (at, input) =>
    onBox(at)
      ? faultsMet(at, input).map((back) => ({
          part: back.fault,
          text: `${at.name}: week ${back.week} goes to ${plainNumber(back.percent, 1)} %. "${back.fault}" came back there with ${back.who.join(", ")}. Hold under it, or watch for it: ${boxFaultNamed(back.fault)?.cue ?? "cue it"}.`,
        }))
      : undefined,
};
