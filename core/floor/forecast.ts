import { DEFAULT_CHANGE_S, DEFAULT_SET_S } from "../prescribe/turns";
import type { LifterState } from "./lifter-state";
import type { RackState } from "./state";

export interface ForecastInput {
  rack: RackState;
  one: LifterState;
  nowMs: number;
  leastRestS: number;
  /** Seconds a set and a bar change take; the defaults where not measured. */
  setS?: number;
  changeS?: number;
}

/**
 * When each set of a lifter ended or will end, ms on the server's clock, in the sets' order. Done
 * sets stand where they ended. Coming ones follow turn-taking from who is up now, a round no
 * shorter than the lifter's own rest.
 */
export function setTimes(input: ForecastInput): number[] {
  const { rack, one, nowMs, leastRestS } = input;
  const setS = input.setS ?? DEFAULT_SET_S;
  const turnS = setS + (input.changeS ?? DEFAULT_CHANGE_S);
  const waiting = rack.lifters.filter((other) => other.current !== undefined);
  const up = waiting.findIndex((other) => other.lifter.athleteId === rack.upId);
  const mine = waiting.indexOf(one);
  const ahead = up < 0 || mine < 0 ? 0 : (mine - up + waiting.length) % waiting.length;
  const roundS = Math.max(waiting.length * turnS, leastRestS + one.addedRestS + setS);
  let coming = 0;
  return one.sets.map((set) => {
    if (set.end) return set.end.atMs;
    const inS = ahead * turnS + setS + coming * roundS;
    coming++;
    return nowMs + inS * 1000;
  });
}
