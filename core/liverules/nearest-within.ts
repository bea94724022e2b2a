import { type BarLoading, loadBar, stepFrom } from "../barload/load";
import type { LoadingGear } from "../barload/loading-gear";
import { LARGEST_CHANGE_SHARE } from "../profile/day-form";

/**
 * The total nearest to a move away from a load, but a step back where plates would make it more
 * than the largest change of a day.
 * @param fromKg a load that the gear can build, kg
 * @param byKg the move, kg, no more than that change itself; its sign is the direction
 * @returns undefined where the load stays as it is, or the gear builds neither
 * @example nearestWithin(gear, 80, -7) // { totalKg: 72.5, … } with pairs down to 1.25 kg
 */
export function nearestWithin(
  gear: LoadingGear,
  fromKg: number,
  byKg: number,
): BarLoading | undefined {
  const found = loadBar(gear, fromKg + byKg);
  if (!found.ok) return undefined;
  const most = LARGEST_CHANGE_SHARE * fromKg + 1e-9;
  const held =
    Math.abs(found.totalKg - fromKg) <= most
      ? found
      : byKg < 0
        ? stepFrom(gear, found.totalKg, 1e-6)
        : stepFrom(gear, found.totalKg, -1e-6);
  if (!held) return undefined;
  const moved = held.totalKg - fromKg;
  return byKg < 0 ? (moved < -1e-9 ? held : undefined) : moved > 1e-9 ? held : undefined;
}
