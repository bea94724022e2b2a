import { names, type Rule, refusedFor } from "../rule";
import { onBox } from "../slots";

/** Relax and fire on the box. */
export const boxRelax: Rule = {
  code: "box-relax",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: (at, input) => {
    if (!onBox(at) || at.slot.box?.contact !== "relax") return undefined;
    const refused = refusedFor(input.athletes, "relax", at.lift?.lift);
    return {
      ...(refused.length > 0 ? { of: refused } : {}),
      text:
        refused.length > 0
          ? `${at.name}: relax and fire is refused for ${names(refused)}.`
          : `${at.name}: relax and fire is off by default. Only the hips let go, the trunk stays braced.`,
    };
  },
};
