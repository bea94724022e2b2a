import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";

/** Rest from turn-taking: n lifters share a bar, w s a set, c s to change the bar between them:
 * each rests n(w + c) − w. */
export function restFromTurns(input: { lifters: number; setS: number; changeS: number }): number {
  return input.lifters * (input.setS + input.changeS) - input.setS;
}

/** The numbers of lifters whose turn-taking falls in a rest range; empty where none does. */
export function groupSizesForRest(input: {
  leastRestS: number;
  mostRestS: number;
  setS: number;
  changeS: number;
  largest: number;
}): number[] {
  const sizes: number[] = [];
  for (let lifters = 1; lifters <= input.largest; lifters++) {
    const rest = restFromTurns({ lifters, setS: input.setS, changeS: input.changeS });
    if (rest >= input.leastRestS && rest <= input.mostRestS) sizes.push(lifters);
  }
  return sizes;
}

/** Starting under this share of the planned rest is said (never refused). */
export const SHORT_REST_SHARE = 0.8;

export function isShortRest(restedS: number, plannedS: number): boolean {
  return restedS < SHORT_REST_SHARE * plannedS;
}

/** Defaults for a speed set and a bar change, s; edited per session. */
export const DEFAULT_SET_S = 8;
export const DEFAULT_CHANGE_S = 10;

type Turns = Parameters<typeof restFromTurns>[0];

export const turnsWorking = (turns: Turns): Working => {
  const { lifters, setS, changeS } = turns;
  return {
    title: "Rest from turn-taking",
    lines: [
      { label: "n (w + c) − w", value: `${lifters} (${setS} + ${changeS}) − ${setS}` },
      { label: "Rest", value: `${restFromTurns(turns)} s`, emphasis: "answer" },
    ],
    sources: ["Arithmetic: everybody else lifts and changes the bar once"],
    changes: ["Another group size, a quicker change."],
  };
};

/** How far a group's rest is from what is wanted, and each way to bring it there. */
export interface TurnsWays {
  restS: number;
  /** Too short: what each adds to a turn's wait, least and most, s. */
  addS?: { leastS: number; mostS: number };
  /** Too long: the change that would be quick enough, s; absent where no change is. */
  changeToBeatS?: number;
  /** Too long: the group in two, each half with its wait to add, s; 0 where its rest is long enough. */
  split?: Array<{ lifters: number; restS: number; addS: number }>;
}

/**
 * Where turn-taking misses the wanted rest: the wait to add, the change to beat, or the split.
 *
 * @example three lifters, 8 s a set, 12 s a change, 60 to 75 s wanted: rest 52, add 8 to 23 s
 * @example five lifters, 8 s a set, up to 75 s wanted: a change of 8.6 s at the most
 */
export function turnsWays(turns: Turns, wanted: { leastS: number; mostS: number }): TurnsWays {
  const { leastS, mostS } = wanted;
  const { lifters, setS } = turns;
  const restS = restFromTurns(turns);
  if (restS < leastS)
    return { restS, addS: { leastS: leastS - restS, mostS: Math.max(0, mostS - restS) } };
  if (restS <= mostS) return { restS };
  const changeToBeatS = (mostS + setS) / lifters - setS;
  const half = Math.ceil(lifters / 2);
  const split = [half, lifters - half].map((own) => {
    const rest = restFromTurns({ ...turns, lifters: own });
    return { lifters: own, restS: rest, addS: Math.max(0, leastS - rest) };
  });
  return {
    restS,
    ...(changeToBeatS > 0 ? { changeToBeatS } : {}),
    ...(lifters > 1 ? { split } : {}),
  };
}

const seconds = (s: number) => `${plainNumber(s, 1)} s`;

/** The ways in one sentence; empty where the rest is as wanted. */
export function turnsWords(turns: Turns, wanted: { leastS: number; mostS: number }): string {
  const { restS, addS, changeToBeatS, split } = turnsWays(turns, wanted);
  if (addS)
    return `Rest ${seconds(restS)}, too short: add ${seconds(addS.leastS)} to ${seconds(addS.mostS)} of waiting a round.`;
  if (restS <= wanted.mostS) return "";
  const ways = [
    changeToBeatS === undefined ? "" : `a change of ${seconds(changeToBeatS)} at the most`,
    split
      ? `two groups of ${split
          .map((one) => `${one.lifters}${one.addS > 0 ? ` (add ${seconds(one.addS)})` : ""}`)
          .join(" and ")}`
      : "",
  ].filter((way) => way !== "");
  return `Rest ${seconds(restS)}, too long${ways.length > 0 ? `: ${ways.join(", or ")}` : ""}.`;
}

/** Which group sizes give a rest that is wanted; else what to wait, the change to beat, the split. */
export function turnsAdvice(turns: Turns, wanted: { leastS: number; mostS: number }): string {
  const { leastS, mostS } = wanted;
  const sizes = groupSizesForRest({
    ...turns,
    leastRestS: leastS,
    mostRestS: mostS,
    largest: LARGEST_GROUP,
  });
  const own = turnsWords(turns, wanted);
  return sizes.length > 0
    ? `Groups of ${sizes.join(", ")} rest from ${leastS} to ${mostS} s.${own && ` With ${turns.lifters}: ${own}`}`
    : `No group size fits. With ${turns.lifters}: ${own}`;
}

/** Largest group that one bar is asked to serve. */
export const LARGEST_GROUP = 12;

/** The time that a group takes for its sets, s. */
export const groupTimeS = (turns: Turns, sets: number): number =>
  sets * turns.lifters * (turns.setS + turns.changeS);
