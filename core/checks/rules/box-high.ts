import type { Rule } from "../rule";
import { onBox } from "../slots";

/** A high box as the main squat. */
export const boxHigh: Rule = {
  code: "box-high",
  of: "slot",
  level: "note",
  from: "the school",
  find: (at) =>
    onBox(at) && at.slot.box?.purpose === "load" && at.slot.box.role === "main"
      ? {
          text: `${at.name}: the same work with less load wants full-depth squats beside it; the depth ledger counts them.`,
        }
      : undefined,
};
