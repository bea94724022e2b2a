import { percentOf } from "../../recipe/recipe";
import { plainNumber } from "../../units/mass";
import type { CheckedAthlete } from "../input";
import { names, type Rule } from "../rule";

/** More than an instruction allows somebody. */
export const cap: Rule = {
  code: "cap",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ slot, name, lift, weeks }, { heaviest }, { athletes }) => {
    const asked = Math.max(
      0,
      ...weeks.flatMap(({ own }) => own.sets.map((set) => percentOf(set) ?? 0)),
    );
    // What it comes to for somebody, with bands and by every basis, counts as much as what is asked.
    const reached = (one: CheckedAthlete) =>
      Math.max(asked, heaviest[slot.id]?.[one.id]?.percent ?? 0);
    const capped = athletes.filter((one) =>
      one.caps.some((cap) => cap.lift === lift?.lift && reached(one) > cap.percent),
    );
    const most = Math.max(asked, ...capped.map(reached));
    return capped.length === 0
      ? undefined
      : {
          of: capped,
          text: `${name} reaches ${plainNumber(most, 0)} %: over the instruction of ${names(capped)}.`,
        };
  },
};
