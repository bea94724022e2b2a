import type { Rule } from "../rule";
import { speedSlot } from "../slots";

/** A loss over this is not speed work any more, %. */
export const SPEED_LOSS_MOST = 20;

/** A loss that speed work does not go to. */
export const lossForSpeed: Rule = {
  code: "loss-for-speed",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name }, { school }) => {
    const { recipe } = slot;
    const { lossPercent } = recipe.stop;
    return speedSlot(slot) && lossPercent !== undefined && lossPercent > SPEED_LOSS_MOST
      ? {
          text: `${name}: a loss of ${lossPercent} % is strength or growth work; speed sets end at ${school.loss[recipe.aim] ?? 10} to ${SPEED_LOSS_MOST} %.`,
        }
      : undefined;
  },
};
