import type { Muscle } from "../exercise/exercise";
import { TRUSTED_TRAINING_YEARS } from "../maxes/records";
import {
  daysOf,
  exerciseIn,
  markOf,
  slotsOf,
  slotWeek,
  TEMPLATE_NAMES,
  TEMPLATE_ORDER,
} from "../plan/block";
import { weekSum } from "../plan/week-sums";
import { percentOf } from "../recipe/recipe";
import {
  allSlots,
  type CheckedAthlete,
  type CheckInput,
  type CheckLevel,
  nameOf,
  type PlanCheck,
  weeksWith,
} from "./input";
import { heavySlot, speedSlot } from "./slots";

/** Overhead pressing comes no more often than every so many weeks. */
export const OVERHEAD_EVERY_WEEKS = 4;

/** Order within a day against the template. */
export function orderRules(input: CheckInput): PlanCheck[] {
  const { block, school } = input;
  const found: PlanCheck[] = [];
  if (block.template !== school.order) {
    found.push({
      key: "template",
      code: "template",
      level: "note",
      text: `The block's order is ${TEMPLATE_NAMES[block.template]}, the school's ${TEMPLATE_NAMES[school.order]}.`,
      from: school.name,
    });
  }
  const order = TEMPLATE_ORDER[block.template];
  const main = order.indexOf("main");
  for (const day of daysOf(block)) {
    const slots = slotsOf(block, day.id);
    for (const slot of slots) {
      const at = order.indexOf(slot.section);
      if (
        heavySlot(slot) &&
        at > main &&
        slot.section !== "second" &&
        slots.some((one) => speedSlot(one) && order.indexOf(one.section) > at)
      ) {
        found.push({
          key: `order/${slot.id}`,
          code: "order",
          level: "warning",
          text: `${day.name}: ${nameOf(input, slot)} is heavy and stands before speed work in ${TEMPLATE_NAMES[block.template]}.`,
          from: school.name,
          slotId: slot.id,
        });
      }
      if (slot.section === "accessories" && speedSlot(slot)) {
        found.push({
          key: `order/${slot.id}`,
          code: "order",
          level: "warning",
          text: `${day.name}: ${nameOf(input, slot)} is fast work among the accessories, when the day's strength is spent. Move it up.`,
          from: school.name,
          slotId: slot.id,
        });
      }
    }
    if (block.template === "four-speed") {
      const classes = new Set(
        slots
          .map((slot) => input.workOf(slot, exerciseIn(block, slot, slot.fromWeek))?.speedClass)
          .filter((one) => one !== undefined && one !== "none"),
      );
      const wanted = ["absolute-strength", "strength-speed", "speed-strength", "absolute-speed"];
      const left = wanted.filter((one) => !classes.has(one as never));
      if (slots.length > 0 && left.length > 0) {
        found.push({
          key: `four-speeds/${day.id}`,
          code: "four-speeds",
          level: "warning",
          text: `${day.name} is a four-speed session without ${left.map((one) => one.replace("-", " ")).join(", ")}.`,
          from: school.name,
        });
      }
    }
  }
  return found;
}

/** Hours between heavy and speed work of one pattern, the turn of the week included. */
export function spacing(input: CheckInput): PlanCheck[] {
  const { block, school } = input;
  const found: PlanCheck[] = [];
  const placed = daysOf(block).flatMap((day) =>
    slotsOf(block, day.id).flatMap((slot) => {
      const pattern = input.workOf(slot, exerciseIn(block, slot, slot.fromWeek))?.pattern;
      return pattern ? [{ day, slot, pattern }] : [];
    }),
  );
  const weekly = block.weeks > 1;
  for (const heavy of placed.filter((one) => heavySlot(one.slot))) {
    for (const speed of placed.filter(
      (one) => speedSlot(one.slot) && one.pattern === heavy.pattern,
    )) {
      if (speed.day.id === heavy.day.id) continue;
      const apart = Math.abs(speed.day.offset - heavy.day.offset);
      const days = weekly ? Math.min(apart, 7 - apart) : apart;
      if (days * 24 < school.heavySpeedHours) {
        found.push({
          key: `spacing/${heavy.slot.id}/${speed.slot.id}`,
          code: "spacing",
          level: "warning",
          text: `${nameOf(input, heavy.slot)} (${heavy.day.name}) and ${nameOf(input, speed.slot)} (${speed.day.name}) are ${days * 24} h apart; ${school.heavySpeedHours} h between heavy and speed work for a pattern.`,
          from: school.name,
          slotId: speed.slot.id,
        });
      }
    }
  }
  for (const pattern of new Set(placed.map((one) => one.pattern))) {
    const days = new Set(
      placed
        .filter((one) => one.pattern === pattern && heavySlot(one.slot))
        .map((one) => one.day.id),
    );
    if (days.size > school.heavyDays) {
      found.push({
        key: `heavy-days/${pattern}`,
        code: "heavy-days",
        level: "warning",
        text: `${days.size} heavy days a week for one pattern (${pattern.replace("-", " ")}): that asks for training age, good recovery, or a speed guard.`,
        from: school.name,
      });
    }
  }
  return found;
}

