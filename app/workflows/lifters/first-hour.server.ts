import {
  endFirstHour,
  type FirstHourFacts,
  firstHourFacts,
  firstHourOf,
} from "../../../db/queries/first-hour.server";
import { FIRST_HOUR_STEPS, type FirstHourStep } from "../../../db/schema";
import type { TeamTransaction } from "../../../db/team.server";

/** Where one step from a new team to its first session stands. */
export interface FirstHourState {
  step: FirstHourStep;
  done: boolean;
  aside: boolean;
  /** What stands, in words. */
  words: string;
}

const many = (count: number, one: string, more = `${one}s`) =>
  `${count} ${count === 1 ? one : more}`;

function stateOf(step: FirstHourStep, facts: FirstHourFacts): { done: boolean; words: string } {
  switch (step) {
    case "school":
      return {
        done: facts.schoolId !== null,
        words: facts.schoolId === null ? "none chosen" : "chosen",
      };
    case "room":
      // Nobody can see from here whether the drawing is right: somebody says so.
      return {
        done: false,
        words: `${many(facts.rooms, "room")}, ${many(facts.racks, "rack")} as drawn up`,
      };
    case "squads":
      return { done: facts.squads > 0, words: many(facts.squads, "squad") };
    case "athletes":
      return { done: facts.athletes > 0, words: many(facts.athletes, "athlete") };
    case "maxes":
      return {
        done: facts.athletes > 0 && facts.withMax === facts.athletes,
        words: `${facts.withMax} of ${facts.athletes} have a working max`,
      };
    case "plan":
      return {
        done: facts.published > 0,
        words:
          facts.published > 0
            ? many(facts.published, "published plan")
            : facts.plans > 0
              ? `${many(facts.plans, "plan")}, not published yet`
              : "none",
      };
    case "tablets":
      return { done: facts.tablets > 0, words: many(facts.tablets, "tablet") };
  }
}

export function firstHourStates(facts: FirstHourFacts): FirstHourState[] {
  return FIRST_HOUR_STEPS.map((step) => {
    const aside = facts.hour.aside?.includes(step) ?? false;
    const state = stateOf(step, facts);
    return { step, aside: aside && !state.done, ...state };
  });
}

/**
 * Steps that are left; undefined once the first hour is over. It ends by itself when nothing is
 * left, and does not come back when a tablet is taken off later.
 */
export async function firstHourLeft(tx: TeamTransaction): Promise<number | undefined> {
  if ((await firstHourOf(tx)).over) return undefined;
  const states = firstHourStates(await firstHourFacts(tx));
  const left = states.filter((one) => !one.done && !one.aside).length;
  if (left > 0) return left;
  await endFirstHour(tx);
  return undefined;
}
