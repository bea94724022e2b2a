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

/** Which group sizes give a rest that is wanted; else what to wait, or the change to beat. */
export function turnsAdvice(turns: Turns, wanted: { leastS: number; mostS: number }): string {
  const { leastS, mostS } = wanted;
  const sizes = groupSizesForRest({
    ...turns,
    leastRestS: leastS,
    mostRestS: mostS,
    largest: LARGEST_GROUP,
  });
  if (sizes.length > 0) return `Groups of ${sizes.join(", ")} rest from ${leastS} to ${mostS} s.`;
  const rest = restFromTurns(turns);
  return rest < leastS
    ? `No group size fits. With ${turns.lifters}, add ${leastS - rest} s of waiting to each turn.`
    : `No group size fits. With ${turns.lifters} the rest is ${rest} s: a quicker change or fewer lifters shortens it.`;
}

/** Largest group that one bar is asked to serve. */
export const LARGEST_GROUP = 12;

/** The time that a group takes for its sets, s. */
export const groupTimeS = (turns: Turns, sets: number): number =>
  sets * turns.lifters * (turns.setS + turns.changeS);
