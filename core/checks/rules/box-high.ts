import { isHighBox } from "../../boxsquat/depth";
import type { BoxSlot } from "../../boxsquat/slot";
import type { Rule } from "../rule";
import { onBox } from "../slots";

/** A main lift on a box over the athlete's own height, or one that asks for less load that way. */
const isHigh = (box: BoxSlot): boolean =>
  isHighBox(box.offsetCm ?? 0) || (box.purpose === "load" && box.role === "main");

/** A high box as the main squat. */
export const boxHigh: Rule = {
  code: "box-high",
  of: "slot",
  level: "note",
  from: "the school",
  find: (at) =>
    onBox(at) && at.slot.box && isHigh(at.slot.box)
      ? {
          text: `${at.name}: the same work with less load wants full-depth squats beside it; the depth ledger counts them.`,
        }
      : undefined,
};
