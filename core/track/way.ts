import { median } from "../numeric/statistics";
import type { OwnWay } from "../resistance/heights";
import type { ClipRep } from "./speeds";

/** A film's way may differ by so much of the lifter's own: by a tape, and by stature. */
export const WAY_OFF_MEASURED = 0.15;
export const WAY_OFF_BY_STATURE = 0.4;

/**
 * Whether a film's reps go as far as the lifter's bar does. A wrong size of the plate, or a mark on
 * another ring, makes every way and every speed wrong by the same share; nothing else in a film
 * tells of it.
 *
 * @param plateM the plate's size as it was said, m
 * @returns what differs, with the size of plate that would fit, m; undefined where it fits, or where
 *   there is nothing to compare
 * @example wayThatDiffers(reps, { m: 0.46, measured: true }, 0.23) // { filmedM: 0.22, plateM: 0.48, … }
 */
export function wayThatDiffers(
  reps: readonly ClipRep[],
  own: OwnWay | undefined,
  plateM: number,
): { filmedM: number; own: OwnWay; plateM: number } | undefined {
  const whole = reps.flatMap(({ rep }) =>
    rep.outcome === "counted" && !rep.short ? [rep.rangeM] : [],
  );
  const filmedM = median(whole);
  if (!own || filmedM === undefined || !(own.m > 0) || !(plateM > 0)) return undefined;
  const most = own.measured ? WAY_OFF_MEASURED : WAY_OFF_BY_STATURE;
  if (Math.abs(filmedM / own.m - 1) <= most) return undefined;
  return { filmedM, own, plateM: (plateM * own.m) / filmedM };
}
