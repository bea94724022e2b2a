import { type Mass, massKg } from "../units/mass";
import type { PlateStock } from "./loading-gear";

/** The largest rim on a loaded bar: what a camera at the rack's side sees of it. */
export interface RimOnBar {
  diameterMm: number;
  /** False where a plate on the bar has no diameter in Gear: a larger one may stand there. */
  sure: boolean;
}

/**
 * @param side plates on one side
 * @param stock what stands at the rack, with diameters in mm where they were entered
 * @returns undefined where no plate on the bar has a diameter
 */
export function rimOnBar(
  side: readonly Mass[],
  stock: readonly PlateStock[],
): RimOnBar | undefined {
  const known = side.map(
    (mass) => stock.find((one) => Math.abs(massKg(one.mass) - massKg(mass)) < 1e-6)?.diameterMm,
  );
  const diameters = known.filter((one) => one !== undefined);
  if (diameters.length === 0) return undefined;
  return { diameterMm: Math.max(...diameters), sure: diameters.length === known.length };
}
