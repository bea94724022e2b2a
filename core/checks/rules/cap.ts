import { percentOf } from "../../recipe/recipe";
import { names, type Rule } from "../rule";

/** More than an instruction allows somebody. */
export const cap: Rule = {
  code: "cap",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ name, lift, weeks }, _, { athletes }) => {
    const most = Math.max(
      0,
      ...weeks.flatMap(({ own }) => own.sets.map((set) => percentOf(set) ?? 0)),
    );
    const capped = athletes.filter((one) =>
      one.caps.some((cap) => cap.lift === lift?.lift && most > cap.percent),
    );
    return capped.length === 0
      ? undefined
      : {
          of: capped,
          text: `${name} reaches ${most} %: over the instruction of ${names(capped)}.`,
        };
  },
};
