import type { Rule } from "../rule";
import { speedSlot } from "../slots";

/** Speed work under a school that has none. */
export const noSpeedWork: Rule = {
  code: "no-speed-work",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot, name }, { school }) =>
    speedSlot(slot) && school.speedWork === "none"
      ? { text: `${name} is speed work, which this school leaves out.` }
      : undefined,
};
