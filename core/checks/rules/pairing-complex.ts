import { checkComplex } from "../../contrast/complex-checks";
import type { Rule } from "../rule";
import { powerFirst } from "../slots";

/** A complex's own checks, by the athletes who are in it. */
export const pairingComplex: Rule = {
  code: "pairing",
  of: "pairing",
  level: "warning",
  from: "Contrast pairings",
  find: (pairing, input) => {
    const complex = input.complexOf(pairing.complexId);
    if (!complex) return undefined;
    const { block, athletes, complexSettings } = input;
    return checkComplex(complex, athletes, powerFirst(block), complexSettings).map((check) => ({
      part: check.code,
      level: check.level,
      text: `${pairing.dayName}, ${complex.name}: ${check.text}`,
    }));
  },
};
