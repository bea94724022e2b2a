import type { LocalDate } from "../units/time";

export const FAULT_ACTIONS = {
  cue: "cue",
  drill: "drill without the bar: hold the right seat",
  repair: "repair set at the same load",
  lighter: "take weight off",
  cut: "cut the set",
} as const;
export type FaultAction = keyof typeof FAULT_ACTIONS;

export interface BoxFault {
  id: string;
  /** As it is seen, and as it is tagged at the rack. */
  seen: string;
  cause: string;
  cue: string;
  drill: string;
  action: FaultAction;
  /** A drawing stands for it in the library. */
  picture?: "high" | "low" | "knees" | "rock" | "heels" | "torso" | "bar";
  /** Goes with the spine caution. */
  spine?: boolean;
}

/** Seen → cause → cue → drill → action, in our own words (coaching practice, docs/sources.md). */
export const BOX_FAULTS: readonly BoxFault[] = [
  {
    id: "box-high",
    seen: "Box too high",
    cause: "Height not taken for this stance",
    cue: "Crease to the top of the knee",
    drill: "Trial seat, measure, build again",
    action: "repair",
    picture: "high",
  },
  {
    id: "box-low",
    seen: "Box too low",
    cause: "Built for somebody else, or mats taken off",
    cue: "Stop before the back rounds",
    drill: "Trial seat, measure, build again",
    action: "cut",
    picture: "low",
    spine: true,
  },
  {
    id: "narrow",
    seen: "Stance narrow",
    cause: "Feet set before the walkout ended",
    cue: "Feet under the wide shoulders",
    drill: "Mark the feet on the floor",
    action: "cue",
  },
  {
    id: "knees-in",
    seen: "Knees in",
    cause: "Weight on the inner foot, or too heavy",
    cue: "Push the floor apart",
    drill: "Seated hold with a band round the knees",
    action: "lighter",
    picture: "knees",
  },
  {
    id: "rocking",
    seen: "Rocking back, then forward",
    cause: "Momentum in place of a drive",
    cue: "Stop as you are, stand as you are",
    drill: "Five seated holds of five seconds",
    action: "drill",
    picture: "rock",
    spine: true,
  },
  {
    id: "limp",
    seen: "Going limp",
    cause: "The trunk lets go on the box",
    cue: "Hips rest, trunk does not",
    drill: "Brace, breathe behind the brace, seated",
    action: "cut",
    spine: true,
  },
  {
    id: "breath-out",
    seen: "Breath let out",
    cause: "Breathes on the box",
    cue: "One breath, from hooks to top",
    drill: "Breath held through a chair sit",
    action: "cue",
    spine: true,
  },
  {
    id: "bounce",
    seen: "Bouncing",
    cause: "Looks for the rebound",
    cue: "Count one, then up",
    drill: "Counted stops, called by a partner",
    action: "repair",
  },
  {
    id: "dropping",
    seen: "Dropping on to the box",
    cause: "Last part let go, or box out of reach",
    cue: "Lower it all the way",
    drill: "Slow lowering to a touch",
    action: "cut",
    spine: true,
  },
  {
    id: "soft-rise",
    seen: "Soft, slow rise",
    cause: "Placed, not driven",
    cue: "Jump it without leaving the floor",
    drill: "Seated jumps without a bar",
    action: "lighter",
  },
  {
    id: "hips-unfinished",
    seen: "Hips not finished",
    cause: "Rushes to the next rep",
    cue: "Stand tall, then breathe",
    drill: "Finish and hold one second",
    action: "cue",
  },
  {
    id: "heels",
    seen: "Heels or toes lifting",
    cause: "Weight not over mid-foot",
    cue: "Whole foot to the floor",
    drill: "Seat hold, toes wiggle free",
    action: "drill",
    picture: "heels",
  },
  {
    id: "past-heels",
    seen: "Sitting past the heels",
    cause: "Box too far behind",
    cue: "Back, and down",
    drill: "Box two hands behind the heel",
    action: "repair",
  },
  {
    id: "upright",
    seen: "Torso kept upright",
    cause: "Afraid to lean",
    cue: "Chest over the thighs, shins upright",
    drill: "Wall sit-back, hips first",
    action: "cue",
    picture: "torso",
  },
  {
    id: "head",
    seen: "Head ducked",
    cause: "Looks at the floor or the box",
    cue: "Eyes to one point ahead",
    drill: "Find the box by two steps, not by looking",
    action: "cue",
  },
  {
    id: "bar-off",
    seen: "Bar off centre",
    cause: "Hands uneven, or hooks uneven",
    cue: "Rings alike on both sides",
    drill: "Set up with the empty bar",
    action: "repair",
    picture: "bar",
  },
  {
    id: "hooks",
    seen: "Hooks at the wrong height",
    cause: "Set for another lifter",
    cue: "Out with bent knees, not on toes",
    drill: "Set-up card, then hooks",
    action: "repair",
  },
  {
    id: "walkout",
    seen: "Wobbly or long walkout",
    cause: "Box too far, or no plan for the feet",
    cue: "Two steps, then still",
    drill: "Three walkouts with the empty bar",
    action: "repair",
  },
  {
    id: "ribs",
    seen: "Ribs flared, low back aches",
    cause: "Arches in place of bracing",
    cue: "Ribs down, then breath",
    drill: "Brace lying, then seated",
    action: "cut",
    picture: "torso",
    spine: true,
  },
  {
    id: "missed",
    seen: "Box missed",
    cause: "Set-up not rehearsed",
    cue: "Stop, rack, set up again",
    drill: "Rehearse with the empty bar",
    action: "cut",
    spine: true,
  },
];

