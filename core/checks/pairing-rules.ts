import { checkComplex } from "../contrast/complex-checks";
import { SECTION_NAMES, slotsOf, TEMPLATE_ORDER } from "../plan/block";
import type { CheckInput, PlanCheck } from "./input";

/** The pairings of a block's days: each complex's own checks, by the athletes who are in it. */
export function pairingRules(input: CheckInput): PlanCheck[] {
  const { block } = input;
  const order = TEMPLATE_ORDER[block.template];
  const powerFirst = order.indexOf("power") < order.indexOf("main");
  const found: PlanCheck[] = [];
  for (const [id, pairing] of Object.entries(block.pairings ?? {})) {
    const day = block.days[pairing.dayId]?.name ?? "";
    const complex = input.complexOf(pairing.complexId);
    if (!complex) {
      found.push({
        key: `pairing-gone/${id}`,
        code: "pairing-gone",
        level: "warning",
        text: `${day}: its complex is not in the library any more. Take it off, or choose another.`,
        from: "Arithmetic",
      });
      continue;
    }
    const where = `${day}, ${complex.name}`;
    for (const check of checkComplex(complex, input.athletes, powerFirst, input.complexSettings))
      found.push({
        key: `pairing-${check.code}/${id}`,
        code: `pairing-${check.code}`,
        level: check.level,
        text: `${where}: ${check.text}`,
        from: "Contrast pairings",
      });
    const heavy = slotsOf(block, pairing.dayId).find(
      (slot) => slot.section === "main" && slot.recipe.aim === "strength",
    );
    if (heavy && !powerFirst)
      found.push({
        key: `pairing-after-heavy/${id}`,
        code: "pairing-after-heavy",
        level: "note",
        text: `${where}: this template puts ${SECTION_NAMES.main.toLowerCase()} before it, so the pairing is done tired. Its output says whether it still pays.`,
        from: input.school.name,
      });
  }
  return found;
}
