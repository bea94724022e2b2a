import { names, type Rule } from "../rule";

/** Bands or chains that the room, the rack or unmeasured bar heights leave out. */
export const resistanceNotHung: Rule = {
  code: "resistance-not-hung",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: ({ slot, name }, { notHung }, { athletes }) =>
    notHung
      .filter((one) => one.slotId === slot.id)
      .map(({ athleteIds, reason }, i) => {
        const whom = athletes.filter((one) => athleteIds.includes(one.id));
        const all = whom.length === athletes.length;
        return {
          part: String(i + 1),
          of: whom,
          text: `${name}: nothing is hung for ${all ? "anybody" : names(whom)}. ${reason}`,
        };
      }),
};
