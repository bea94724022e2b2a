import type { Rule } from "../rule";

/** A variation that was used in a wave just before. */
export const reuse: Rule = {
  code: "reuse",
  of: "block",
  level: "note",
  from: "the school",
  find: ({ slots }, { school, before }) => {
    const recent = before.slice(0, school.reuseGapWaves);
    return [...new Set(slots.flatMap(({ work }) => work?.variation ?? []))].flatMap((variation) => {
      const ago = recent.findIndex((wave) => wave.includes(variation));
      return ago < 0
        ? []
        : [
            {
              part: variation,
              text: `${variation} was used ${ago === 0 ? "in the wave before" : `${ago + 1} waves ago`}; another variation for ${school.reuseGapWaves} waves.`,
            },
          ];
    });
  },
};
