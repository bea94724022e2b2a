import { hasOlderSpeeds } from "../../recipe/speeds";
import type { Rule } from "../rule";

/** Floors and wanted speeds that were set under an older way of measuring. */
export const olderSpeeds: Rule = {
  code: "older-speeds",
  of: "slot",
  level: "warning",
  from: "Coach-set values",
  find: ({ slot, name }) =>
    hasOlderSpeeds(slot.recipe)
      ? {
          text: `${name}: older processing. Its floor or wanted speed was set when mean velocity was measured from v = 0; it lies up to 0.1 m/s lower. It raises nothing until its numbers are looked at and kept.`,
        }
      : undefined,
};
