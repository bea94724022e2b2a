import type { CheckedAthlete } from "../input";
import { names, type Rule } from "../rule";
import { onBox } from "../slots";

/** Seats that cannot be built, that hold less than is planned, or that nobody has rehearsed. */
export const boxSeat: Rule = {
  code: "box-seat",
  of: "slot",
  level: "note",
  from: "Cautions",
  find: (at, { heaviest }, { athletes }) => {
    if (!onBox(at)) return undefined;
    const seated = athletes.filter((one) => one.box !== undefined);
    const kgOf = (one: CheckedAthlete) => heaviest[at.slot.id]?.[one.id]?.kg ?? 0;
    const over = seated.filter((one) => kgOf(one) > (one.box?.seat?.limitKg ?? Infinity));
    const unlimited = seated.filter(
      (one) => one.box?.seat?.substitute !== undefined && one.box.seat.limitKg === undefined,
    );
    const none = seated.filter((one) => one.box?.seat === undefined);
    const raw = seated.filter((one) => one.box?.rehearsed === false);
    const seat = over[0]?.box?.seat;
    return [
      ...(over.length > 0
        ? [
            {
              part: "limit",
              level: "refused" as const,
              of: over,
              text: `${at.name}: ${names(over)} would sit on ${seat?.name ?? "a substitute"} with more than the coach's limit for it. Take a box, another room, or less load.`,
            },
          ]
        : []),
      ...(unlimited.length > 0
        ? [
            {
              part: "unset",
              level: "warning" as const,
              of: unlimited,
              text: `${at.name}: ${names(unlimited)} would sit on a substitute whose load limit is not set. Set it under Gear: nothing is guessed.`,
            },
          ]
        : []),
      ...(none.length > 0
        ? [{ part: "height", of: none, text: `${at.name}: no trial seat yet for ${names(none)}.` }]
        : []),
      ...(raw.length > 0
        ? [
            {
              part: "rehearsal",
              of: raw,
              text: `${at.name}: ${names(raw)} have a set-up that is not rehearsed. Two steps with the empty bar before the first loaded set.`,
            },
          ]
        : []),
    ];
  },
};
