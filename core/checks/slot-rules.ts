import { exerciseIn, slotWeek } from "../plan/block";
import { percentOf, recipeWeeks } from "../recipe/recipe";
import {
  allSlots,
  type CheckInput,
  type CheckLevel,
  marked,
  nameOf,
  type PlanCheck,
  weeksWith,
} from "./input";
import { speedSlot } from "./slots";

/** Prilepin's totals by mean intensity: reps in all, and reps a set for strength work. */
export const PRILEPIN = [
  { under: 70, least: 18, most: 30, set: { least: 3, most: 6 } },
  { under: 80, least: 12, most: 24, set: { least: 3, most: 6 } },
  { under: 90, least: 10, most: 20, set: { least: 2, most: 4 } },
  { under: Number.POSITIVE_INFINITY, least: 4, most: 10, set: { least: 1, most: 2 } },
] as const;

/** A loss over this is not speed work any more, %. */
export const SPEED_LOSS_MOST = 20;

/** More resistance than this share slows an upper-body lift that it is meant to speed up, %. */
export const UPPER_RESISTANCE_PERCENT = 25;

const PRILEPIN_NAME = "Prilepin totals";

/** Numbers without which no slot is published. */
export function missing(input: CheckInput): PlanCheck[] {
  const { block, settings } = input;
  const found: PlanCheck[] = [];
  for (const slot of allSlots(block)) {
    const say = (code: string, level: CheckLevel, text: string, from = "Arithmetic") =>
      found.push({ key: `${code}/${slot.id}`, code, level, text, from, slotId: slot.id });
    const name = nameOf(input, slot);
    if (slot.work.kind === "lift" && !input.liftOf(slot.work.variantId)) {
      say(
        "gone",
        "refused",
        `${slot.recipe.name}: its lift is not in the library any more. Choose another.`,
      );
      continue;
    }
    if (slot.work.kind === "exercise") {
      const { exerciseIds } = slot.work;
      const gone = exerciseIds.filter((id) => !input.workOf(slot, id));
      if (exerciseIds.length === 0)
        say("no-exercise", "refused", `${slot.recipe.name} names no exercise.`);
      if (gone.length > 0) {
        say(
          "gone",
          "refused",
          `${slot.recipe.name}: ${gone.length} of its exercises ${gone.length === 1 ? "is" : "are"} not in the library any more. Choose another.`,
        );
      }
    }
    if (slot.recipe.rest.mostS <= 0 && slot.recipe.timed === undefined && slot.group === "") {
      say("no-rest", "refused", `${name}: no rest is set.`);
    }
    const length = recipeWeeks(slot.recipe).length;
    const room = block.weeks - slot.fromWeek + 1 - marked(block, slot.fromWeek);
    if (slot.fromWeek > block.weeks) {
      say(
        "after-block",
        "refused",
        `${name} begins in week ${slot.fromWeek}: the block has ${block.weeks}.`,
      );
    } else if (!slot.repeat && length > room) {
      say(
        "wave-too-long",
        "warning",
        `${name}: a wave of ${length} weeks in the ${room} that are left. Lengthen the block or begin earlier; the rest is cut.`,
      );
    }
  }
  const unset = settings.deloadLoad === undefined || settings.deloadSets === undefined;
  const deloads = unset
    ? weeksWith(block, (week) =>
        allSlots(block).some((slot) => slotWeek(block, slot, week, settings)?.kind === "deload"),
      )
    : [];
  if (deloads.length > 0) {
    found.push({
      key: "deload-unset",
      code: "deload-unset",
      level: "warning",
      text: `The deload's factors are not set: week ${deloads.join(", ")} has no loads. Set them once under Coach-set values.`,
      from: "Coach-set values",
    });
  }
  return found;
}

