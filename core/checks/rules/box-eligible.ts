import { eligibility, OLDER_ON_BOX_WORDS, styleById } from "../../boxsquat/styles";
import type { CheckedAthlete } from "../input";
import { names, type Rule } from "../rule";
import { onBox } from "../slots";

/**
 * Who may not do the slot's style, or as an accessory only: the same judgement as on the box card,
 * looked at when planning, publishing and starting.
 */
export const boxEligible: Rule = {
  code: "box-eligible",
  of: "slot",
  level: "refused",
  from: "the school",
  find: (at, { school }, { athletes }) => {
    const style = styleById(at.slot.box?.styleId);
    const { box } = at.slot;
    // Rocking and relaxing have refusals of their own.
    if (!onBox(at) || !box || !style || style.rocks) return undefined;
    const judged = athletes.flatMap((athlete) =>
      athlete.box === undefined || athlete.box.setAside
        ? []
        : [
            {
              athlete,
              ...eligibility({
                style,
                contact: box.contact === "relax" ? style.contact : box.contact,
                athlete: athlete.box.facts,
                refusals: [],
                beginners: school.box,
                rockingAllowed: false,
                relaxAllowed: true,
              }),
            },
          ],
    );
    const byReason = new Map<string, { refused: boolean; of: CheckedAthlete[] }>();
    for (const one of judged) {
      if (one.verdict === "allowed" || (one.verdict === "accessory" && box.role !== "main"))
        continue;
      // Ages are not for everybody who reads a plan.
      const reasons = one.reasons.map((text) =>
        text === OLDER_ON_BOX_WORDS ? "Sat back or a light touch only." : text,
      );
      const words = [...reasons, one.instead].filter((text) => text !== undefined).join(" ");
      const found = byReason.get(words) ?? { refused: one.verdict === "refused", of: [] };
      found.of.push(one.athlete);
      byReason.set(words, found);
    }
    return [...byReason].map(([words, { refused, of }], i) => ({
      part: String(i + 1),
      level: refused ? ("refused" as const) : ("warning" as const),
      of,
      text: refused
        ? `${at.name}: ${style.name.toLowerCase()} is refused for ${names(of)}. ${words}`
        : `${at.name}: ${style.name.toLowerCase()} is no main lift for ${names(of)}. ${words}`,
    }));
  },
};
