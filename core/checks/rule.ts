import { TRUSTED_TRAINING_YEARS } from "../maxes/records";
import {
  type Block,
  type BlockPairing,
  daysOf,
  exerciseIn,
  type Slot,
  slotsOf,
  slotWeek,
} from "../plan/block";
import type { WaveWeek } from "../recipe/recipe";
import type { CheckedAthlete, CheckedWork, CheckInput, CheckLevel } from "./input";

/** Who says it. A rule of the school carries the school's name. */
export type Author =
  | "the school"
  | "Arithmetic"
  | "Cautions"
  | "Coach-set values"
  | "Contrast pairings"
  | "Fault history"
  | "Prilepin totals";

/** What a rule found about its subject. */
export interface Finding {
  text: string;
  /** Where one subject can be found wanting more than once: what is added to the code. */
  part?: string;
  level?: CheckLevel;
  /** The slot it speaks of, where its subject is none. */
  slotId?: string;
  /** The week of the block that it speaks of, where it is about one. */
  week?: number;
  /** Whom it names: an answer covers these and nobody who joins later. */
  of?: readonly CheckedAthlete[];
}

export type Findings = Finding | readonly Finding[] | undefined;

/** One week of a slot in which there is something to do. */
export interface WeekAt {
  week: number;
  own: WaveWeek;
}

/** A slot with what its rules read, worked out once. */
export interface SlotAt {
  slot: Slot & { id: string };
  /** The name by which a check speaks of it: its lift, else its exercise, else its recipe. */
  name: string;
  dayName: string;
  /** What it trains in its first week. */
  work: CheckedWork | undefined;
  /** Of a lift; undefined for exercises. */
  variantId: string | undefined;
  /** Undefined for exercises, and where the lift is not in the library any more. */
  lift: { name: string; lift: string } | undefined;
  /** Its weeks with sets, and those of them that are no deload. */
  weeks: readonly WeekAt[];
  working: readonly WeekAt[];
}

export interface DayAt {
  id: string;
  name: string;
  offset: number;
  slots: readonly SlotAt[];
}

/** A block with its days and slots at hand. */
export interface BlockAt {
  block: Block;
  days: readonly DayAt[];
  slots: readonly SlotAt[];
  /** Who is in it: those with a block of their own are not. */
  athletes: readonly CheckedAthlete[];
}

export type PairingAt = BlockPairing & { id: string; dayName: string };

interface Named {
  /** Stays the same for good: answers with a reason hang on it. */
  code: string;
  level: CheckLevel;
  from: Author;
}

/** A rule of a plan: what it looks at, and what it finds there. One file each under rules/. */
export type Rule = Named &
  (
    | { of: "slot"; find: (at: SlotAt, input: CheckInput, whole: BlockAt) => Findings }
    | { of: "day"; find: (at: DayAt, input: CheckInput) => Findings }
    | { of: "block"; find: (at: BlockAt, input: CheckInput) => Findings }
    | { of: "pairing"; find: (at: PairingAt, input: CheckInput) => Findings }
  );

/** A block as its rules read it. */
export function blockAt(input: CheckInput): BlockAt {
  const { block } = input;
  const days = daysOf(block).map((day) => ({
    id: day.id,
    name: day.name,
    offset: day.offset,
    slots: slotsOf(block, day.id).map((slot) => slotAt(input, slot, day.name)),
  }));
  return {
    block,
    days,
    slots: days.flatMap((day) => day.slots),
    athletes: input.athletes.filter((one) => !block.apart[one.id]),
  };
}

function slotAt(input: CheckInput, slot: Slot & { id: string }, dayName: string): SlotAt {
  const { block, settings } = input;
  const variantId = slot.work.kind === "lift" ? slot.work.variantId : undefined;
  const lift = variantId === undefined ? undefined : input.liftOf(variantId);
  const exercise =
    slot.work.kind === "exercise" ? input.workOf(slot, slot.work.exerciseIds[0]) : undefined;
  const weeks = Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week): WeekAt[] => {
    const own = slotWeek(block, slot, week, settings);
    return own && own.sets.length > 0 ? [{ week, own }] : [];
  });
  return {
    slot,
    name: lift?.name ?? exercise?.name ?? slot.recipe.name,
    dayName,
    work: input.workOf(slot, exerciseIn(block, slot, slot.fromWeek)),
    variantId,
    lift,
    weeks,
    working: weeks.filter(({ own }) => own.kind !== "deload"),
  };
}

/** A lift that is not in the library any more: `gone` refuses it, and there is no more to say. */
export const isGone = (at: SlotAt): boolean => at.variantId !== undefined && !at.lift;

/** The first week of which there is something to say. */
export function firstWeek(
  weeks: readonly WeekAt[],
  say: (at: WeekAt) => string | undefined,
): Finding | undefined {
  for (const at of weeks) {
    const text = say(at);
    if (text !== undefined) return { text, week: at.week };
  }
  return undefined;
}

/** Under a year of real barbell training; who said nothing counts as trained. */
export const isNovice = (athlete: CheckedAthlete): boolean =>
  (athlete.trainingYears ?? TRUSTED_TRAINING_YEARS) < TRUSTED_TRAINING_YEARS;

export const names = (athletes: readonly CheckedAthlete[]) =>
  athletes.map((one) => one.name).join(", ");

/** Those for whom a kind of work is refused by default, on every lift or on this one. */
export const refusedFor = (
  athletes: readonly CheckedAthlete[],
  what: CheckedAthlete["refused"][number]["what"],
  lift: string | undefined,
) =>
  athletes.filter((one) =>
    one.refused.some(
      (refusal) => refusal.what === what && (refusal.lift === undefined || refusal.lift === lift),
    ),
  );