/** Rules over the weeks: deloads, variations used again, overhead work, competitions. */
export function overTheBlock(input: CheckInput): PlanCheck[] {
  const { block, school, settings } = input;
  const found: PlanCheck[] = [];
  const say = (key: string, code: string, level: CheckLevel, text: string, from = school.name) =>
    found.push({ key, code, level, text, from });
  let run = 0;
  let longest = 0;
  for (const week of weeksWith(block, () => true)) {
    const eased =
      markOf(block, week) !== undefined ||
      allSlots(block).some((slot) => {
        const kind = slotWeek(block, slot, week, settings)?.kind;
        return kind === "deload" || kind === "test";
      });
    run = eased ? 0 : run + 1;
    longest = Math.max(longest, run);
  }
  if (longest > school.deloadAfterWeeks) {
    say(
      "deload",
      "deload",
      "warning",
      `${longest} weeks without a deload or a test; one after ${school.deloadAfterWeeks}.`,
    );
  }
  const used = new Set(
    allSlots(block).flatMap(
      (slot) => input.workOf(slot, exerciseIn(block, slot, slot.fromWeek))?.variation ?? [],
    ),
  );
  const recent = input.before.slice(0, school.reuseGapWaves);
  for (const variation of used) {
    const ago = recent.findIndex((wave) => wave.includes(variation));
    if (ago >= 0) {
      say(
        `reuse/${variation}`,
        "reuse",
        "note",
        `${variation} was used ${ago === 0 ? "in the wave before" : `${ago + 1} waves ago`}; another variation for ${school.reuseGapWaves} waves.`,
      );
    }
  }
  const overhead = weeksWith(block, (week) =>
    allSlots(block).some((slot) => {
      const own = slotWeek(block, slot, week, settings);
      return (
        own !== undefined &&
        own.sets.length > 0 &&
        slot.section === "accessories" &&
        input.workOf(slot, exerciseIn(block, slot, week))?.overhead === true
      );
    }),
  );
  const close = overhead.find(
    (week, i) => i > 0 && week - (overhead[i - 1] ?? 0) < OVERHEAD_EVERY_WEEKS,
  );
  if (close !== undefined) {
    say(
      "overhead",
      "overhead",
      "warning",
      `Overhead pressing as an accessory comes again in week ${close}: no more often than every ${OVERHEAD_EVERY_WEEKS}th week.`,
    );
  }
  for (const { name, from, to, lifts } of input.overlaps) {
    say(
      `overlap/${name}`,
      "overlap",
      lifts.length > 0 ? "warning" : "note",
      `${name} of the same squad runs from ${from} to ${to}, within this block${lifts.length > 0 ? `, and trains ${lifts.join(", ")} too` : ""}. Move the start, or put one of them away.`,
      "Arithmetic",
    );
  }
  for (const { week, words, factorSet } of input.competitionWeeks) {
    if (!factorSet) {
      say(
        `competition/${week}`,
        "competition",
        "note",
        `Week ${week}: ${words}. Your factor for loads this near is not set; the loads stay as the recipe says.`,
        "Cautions",
      );
    }
  }
  return found;
}

/** Weekly hard sets per muscle against the school's range; speed sets stand apart. */
export function muscles(input: CheckInput): PlanCheck[] {
  const { block, school, settings } = input;
  const rows = new Map<Muscle, number[]>();
  const weeks = weeksWith(block, (week) => markOf(block, week) === undefined);
  for (const week of weeks) {
    for (const row of weekSum({ block, week, settings, workOf: input.workOf }).muscles) {
      rows.set(row.muscle, [...(rows.get(row.muscle) ?? []), row.hard]);
    }
  }
  const found: PlanCheck[] = [];
  for (const [muscle, hard] of rows) {
    const most = Math.max(...hard);
    if (most > school.hardSets.most) {
      found.push({
        key: `muscle/${muscle}`,
        code: "muscle-over",
        level: "warning",
        text: `${most} hard sets a week for the ${muscle}, over ${school.hardSets.most}; speed sets not counted.`,
        from: school.name,
      });
    }
  }
  return found;
}

