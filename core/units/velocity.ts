import { NO_NUMBER } from "./mass";

/**
 * What a velocity is of. MCV: displacement over time of the whole concentric. MPV: the mean up
 * to the end of the propulsive phase. PV: the peak. Different metrics are never mixed.
 */
export type VelocityMetric = "MCV" | "MPV" | "PV";

/** Where a velocity came from; kept with every stored value. */
export type VelocitySource = "sensor" | "simulated" | "typed" | "eye" | "video";

/** Acceleration of gravity that force and power are worked out with, m/s². */
export const GRAVITY = 9.81;

/** Two decimals shown, three kept. */
export function formatVelocity(mps: number): string {
  return Number.isFinite(mps) ? mps.toFixed(2) : NO_NUMBER;
}

/** Two speeds that are compared: a third decimal where two would hide the difference. */
export function formatAgainst(a: number, b: number): [string, string] {
  const decimals = formatVelocity(a) === formatVelocity(b) && a !== b ? 3 : 2;
  return decimals === 2
    ? [formatVelocity(a), formatVelocity(b)]
    : [a.toFixed(decimals), b.toFixed(decimals)];
}

export function keepVelocity(mps: number): number {
  return Math.round(mps * 1000) / 1000;
}
