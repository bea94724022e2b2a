import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";
import { say, written } from "../units/written";

export type ShareOf = "lockout" | "max";

export type ShareAnswer =
  | {
      ok: true;
      /** What bands or chains must pull at lockout, both sides, kg. */
      pullKg: number;
      perSideKg: number;
      /** The bar with its plates, kg. */
      barKg: number;
      working: Working;
    }
  | { ok: false; reason: "no-load" | "no-share" | "over-total" };

/**
 * Kilograms that bands or chains must add at lockout for a wanted share, before any piece is chosen:
 * a share of what is felt at lockout (bar and resistance), or of the working max beside it.
 * @param totalKg wanted at lockout, bar and resistance
 * @param maxKg working max; asked for where the share is of it
 */
export function resistanceForShare(input: {
  totalKg: number;
  sharePercent: number;
  of: ShareOf;
  maxKg?: number | undefined;
}): ShareAnswer {
  const { totalKg, sharePercent, of, maxKg } = input;
  const base = of === "max" ? maxKg : totalKg;
  if (!(totalKg > 0 && totalKg < 2000) || !(base !== undefined && base > 0 && base < 2000))
    return { ok: false, reason: "no-load" };
  if (!(sharePercent > 0 && sharePercent < 100)) return { ok: false, reason: "no-share" };
  const pullKg = (base * sharePercent) / 100;
  if (pullKg >= totalKg) return { ok: false, reason: "over-total" };
  const barKg = totalKg - pullKg;
  return {
    ok: true,
    pullKg,
    perSideKg: pullKg / 2,
    barKg,
    working: {
      title: "Resistance for a share",
      lines: [
        { label: "At lockout in all", value: say`${written(totalKg)}` },
        {
          label: `${plainNumber(sharePercent, 1)} % of ${of === "max" ? "the working max" : "that"}`,
          value: say`${written(pullKg)}`,
          detail: say`${written(pullKg / 2)} a side, at lockout`,
          emphasis: "answer",
        },
        { label: "Left for bar and plates", value: say`${written(barKg)}` },
      ],
      sources: ["Share at lockout: bands or chains ÷ all that is felt there"],
      changes: ["Another share, another total. The bottom is lighter by what the band gives back."],
    },
  };
}
