import type { BoxSlot } from "../boxsquat/slot";
import type { PlaceKind } from "../gear/kinds";
import {
  expandRecipe,
  type Recipe,
  type RecipeSettings,
  recipeWeeks,
  type WaveWeek,
} from "../recipe/recipe";
import { addDays, type LocalDate } from "../units/time";

/** Sections of a session; which order they stand in is the template's. */
export const SECTIONS = [
  "warm-up",
  "primer",
  "power",
  "main",
  "second",
  "accessories",
  "finisher",
] as const;
export type SectionKind = (typeof SECTIONS)[number];

export const SECTION_NAMES: Record<SectionKind, string> = {
  "warm-up": "General warm-up",
  primer: "Primer",
  power: "Power and contrast",
  main: "Main lift",
  second: "Second lift",
  accessories: "Accessories",
  finisher: "Finisher",
};

export const TEMPLATES = ["power-first", "heavy-first", "four-speed"] as const;
export type Template = (typeof TEMPLATES)[number];

export const TEMPLATE_NAMES: Record<Template, string> = {
  "power-first": "power first",
  "heavy-first": "heavy first",
  "four-speed": "four speeds",
};

/** Order of the sections by template. Four speeds go from the fastest class to the slowest. */
export const TEMPLATE_ORDER: Record<Template, readonly SectionKind[]> = {
  "power-first": ["warm-up", "primer", "power", "main", "second", "accessories", "finisher"],
  "heavy-first": ["warm-up", "primer", "main", "second", "power", "accessories", "finisher"],
  "four-speed": ["warm-up", "primer", "power", "main", "second", "accessories", "finisher"],
};

export interface BlockDay {
  name: string;
  /** Days after the first of the week, 0 to 6. */
  offset: number;
  /** When it starts where the room is, "17:30"; absent where no time is set. */
  startAt?: string;
  /** Minutes that it has; absent where none are asked for. */
  lengthMin?: number;
}

/** What a slot trains: a lift variant with its max, or exercises taken in turn week by week. */
export type SlotWork =
  | { kind: "lift"; variantId: string }
  | { kind: "exercise"; exerciseIds: string[]; hands: 1 | 2 };

export interface Slot {
  dayId: string;
  section: SectionKind;
  /** Place within the day's section; ties by id. */
  order: number;
  work: SlotWork;
  recipe: Recipe;
  /** First week of the block in which it is done, from 1. */
  fromWeek: number;
  /** Starts anew after its last week. */
  repeat: boolean;
  /** Which session of the week this is for a recipe that walks within the week. */
  session: number;
  /** On a box: what for and how. */
  box?: BoxSlot;
  /** Another school than the block's for this slot. */
  schoolId?: string;
  /** Slots with the same letter on a day are done in rounds; empty: alone. */
  group: string;
  /** The kind of place it is done at; by what is done where left out. Lifts are done at racks. */
  doneAt?: PlaceKind;
}

/** A week of the block in which no slot's cycle goes on. */
export interface BlockMark {
  week: number;
  kind: "deload" | "test" | "off";
  words: string;
}

export interface BlockOverride {
  loadKg: number;
  by: string;
}

/** More rest for one athlete in one slot than the slot gives, s. */
export interface BlockRest {
  addS: number;
  by: string;
}

/** A floor of one athlete's own in one slot, in place of the slot's, m/s. */
export interface BlockFloor {
  floorMps: number;
  by: string;
}

export interface BlockAway {
  athleteId: string;
  from: LocalDate;
  to: LocalDate;
}

/** A complex of the team's library on a day, from a week on. */
export interface BlockPairing {
  dayId: string;
  complexId: string;
  /** Week of the block that is the first of its loads' direction. */
  fromWeek: number;
}

/** Why a check stays as it is, and for whom: who is named later is asked about anew. */
export interface CheckAnswer {
  reason: string;
  by: string;
  /** Ids of those whom the check named when it was answered; absent before that was kept. */
  athletes?: string[];
}