/** What stands against single athletes in this plan. */
export function athleteRules(input: CheckInput): PlanCheck[] {
  const { block, school, settings } = input;
  const found: PlanCheck[] = [];
  const slots = allSlots(block);
  const names = (list: readonly CheckedAthlete[]) => list.map((one) => one.name).join(", ");
  const inBlock = input.athletes.filter((one) => !block.apart[one.id]);
  for (const slot of slots) {
    if (slot.work.kind !== "lift") continue;
    const { variantId } = slot.work;
    const name = nameOf(input, slot);
    const push = (code: string, level: CheckLevel, text: string, from: string) =>
      found.push({ key: `${code}/${slot.id}`, code, level, text, from, slotId: slot.id });
    if (["percent", "reserve"].includes(slot.recipe.basis)) {
      const without = inBlock.filter((one) => !one.maxOf.has(variantId));
      if (without.length > 0) {
        push(
          "no-base",
          "warning",
          `${name}: no working max for ${without.length === inBlock.length ? "anybody" : names(without)}. A percentage without a base is no load.`,
          "Arithmetic",
        );
      }
      const stale = inBlock.filter((one) => one.staleOf.has(variantId));
      if (stale.length > 0)
        push(
          "stale",
          "note",
          `${name}: the max of ${names(stale)} is stale. Test in week 1, or go by speed.`,
          "Arithmetic",
        );
    }
    if (heavySlot(slot)) {
      const strong = inBlock.filter((one) => (one.squatPerBody ?? 0) >= school.strongFrom);
      const weeks = weeksWith(
        block,
        (week) => (slotWeek(block, slot, week, settings)?.sets.length ?? 0) > 0,
      );
      const every = weeks.some(
        (week, i) => i > 0 && week - (weeks[i - 1] ?? 0) < school.strongEveryWeeks,
      );
      if (strong.length > 0 && every) {
        push(
          "very-strong",
          "warning",
          `${name}: ${names(strong)} squat ${school.strongFrom} × body mass or more; heavy work every ${school.strongEveryWeeks} weeks for them.`,
          school.name,
        );
      }
      const refused = inBlock.filter((one) => one.refused.some((two) => two.what === "heavy"));
      if (refused.length > 0)
        push(
          "heavy-refused",
          "refused",
          `${name}: heavy work is refused by default for ${names(refused)}. Give them another slot, or answer with a reason.`,
          "Cautions",
        );
    }
    if ((slot.recipe.resistancePercent ?? 0) > 0) {
      const refused = inBlock.filter((one) =>
        one.refused.some((two) => two.what === "bands-chains"),
      );
      if (refused.length > 0)
        push(
          "resistance-refused",
          "refused",
          `${name}: bands and chains are refused by default for ${names(refused)}.`,
          "Cautions",
        );
      const novice = inBlock.filter((one) => (one.trainingYears ?? 99) < TRUSTED_TRAINING_YEARS);
      if (novice.length > 0 && school.resistance !== "always")
        push(
          "resistance-novice",
          "warning",
          `${name}: bands and chains are for the experienced; ${names(novice)} trained under a year.`,
          school.name,
        );
    }
    const lift = input.liftOf(variantId)?.lift ?? "";
    const most = Math.max(
      0,
      ...weeksWith(block, () => true).flatMap(
        (week) =>
          slotWeek(block, slot, week, settings)?.sets.map((set) => percentOf(set) ?? 0) ?? [],
      ),
    );
    const capped = inBlock.filter((one) =>
      one.caps.some((cap) => cap.lift === lift && most > cap.percent),
    );
    if (capped.length > 0)
      push(
        "cap",
        "refused",
        `${name} reaches ${most} %: over the instruction of ${names(capped)}.`,
        "Cautions",
      );
  }
  const novices = inBlock.filter((one) => (one.trainingYears ?? 99) < TRUSTED_TRAINING_YEARS);
  if (novices.length > 0 && slots.some((slot) => slot.recipe.basis === "percent")) {
    found.push({
      key: "novices",
      code: "novices",
      level: "note",
      text: `${names(novices)}: under a year of training, percentages are information only. Ramp by speed or by reserve.`,
      from: school.name,
    });
  }
  return found;
}
