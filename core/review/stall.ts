import type { EqualSpeed } from "./equal-speed";

/** A stall, or what it lacks. */
export type Stall =
  | { stalls: true; exposures: number; chance: number }
  | {
      stalls: false;
      why: "exposures-not-set" | "too-few-exposures" | "not-likely" | "not-measured";
      exposures: number;
      chance: number | undefined;
    };

/**
 * A stall needs the coach's number of exposures, and a chance as high as the coach asks that the
 * change a wave is under the smallest that counts. Unset exposures call nobody.
 * @param chanceAsked 0–1, usually 0.8
 */
export function stallOf(input: {
  speed: EqualSpeed;
  exposures: number;
  exposuresAsked: number | undefined;
  smallestMps: number;
  chanceAsked: number;
}): Stall {
  const { speed, exposures, exposuresAsked, smallestMps, chanceAsked } = input;
  const chance = speed.ok ? speed.chanceUnder(smallestMps) : undefined;
  const not = (why: Extract<Stall, { stalls: false }>["why"]): Stall => ({
    stalls: false,
    why,
    exposures,
    chance,
  });
  if (exposuresAsked === undefined) return not("exposures-not-set");
  if (exposures < exposuresAsked) return not("too-few-exposures");
  if (chance === undefined) return not("not-measured");
  return chance >= chanceAsked ? { stalls: true, exposures, chance } : not("not-likely");
}
