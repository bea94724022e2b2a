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
    const instead = "Instead: sit and stay tight.";
    if (refused.length > 0) {
      return {
        of: refused,
        text: `${at.name}: relax and fire is refused for ${names(refused)}. ${instead}`,
      };
    }
    return input.school.relaxAndFire
      ? undefined
      : {
          text: `${at.name}: relax and fire is off in this school. Only the hips would let go, the trunk stays braced. ${instead}`,
        };
  },
};
