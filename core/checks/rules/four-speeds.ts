import type { Rule } from "../rule";

const FOUR = ["absolute-strength", "strength-speed", "speed-strength", "absolute-speed"];

/** A four-speed session that leaves one of the four out. */
export const fourSpeeds: Rule = {
  code: "four-speeds",
  of: "day",
  level: "warning",
  from: "the school",
  find: ({ name, slots }, { block }) => {
    if (block.template !== "four-speed" || slots.length === 0) return undefined;
    const trained = new Set<string | undefined>(slots.map((one) => one.work?.speedClass));
    const left = FOUR.filter((one) => !trained.has(one));
    return left.length === 0
      ? undefined
      : {
          text: `${name} is a four-speed session without ${left.map((one) => one.replace("-", " ")).join(", ")}.`,
        };
  },
};
