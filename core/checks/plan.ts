import { TRUSTED_TRAINING_YEARS } from "../maxes/records";
import type { Muscle, Pattern } from "../session/exercise";
import { type WorkFacts, weekSum } from "../session/weeksums";
import {
  type Block,
  daysOf,
  exerciseIn,
  markOf,
  type Slot,
  slotsOf,
  slotWeek,
  TEMPLATE_NAMES,
  TEMPLATE_ORDER,
} from "../wave/block";
import { percentOf, type RecipeSettings, recipeWeeks } from "../wave/recipe";
import type { School } from "./school";
import { heavySlot, speedSlot } from "./slots";

export type CheckLevel = "refused" | "warning" | "note";

export interface PlanCheck {
  /** Stays the same while the matter does: an answer with a reason hangs on it. */
  key: string;
  code: string;
  level: CheckLevel;
  text: string;
  /** School (or "Arithmetic", "Cautions") from which it comes. */
  from: string;
  slotId?: string;
}

export interface CheckedWork extends WorkFacts {
  pattern: Pattern;
  /** The variation it is, for the reuse rule; lifts only. */
  variation: string | undefined;
  overhead: boolean;
  upperBody: boolean;
}

export interface CheckedAthlete {
  id: string;
  name: string;
  trainingYears: number | undefined;
  /** Squat working max over body mass, where both are known. */
  squatPerBody: number | undefined;
  /** Variants of the block for which there is a working max. */
  maxOf: ReadonlySet<string>;
  /** Working maxes older than the limit, by variant. */
  staleOf: ReadonlySet<string>;
  /** Kinds of work refused by default, with the words that may be shown. */
  refused: ReadonlyArray<{ what: "heavy" | "bands-chains" | "max-test"; because: string }>;
  /** Cap on a lift, % of the max, from an instruction. */
  caps: ReadonlyArray<{ lift: string; percent: number }>;
}

export interface CheckInput {
  block: Block;
  school: School;
  settings: RecipeSettings;
  workOf: (slot: Slot, exerciseId: string | undefined) => CheckedWork | undefined;
  liftOf: (variantId: string) => { name: string; lift: string } | undefined;
  athletes: readonly CheckedAthlete[];
  /** Variations used in the waves before this block, newest first, one list a wave. */
  before: ReadonlyArray<readonly string[]>;
  /** Other blocks of the squad whose dates lie within this one's, with the lifts they share. */
  overlaps: ReadonlyArray<{ name: string; from: string; to: string; lifts: readonly string[] }>;
  /** Dates of competitions and the weeks they touch, as words. */
  competitionWeeks: ReadonlyArray<{ week: number; words: string; factorSet: boolean }>;
}

/** Prilepin's totals by mean intensity: reps in all, and reps a set for strength work. */
export const PRILEPIN = [
  { under: 70, least: 18, most: 30, set: { least: 3, most: 6 } },
  { under: 80, least: 12, most: 24, set: { least: 3, most: 6 } },
  { under: 90, least: 10, most: 20, set: { least: 2, most: 4 } },
  { under: Number.POSITIVE_INFINITY, least: 4, most: 10, set: { least: 1, most: 2 } },
] as const;

/** A loss over this is not speed work any more, %. */
export const SPEED_LOSS_MOST = 20;
/** Overhead pressing comes no more often than every so many weeks. */
export const OVERHEAD_EVERY_WEEKS = 4;
/** More resistance than this share slows an upper-body lift that it is meant to speed up, %. */
export const UPPER_RESISTANCE_PERCENT = 25;

const PRILEPIN_NAME = "Prilepin totals";

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
  ];
  const rank = { refused: 0, warning: 1, note: 2 };
  return checks.sort((a, b) => rank[a.level] - rank[b.level]);
}

/** Checks that no coach has answered with a reason. */
export const openChecks = (block: Block, checks: readonly PlanCheck[]) =>
  checks.filter((check) => block.answered[check.key] === undefined);

const allSlots = (block: Block) => daysOf(block).flatMap((day) => slotsOf(block, day.id));

function nameOf(input: CheckInput, slot: Slot): string {
  if (slot.work.kind === "lift") return input.liftOf(slot.work.variantId)?.name ?? slot.recipe.name;
  return input.workOf(slot, slot.work.exerciseIds[0])?.name ?? slot.recipe.name;
}

/** Numbers without which no slot is published. */
function missing(input: CheckInput): PlanCheck[] {
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

const marked = (block: Block, from: number) =>
  Object.values(block.marks).filter((mark) => mark.week >= from).length;

const weeksWith = (block: Block, has: (week: number) => boolean) =>
  Array.from({ length: block.weeks }, (_, i) => i + 1).filter(has);

/** Rules of one slot by itself. */
function slotRules(input: CheckInput): PlanCheck[] {
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

/** Order within a day against the template. */
function orderRules(input: CheckInput): PlanCheck[] {
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
function spacing(input: CheckInput): PlanCheck[] {
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
function overTheBlock(input: CheckInput): PlanCheck[] {
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
function muscles(input: CheckInput): PlanCheck[] {
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
function athleteRules(input: CheckInput): PlanCheck[] {
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
