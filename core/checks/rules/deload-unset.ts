import type { Rule } from "../rule";

/** Deload weeks whose factors no coach has set. */
export const deloadUnset: Rule = {
  code: "deload-unset",
  of: "block",
  level: "warning",
  from: "Coach-set values",
  find: ({ slots }, { settings }) => {
    if (settings.deloadLoad !== undefined && settings.deloadSets !== undefined) return undefined;
    const weeks = slots.flatMap((at) =>
      at.weeks.filter(({ own }) => own.kind === "deload").map(({ week }) => week),
    );
    const all = [...new Set(weeks)].sort((a, b) => a - b);
    return all.length === 0
      ? undefined
      : {
          text: `The deload's factors are not set: week ${all.join(", ")} has no loads. Set them once under Coach-set values.`,
        };
  },
};