/** Rules of one slot by itself. */
export function slotRules(input: CheckInput): PlanCheck[] {
  const { block, school, settings } = input;
  const found: PlanCheck[] = [];
  for (const slot of allSlots(block)) {
    const { recipe } = slot;
    const name = nameOf(input, slot);
    const said = new Set<string>();
    const say = (code: string, level: CheckLevel, text: string, from = school.name) => {
      if (said.has(code)) return;
      said.add(code);
      found.push({ key: `${code}/${slot.id}`, code, level, text, from, slotId: slot.id });
    };
    const work = input.workOf(slot, exerciseIn(block, slot, slot.fromWeek));
    for (const week of weeksWith(block, () => true)) {
      const own = slotWeek(block, slot, week, settings);
      if (!own || own.sets.length === 0 || own.kind === "deload") continue;
      const reps = own.sets.reduce((sum, set) => sum + set.reps, 0);
      const longest = Math.max(...own.sets.map((set) => set.repsTo ?? set.reps));
      const counted = recipe.counts === undefined || recipe.counts === "reps";
      if (counted && recipe.aim === "speed" && longest > school.speedReps) {
        say(
          "reps-for-speed",
          "warning",
          `${name}, week ${week}: ${longest} reps a set; speed holds for 1 to ${school.speedReps}. More is growth work.`,
        );
      }
      if (recipe.aim === "power" && recipe.counts !== "metres" && longest > school.powerReps) {
        say(
          "reps-for-power",
          "warning",
          `${name}, week ${week}: ${longest} reps a set; power holds for at most ${school.powerReps}. Beyond it is growth work.`,
        );
      }
      if (
        recipe.aim === "power" &&
        recipe.rest.leastS < school.powerRestS &&
        !recipe.timed &&
        slot.group === ""
      ) {
        say(
          "power-rest",
          "warning",
          `${name}: ${recipe.rest.leastS} s of rest; power wants ${school.powerRestS} s and more, or output falls.`,
        );
      }
      const percents = own.sets.flatMap((set) => percentOf(set) ?? []);
      if (percents.length === own.sets.length && counted) {
        // Bands and chains add to the intensity where the percentage is of the bar only.
        const extra = recipe.convention === "bar" ? (recipe.resistancePercent ?? 0) : 0;
        const mean =
          extra + own.sets.reduce((sum, set) => sum + (percentOf(set) ?? 0) * set.reps, 0) / reps;
        if (mean - extra > 100 || percents.some((one) => one > 100)) {
          say(
            "over-max",
            "warning",
            `${name}, week ${week}: over 100 % of the working max.`,
            "Arithmetic",
          );
        }
        const zone = PRILEPIN.find((row) => mean < row.under);
        if (zone && school.totals) {
          if (reps > zone.most) {
            say(
              "reps-over-total",
              "warning",
              `${name}, week ${week}: ${reps} reps at ${mean.toFixed(0)} % on average, over the ${zone.most} of this zone.`,
              PRILEPIN_NAME,
            );
          } else if (reps < zone.least) {
            say(
              "reps-under-total",
              "note",
              `${name}, week ${week}: ${reps} reps at ${mean.toFixed(0)} %, under the ${zone.least} of this zone.`,
              PRILEPIN_NAME,
            );
          }
          const set = own.sets.find((one) => one.reps > zone.set.most);
          if (recipe.aim === "strength" && set) {
            say(
              "reps-a-set",
              "warning",
              `${name}, week ${week}: ${set.reps} reps a set at ${mean.toFixed(0)} %; ${zone.set.least} to ${zone.set.most} in this zone.`,
              PRILEPIN_NAME,
            );
          }
        }
      }
    }
    const { lossPercent } = recipe.stop;
    if (speedSlot(slot) && lossPercent !== undefined && lossPercent > SPEED_LOSS_MOST) {
      say(
        "loss-for-speed",
        "warning",
        `${name}: a loss of ${lossPercent} % is strength or growth work; speed sets end at ${school.loss[recipe.aim] ?? 10} to ${SPEED_LOSS_MOST} %.`,
      );
    }
    if (speedSlot(slot) && school.speedWork === "none") {
      say("no-speed-work", "note", `${name} is speed work, which this school leaves out.`);
    }
    if (recipe.basis !== school.loadBy && slot.section === "main" && recipe.basis !== "eye") {
      say(
        "other-basis",
        "note",
        `${name} goes by ${basisWords(recipe.basis)}, the school by ${basisWords(school.loadBy)}.`,
      );
    }
    if (
      recipe.basis === "reserve" &&
      recipe.leastReserve !== undefined &&
      recipe.start < recipe.leastReserve
    ) {
      say(
        "grinding",
        "warning",
        `${name}: ${recipe.start} reps in reserve, under the ${recipe.leastReserve} that power work keeps. It will grind.`,
      );
    }
    if (work?.upperBody && (recipe.resistancePercent ?? 0) > UPPER_RESISTANCE_PERCENT) {
      say(
        "upper-resistance",
        "warning",
        `${name}: ${recipe.resistancePercent} % resistance; over ${UPPER_RESISTANCE_PERCENT} % slows an upper-body lift that it is meant to speed up.`,
      );
    }
    if (work?.upperBody && (recipe.resistancePercent ?? 0) > 0 && school.resistance === "little") {
      say(
        "resistance-use",
        "note",
        `${name}: this school hangs little or nothing on upper-body lifts.`,
      );
    }
  }
  return found;
}

const basisWords = (basis: string) => basis.replace("-", " ");
