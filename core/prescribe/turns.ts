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
