import type { LocalDate } from "../units/time";
import { daysBetween } from "../units/time";

/** What a limit can refuse by default; an override takes a written reason. */
export const GUARDED = [
  "max-test",
  "heavy-single",
  "bands-chains",
  "relax-and-fire",
  "rocking",
] as const;
export type Guarded = (typeof GUARDED)[number];

export const GUARDED_NAMES: Record<Guarded, string> = {
  "max-test": "Max tests",
  "heavy-single": "Heavy singles",
  "bands-chains": "Bands and chains",
  "relax-and-fire": "Relax and fire on the box",
  rocking: "Rocking on the box",
};

/** Why a limit stands; seen by owner, coaches and that athlete only. */
export const REASON_KINDS = [
  "injury",
  "back",
  "knee",
  "pregnancy",
  "return",
  "health",
  "other",
] as const;
export type ReasonKind = (typeof REASON_KINDS)[number];

export const REASON_KIND_NAMES: Record<ReasonKind, string> = {
  injury: "Injury",
  back: "Back history",
  knee: "Knee history",
  pregnancy: "Pregnancy",
  return: "Return from injury",
  health: "Health",
  other: "Other",
};

/** What each kind of reason refuses by default; a coach edits the list for the person. */
export const REASON_REFUSES: Record<ReasonKind, readonly Guarded[]> = {
  injury: ["max-test", "heavy-single"],
  back: GUARDED,
  knee: GUARDED,
  pregnancy: GUARDED,
  return: GUARDED,
  health: ["max-test", "heavy-single"],
  other: [],
};

/** Through the year of turning this old a person counts as a minor here. */
export const MINOR_THROUGH_AGE = 18;
export const OLDER_FROM_AGE = 60;

export interface Limit {
  id: string;
  /** What cards and screens show. Never the reason. */
  instruction: string;
  refuses: readonly Guarded[];
  /** Of this lift only; every lift where undefined. */
  lift: string | undefined;
  /** No more than this share of the working max, percent. */
  capPercent: number | undefined;
  until: LocalDate | undefined;
  liftedOn: LocalDate | undefined;
}

/** Whether a limit holds on a day: not lifted, and its last day not past. */
export function limitHolds(limit: Pick<Limit, "until" | "liftedOn">, today: LocalDate): boolean {
  if (limit.liftedOn !== undefined && daysBetween(limit.liftedOn, today) >= 0) return false;
  return limit.until === undefined || daysBetween(today, limit.until) >= 0;
}

/** Said of a refusal by age to those who may know ages; others are told to ask a coach. */
export const AGE_GROUP_WORDS = "Refused by default for this age group.";

export interface Refusal {
  guarded: Guarded;
  /** The instruction, or the group's rule; says nothing of a reason. */
  because: string;
}

/**
 * What is refused by default for an athlete on a day: by the limits that hold, and by age (minors
 * through the year of turning 18, and from 60 on). Local rules and licensed practice come first.
 */
export function refusals(input: {
  limits: readonly Limit[];
  birthYear: number | undefined;
  lift: string;
  today: LocalDate;
}): Refusal[] {
  const found = input.limits
    .filter((limit) => limitHolds(limit, input.today))
    .filter((limit) => limit.lift === undefined || limit.lift === input.lift)
    .flatMap((limit) => limit.refuses.map((guarded) => ({ guarded, because: limit.instruction })));
  const age =
    input.birthYear === undefined ? undefined : Number(input.today.slice(0, 4)) - input.birthYear;
  if (age !== undefined && (age <= MINOR_THROUGH_AGE || age >= OLDER_FROM_AGE)) {
    const because = AGE_GROUP_WORDS;
    for (const guarded of GUARDED) found.push({ guarded, because });
  }
  return found;
}
