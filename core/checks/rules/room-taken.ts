import { dayTimes, roomClashes, timeOf } from "../../plan/day-clock";
import type { Rule } from "../rule";

/** Another plan that wants the same room at the same time. */
export const roomTaken: Rule = {
  code: "room-taken",
  of: "block",
  level: "warning",
  from: "Arithmetic",
  find: ({ block }, { settings, inRoom }) =>
    roomClashes(dayTimes(block, settings), inRoom).map(({ own, other }) => ({
      part: `${own.dayId}-${other.planId}-${other.dayId}`,
      week: own.week,
      text: `${own.name}, week ${own.week}: the room is wanted from ${timeOf(own.startMin)} to ${timeOf(own.endMin)}, and ${other.plan} has it from ${timeOf(other.startMin)} to ${timeOf(other.endMin)}. Move one of them, or share the racks on purpose.`,
    })),
};
