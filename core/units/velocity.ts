import { NO_NUMBER } from "./mass";

/**
 * What a velocity is of. MCV: displacement over time of the whole concentric. MPV: the mean up
 * to the end of the propulsive phase. PV: the peak. Different metrics are never mixed.
 */
export type VelocityMetric = "MCV" | "MPV" | "PV";

/** Where a velocity came from; kept with every stored value. */
export type VelocitySource = "sensor" | "simulated" | "typed" | "eye" | "video";

/**
 * What speeds may stand beside one another over sets, days and tests: those of devices, read by the
 * program or typed from their screens; a film's only beside a film's; what the eye saw beside nothing.
 */
function sourceKind(source: string): "measured" | "film" | "eye" {
  if (source.includes("video")) return "film";
  return source === "eye" ? "eye" : "measured";
}

export const isFilmed = (source: string): boolean => sourceKind(source) === "film";

export const isMeasured = (source: string): boolean => sourceKind(source) === "measured";

/** Whether speeds of two sources compare: a shift between two kinds would read as a change. */
export const areComparable = (a: string, b: string): boolean =>
  sourceKind(a) === sourceKind(b) && sourceKind(a) !== "eye";

/** Said beside a speed that is not a device's. */
export const filmedWords = ({ filmed }: { filmed: boolean }): string =>
  filmed ? " · from films" : "";

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