export const boxFaultNamed = (seen: string): BoxFault | undefined =>
  BOX_FAULTS.find((one) => one.seen === seen);

/** A fault of an athlete, with the share of the max at which it was seen. */
export interface FaultSeen {
  fault: string;
  date: LocalDate;
  percent: number | undefined;
}

/** Days of the lift without the fault after which it counts as cured. */
export const CURED_AFTER_DAYS = 3;

export interface FaultHistory {
  fault: string;
  times: number;
  lastOn: LocalDate;
  cured: boolean;
  /** After a cure it came back at this share of the max, %; the least of the returns. */
  returnsAt: number | undefined;
}

/**
 * The history of each fault: cured after so many training days of the lift without it; a return
 * after a cure is kept with its share of the max.
 * @param days the training days of the lift, any order, doubles allowed
 */
export function faultHistory(
  seen: readonly FaultSeen[],
  days: readonly LocalDate[],
): FaultHistory[] {
  const trained = [...new Set([...days, ...seen.map((one) => one.date)])].sort();
  const places = new Map(trained.map((day, i) => [day, i]));
  const placeOf = (day: LocalDate) => places.get(day) as number;
  const byFault = new Map<string, FaultSeen[]>();
  for (const one of [...seen].sort((a, b) => a.date.localeCompare(b.date))) {
    const before = byFault.get(one.fault);
    if (before) before.push(one);
    else byFault.set(one.fault, [one]);
  }
  return [...byFault]
    .map(([fault, all]): FaultHistory => {
      const last = all[all.length - 1] as FaultSeen;
      const clean = (from: LocalDate, to: LocalDate | undefined) =>
        Math.max(0, (to === undefined ? trained.length : placeOf(to)) - placeOf(from) - 1);
      const returns = all.flatMap((one, i) => {
        const before = all[i - 1];
        const back = before !== undefined && clean(before.date, one.date) >= CURED_AFTER_DAYS;
        return back && one.percent !== undefined && Number.isFinite(one.percent)
          ? [one.percent]
          : [];
      });
      return {
        fault,
        times: all.length,
        lastOn: last.date,
        cured: clean(last.date, undefined) >= CURED_AFTER_DAYS,
        returnsAt: returns.length > 0 ? returns.reduce((a, b) => Math.min(a, b)) : undefined,
      };
    })
    .sort((a, b) => b.lastOn.localeCompare(a.lastOn) || a.fault.localeCompare(b.fault));
}

/** Faults that a plan at this share of the max goes back to. */
export function returnsWithin<Fault extends Pick<FaultHistory, "returnsAt">>(
  history: readonly Fault[],
  percent: number,
): Fault[] {
  return history.filter((one) => one.returnsAt !== undefined && percent >= one.returnsAt - 1e-9);
}