/**
 * A block as coaches write it: recipes in slots on days, for a number of weeks. Everything is kept
 * by a stable id, so that an edit names one place and two coaches' edits meet only where they are
 * about the same thing. Names of athletes stand elsewhere.
 */
export interface Block {
  name: string;
  startDate: LocalDate;
  weeks: number;
  /** Id of the school whose rules check it; empty where it is none of the team's. */
  schoolId: string;
  template: Template;
  days: Record<string, BlockDay>;
  slots: Record<string, Slot>;
  /** Absent in blocks that were written before there were any. */
  pairings?: Record<string, BlockPairing>;
  marks: Record<string, BlockMark>;
  /** By "athlete id/slot id/set key". */
  overrides: Record<string, BlockOverride>;
  /** By "athlete id/slot id"; absent in blocks that were written before there were any. */
  rests?: Record<string, BlockRest>;
  /** By "athlete id/slot id"; absent in blocks that were written before there were any. */
  floors?: Record<string, BlockFloor>;
  away: Record<string, BlockAway>;
  /** Athletes who have a block of their own and are not in this one. */
  apart: Record<string, true>;
  /** Checks that were answered with a reason, by the check's key. */
  answered: Record<string, CheckAnswer>;
}

export const overrideKey = (athleteId: string, slotId: string, setKey: string) =>
  `${athleteId}/${slotId}/${setKey}`;

/** What athletes have of their own in a slot, by athlete, besides loads. */
export interface OwnInSlot {
  /** More rest, s. */
  rests: ReadonlyMap<string, number>;
  /** Floors in place of the slot's, m/s. */
  floors: ReadonlyMap<string, number>;
}

/** Of a slot in which nobody has anything of their own. */
export const NOTHING_OWN: OwnInSlot = { rests: new Map(), floors: new Map() };

export function ownInSlot(block: Pick<Block, "rests" | "floors">, slotId: string): OwnInSlot {
  const ofSlot = <T>(entries: Record<string, T> | undefined, read: (one: T) => number) =>
    new Map(
      Object.entries(entries ?? {}).flatMap(([key, one]) => {
        const [athleteId = "", slot] = key.split("/");
        return slot === slotId ? [[athleteId, read(one)] as const] : [];
      }),
    );
  return {
    rests: ofSlot(block.rests, (one) => one.addS),
    floors: ofSlot(block.floors, (one) => one.floorMps),
  };
}

export function emptyBlock(input: {
  name: string;
  startDate: LocalDate;
  weeks: number;
  schoolId: string;
  template: Template;
}): Block {
  const { name, startDate, weeks, schoolId, template } = input;
  return {
    name,
    startDate,
    weeks,
    schoolId,
    template,
    days: {},
    slots: {},
    marks: {},
    overrides: {},
    away: {},
    apart: {},
    answered: {},
  };
}

/**
 * A published block with the answers of today: a reason counts from when it is given or taken
 * back, while loads and days stay as they were published.
 */
export const withAnswersOf = (published: Block, now: Pick<Block, "answered">): Block => ({
  ...published,
  answered: now.answered,
});

/** Days in the order of the week. */
export function daysOf(block: Block): Array<BlockDay & { id: string }> {
  return Object.entries(block.days)
    .map(([id, day]) => ({ id, ...day }))
    .sort((a, b) => a.offset - b.offset || a.id.localeCompare(b.id));
}

/** Slots of a day in the order in which they are done. */
export function slotsOf(block: Block, dayId: string): Array<Slot & { id: string }> {
  const order = TEMPLATE_ORDER[block.template];
  return Object.entries(block.slots)
    .filter(([, slot]) => slot.dayId === dayId)
    .map(([id, slot]) => ({ id, ...slot }))
    .sort(
      (a, b) =>
        order.indexOf(a.section) - order.indexOf(b.section) ||
        a.order - b.order ||
        a.id.localeCompare(b.id),
    );
}

