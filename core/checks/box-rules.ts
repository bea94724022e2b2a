import { boxFaultNamed, returnsWithin } from "../boxsquat/box-faults";
import { SPINE_CAUTION, styleById } from "../boxsquat/styles";
import { type Slot, slotWeek } from "../plan/block";
import { describeBasis } from "../recipe/basis";
import { percentOf } from "../recipe/recipe";
import { plainNumber } from "../units/mass";
import { allSlots, type CheckInput, nameOf, type PlanCheck } from "./input";

/** Cured faults at whose share of the max the slot arrives: the first such week of each. */
function faultsMet(input: CheckInput, slot: Slot) {
  const met = new Map<string, { fault: string; week: number; percent: number; who: string[] }>();
  if (!input.athletes.some((one) => one.returns.length > 0)) return [];
  for (let week = slot.fromWeek; week <= input.block.weeks; week++) {
    const sets = slotWeek(input.block, slot, week, input.settings)?.sets ?? [];
    const percent = Math.max(0, ...sets.flatMap((set) => percentOf(set) ?? []));
    if (percent === 0) continue;
    for (const athlete of input.athletes)
      for (const { fault } of returnsWithin(athlete.returns, percent)) {
        const one = met.get(fault) ?? { fault, week, percent, who: [] };
        if (!one.who.includes(athlete.name)) one.who.push(athlete.name);
        met.set(fault, one);
      }
  }
  return [...met.values()];
}

/** Slots on the box: style, contact, smallest stop, and a first week without a rise. */
export function boxRules(input: CheckInput): PlanCheck[] {
  const { block, school, settings } = input;
  const found: PlanCheck[] = [];
  for (const slot of allSlots(block)) {
    if (slot.work.kind !== "lift") continue;
    const lift = input.liftOf(slot.work.variantId)?.lift;
    if (lift !== "box-squat") continue;
    const name = nameOf(input, slot);
    const say = (
      code: string,
      level: PlanCheck["level"],
      text: string,
      from: string = school.name,
    ) => found.push({ key: `${code}/${slot.id}`, code, level, text, from, slotId: slot.id });
    const { box } = slot;
    if (!box) {
      say(
        "box-purpose",
        "note",
        `${name}: no purpose or style is set. Set them under Days and slots.`,
      );
    } else {
      const style = styleById(box.styleId);
      if (style?.rocks)
        say(
          "box-rock",
          "refused",
          `${name}: rocking back is off by default. ${SPINE_CAUTION}`,
          "Cautions",
        );
      if (box.contact === "relax") {
        const who = input.athletes.filter((one) =>
          one.refused.some((refusal) => refusal.what === "relax"),
        );
        say(
          "box-relax",
          "refused",
          who.length > 0
            ? `${name}: relax and fire is refused for ${who.map((one) => one.name).join(", ")}.`
            : `${name}: relax and fire is off by default. Only the hips let go, the trunk stays braced.`,
          "Cautions",
        );
      }
      if (style?.stops && box.smallestStopS === undefined)
        say(
          "box-stop",
          "note",
          `${name}: the smallest stop is not set, so bounces are not flagged.`,
          "Coach-set values",
        );
      if (box.purpose === "load" && box.role === "main")
        say(
          "box-high",
          "note",
          `${name}: the same work with less load wants full-depth squats beside it; the depth ledger counts them.`,
        );
    }
    for (const back of faultsMet(input, slot))
      say(
        `box-fault-${back.fault}`,
        "warning",
        `${name}: week ${back.week} goes to ${plainNumber(back.percent, 1)} %. "${back.fault}" came back there with ${back.who.join(", ")}. Hold under it, or watch for it: ${boxFaultNamed(back.fault)?.cue ?? "cue it"}.`,
        "Fault history",
      );
    const first = slotWeek(block, slot, slot.fromWeek, settings);
    const asks = new Set(first?.sets.map((set) => describeBasis(set.basis)) ?? []);
    if (asks.size > 1 || (slot.recipe.sessionAdd ?? 0) > 0)
      say(
        "box-first-week",
        "warning",
        `${name}: week ${slot.fromWeek} rises within itself. The first week of a box cycle is for getting used to it.`,
      );
  }
  return found;
}
