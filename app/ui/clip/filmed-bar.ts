import type { RimOnBar } from "../../../core/barload/plate-rim";
import type { OwnWay } from "../../../core/resistance/heights";
import { PLATE_DIAMETER_M } from "../../../core/track/heights";

/** What is known of the bar that is filmed: its plates by Gear, and its way by the lifter's heights. */
export interface FilmedBar {
  rim: RimOnBar | undefined;
  way: OwnWay | undefined;
}

/** What stands in the field before anybody types, cm. */
export const plateAcrossCm = (bar: FilmedBar | undefined): number =>
  bar?.rim ? bar.rim.diameterMm / 10 : 100 * PLATE_DIAMETER_M;

/** Where that figure is from: every speed hangs on it. */
export function plateWords(bar: FilmedBar | undefined): string {
  if (!bar) return "the largest plate on the bar";
  if (!bar.rim) return "assumed: Gear has no size of the plates on this bar";
  return bar.rim.sure
    ? "the largest on this bar, from Gear"
    : "from Gear, which lacks the size of another plate on this bar";
}
