import { GRAVITY } from "../units/velocity";
import { EDGE_MPS, type MeasuredRep } from "./stream";

/**
 * Share of body mass that rises with the bar in squats and jumps: all but the shanks and feet
 * (docs/sources.md).
 */
export const BODY_MASS_SHARE = 0.88;

/** Nobody weighs more, kg. */
const MOST_BODY_KG = 1000;

/** What counts as moved: the bar alone, or the bar and 0.88 of the body. */
export const SYSTEM_MASSES = ["bar", "bar-and-body"] as const;
export type SystemMass = (typeof SYSTEM_MASSES)[number];

export const SYSTEM_MASS_NAMES: Record<SystemMass, string> = {
  bar: "bar only",
  "bar-and-body": "bar and 0.88 of body mass",
};

/** Mass that moves besides the bar, kg; undefined where the body mass is needed and unknown. */
export function addedMassKg(
  system: SystemMass,
  bodyMassKg: number | undefined,
): number | undefined {
  if (system === "bar") return 0;
  return bodyMassKg !== undefined && bodyMassKg > 0 && bodyMassKg < MOST_BODY_KG
    ? BODY_MASS_SHARE * bodyMassKg
    : undefined;
}

export interface RepForce {
  /** Mean over the propulsive phase. */
  forceN: number;
  powerW: number;
}

/**
 * Mean propulsive force and power of a measured rep.
 *
 * Force by momentum, F = m (g + (v_end − v_start) ÷ t); power by work and energy,
 * P = m (g·h + ½ (v_end² − v_start²)) ÷ t, over the propulsive phase, which starts at 0.05 m/s. Both are exact means
 * of m(a + g) and of F·v over time; no second derivative of a noisy signal is needed.
 * @param systemKg bar and whatever rises with it, over 0
 */
export function repForce(
  rep: Pick<MeasuredRep, "propulsiveS" | "propulsiveM" | "propulsiveEndMps">,
  systemKg: number,
): RepForce | undefined {
  const { propulsiveS: t, propulsiveM: h, propulsiveEndMps: v } = rep;
  if (!(t > 0) || !(systemKg > 0)) return undefined;
  const found = {
    forceN: systemKg * (GRAVITY + (v - EDGE_MPS) / t),
    powerW: (systemKg * (GRAVITY * h + (v * v - EDGE_MPS * EDGE_MPS) / 2)) / t,
  };
  return Number.isFinite(found.forceN) && Number.isFinite(found.powerW) ? found : undefined;
}