/** The pairings of a day, in the order in which they were put on. */
export function pairingsOf(block: Block, dayId: string): Array<BlockPairing & { id: string }> {
  return Object.entries(block.pairings ?? {})
    .filter(([, one]) => one.dayId === dayId)
    .map(([id, one]) => ({ id, ...one }))
    .sort((a, b) => a.id.localeCompare(b.id, "en", { numeric: true }));
}

/** A pairing's own week in a week of the block, from 1; undefined where it is not done. */
export function pairingWeek(
  block: Block,
  pairing: Pick<BlockPairing, "fromWeek">,
  week: number,
): number | undefined {
  if (week < pairing.fromWeek || week > block.weeks || markOf(block, week)) return undefined;
  let own = 1;
  for (let w = pairing.fromWeek; w < week; w++) if (!markOf(block, w)) own++;
  return own;
}

export function markOf(block: Block, week: number): BlockMark | undefined {
  return Object.values(block.marks).find((mark) => mark.week === week);
}

/** The date of a day in a week of the block. */
export function dateOf(block: Block, week: number, day: BlockDay): LocalDate {
  return addDays(block.startDate, 7 * (week - 1) + day.offset);
}

export function lastDate(block: Block): LocalDate {
  const last = daysOf(block).at(-1);
  return dateOf(block, block.weeks, last ?? { name: "", offset: 0 });
}

/** Where a slot stands in its own cycle in a week of the block. */
export interface CyclePlace {
  /** 0-based week of the recipe. */
  index: number;
  /** 1 the first time through. */
  run: number;
}

/**
 * A slot's place in its cycle: weeks that are marked count for no cycle. Undefined before the
 * slot's first week, after a recipe that does not repeat, and in a marked week.
 */
export function cyclePlace(block: Block, slot: Slot, week: number): CyclePlace | undefined {
  if (week < slot.fromWeek || week > block.weeks || markOf(block, week)) return undefined;
  let done = 0;
  for (let w = slot.fromWeek; w < week; w++) if (!markOf(block, w)) done++;
  const length = recipeWeeks(slot.recipe).length;
  if (length === 0) return undefined;
  if (!slot.repeat && done >= length) return undefined;
  return { index: done % length, run: Math.floor(done / length) + 1 };
}

const inRun = (weekId: string, run: number) => (run === 1 ? weekId : `${weekId}@${run}`);

const NO_SETTINGS: RecipeSettings = {};
const expanded = new WeakMap<
  Recipe,
  WeakMap<RecipeSettings, Map<number | undefined, WaveWeek[]>>
>();

/** A recipe's weeks, worked out once: plans ask for the same recipe week by week. */
function weeksOf(
  recipe: Recipe,
  settings: RecipeSettings,
  session: number | undefined,
): WaveWeek[] {
  const bySettings = expanded.get(recipe) ?? new WeakMap();
  expanded.set(recipe, bySettings);
  const bySession = bySettings.get(settings) ?? new Map();
  bySettings.set(settings, bySession);
  const kept = bySession.get(session);
  if (kept) return kept;
  const weeks = expandRecipe(recipe, settings, session);
  bySession.set(session, weeks);
  return weeks;
}

/**
 * What a slot does in a week of the block. In a marked deload week it repeats its week before
 * with the coach's deload factors; in a marked test or free week, nothing.
 */
export function slotWeek(
  block: Block,
  slot: Slot,
  week: number,
  settings: RecipeSettings = NO_SETTINGS,
): WaveWeek | undefined {
  // Recipes, marks and settings are never changed in place, an edit makes new ones: so weeks are
  // kept with them. Checks and tables ask for the same week again and again.
  const bySettings = slotWeeks.get(slot.recipe) ?? new WeakMap();
  slotWeeks.set(slot.recipe, bySettings);
  let kept = bySettings.get(settings);
  if (kept?.marks !== block.marks || kept.weeks !== block.weeks) {
    kept = { marks: block.marks, weeks: block.weeks, found: new Map() };
    bySettings.set(settings, kept);
  }
  const key = `${week}/${slot.fromWeek}/${slot.repeat}/${slot.session}`;
  if (kept.found.has(key)) return kept.found.get(key);
  const found = slotWeekAnew(block, slot, week, settings);
  kept.found.set(key, found);
  return found;
}

const slotWeeks = new WeakMap<
  Recipe,
  WeakMap<
    RecipeSettings,
    { marks: Block["marks"]; weeks: number; found: Map<string, WaveWeek | undefined> }
  >
>();

function slotWeekAnew(
  block: Block,
  slot: Slot,
  week: number,
  settings: RecipeSettings,
): WaveWeek | undefined {
  const mark = markOf(block, week);
  if (mark && mark.kind !== "deload") return undefined;
  const place = mark ? placeBefore(block, slot, week) : cyclePlace(block, slot, week);
  if (!place) return undefined;
  const recipe = mark ? deloading(slot.recipe) : slot.recipe;
  const found = weeksOf(recipe, settings, slot.session)[place.index];
  if (!found) return undefined;
  const weekId = mark ? `deload${week}` : inRun(found.weekId, place.run);
  return {
    ...found,
    weekId,
    number: week,
    sets: found.sets.map((set) => ({
      ...set,
      factor:
        set.factor === undefined ? undefined : set.factor * (settings.weekFactors?.[week] ?? 1),
      weekId,
      key: `${weekId}.${set.key.slice(set.weekId.length + 1)}`,
    })),
  };
}

function placeBefore(block: Block, slot: Slot, week: number): CyclePlace | undefined {
  for (let w = week - 1; w >= slot.fromWeek; w--) {
    const place = cyclePlace(block, slot, w);
    if (place) return place;
  }
  return undefined;
}

const deloading = (recipe: Recipe): Recipe => ({
  ...recipe,
  weeks: recipe.weeks.map((week) => ({ ...week, kind: "deload" as const })),
});

/** The exercise of a slot in a week, where several are taken in turn. */
export function exerciseIn(block: Block, slot: Slot, week: number): string | undefined {
  if (slot.work.kind !== "exercise" || slot.work.exerciseIds.length === 0) return undefined;
  let done = 0;
  for (let w = slot.fromWeek; w < week; w++) if (!markOf(block, w)) done++;
  return slot.work.exerciseIds[done % slot.work.exerciseIds.length];
}

/** Weeks after which all repeating cycles stand together again: the least common multiple. */
export function realignsAfter(block: Block): number {
  const lengths = Object.values(block.slots)
    .filter((slot) => slot.repeat)
    .map((slot) => recipeWeeks(slot.recipe).length)
    .filter((length) => length > 0);
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  return lengths.reduce((all, length) => (all * length) / gcd(all, length), 1);
}

/** Whether an athlete is in a session on a date. */
export function isIn(block: Block, athleteId: string, date: LocalDate): boolean {
  if (block.apart[athleteId]) return false;
  return !Object.values(block.away).some(
    (away) => away.athleteId === athleteId && away.from <= date && date <= away.to,
  );
}

/** One lift on one day: the smallest block. */
export function blockOfLift(input: {
  name: string;
  startDate: LocalDate;
  variantId: string;
  recipe: Recipe;
  schoolId: string;
}): Block {
  const { variantId, recipe } = input;
  return {
    ...emptyBlock({ ...input, weeks: recipeWeeks(recipe).length, template: "power-first" }),
    days: { d1: { name: "Day 1", offset: 0 } },
    slots: {
      main: {
        dayId: "d1",
        section: "main",
        order: 1,
        work: { kind: "lift", variantId },
        recipe,
        fromWeek: 1,
        repeat: false,
        session: 1,
        group: "",
      },
    },
  };
}

/** The first lift of the block: what a list says it is about. */
export function leadSlot(block: Block): (Slot & { id: string }) | undefined {
  const all = daysOf(block).flatMap((day) => slotsOf(block, day.id));
  return (
    all.find((slot) => slot.work.kind === "lift" && slot.section === "main") ??
    all.find((slot) => slot.work.kind === "lift") ??
    all[0]
  );
}
