import { fitLine } from "../numeric/regression";
import type { VelocityMetric } from "../units/velocity";

/** The fastest rep at one load of one test. */
export interface ProfilePoint {
  loadKg: number;
  velocityMps: number;
}

export interface LoadVelocityLine {
  ok: true;
  metric: VelocityMetric;
  n: number;
  /** v = interceptMps + slopeMpsPerKg · load; the slope is negative. */
  interceptMps: number;
  slopeMpsPerKg: number;
  /** Velocity at no load, and load at no velocity. */
  v0Mps: number;
  l0Kg: number;
  rSquared: number;
  seeMps: number | undefined;
  lightestKg: number;
  heaviestKg: number;
}

export type LineRefusal = {
  ok: false;
  reason: "one-load" | "not-falling" | "too-few" | "not-finite";
};

/** Fastest rep at each load, in order of load; of equal ones the first. */
export function fastestByLoad<Rep extends ProfilePoint>(reps: readonly Rep[]): Rep[] {
  const ordered = [...reps];
  // Tests are mostly written in order already, and a sort keeps the order of equals.
  if (!inOrder(ordered)) ordered.sort((a, b) => a.loadKg - b.loadKg);
  const best: Rep[] = [];
  for (const rep of ordered) {
    const last = best[best.length - 1];
    if (last === undefined || last.loadKg !== rep.loadKg) best.push(rep);
    else if (rep.velocityMps > last.velocityMps) best[best.length - 1] = rep;
  }
  return best;
}

function inOrder(reps: readonly ProfilePoint[]): boolean {
  for (let i = 1; i < reps.length; i++) {
    if (!((reps[i - 1] as ProfilePoint).loadKg <= (reps[i] as ProfilePoint).loadKg)) return false;
  }
  return true;
}

/**
 * Least-squares load–velocity line of one session, one metric. Refuses one load, and a line that
 * does not fall.
 */
export function loadVelocityLine(
  reps: readonly ProfilePoint[],
  metric: VelocityMetric,
): LoadVelocityLine | LineRefusal {
  const points = fastestByLoad(reps);
  return lineOfFit(fitPoints(points), metric, points.length);
}

/** The fit through points that hold one rep a load. */
export const fitPoints = (points: readonly ProfilePoint[]) =>
  fitLine(points.map((point) => ({ x: point.loadKg, y: point.velocityMps })));

/** A fit of speeds over loads as a line, where it can be one. */
export function lineOfFit(
  fit: ReturnType<typeof fitLine>,
  metric: VelocityMetric,
  points: number,
): LoadVelocityLine | LineRefusal {
  if (!fit.ok) {
    if (fit.reason === "one-x") return { ok: false, reason: "one-load" };
    if (fit.reason === "not-finite") return { ok: false, reason: "not-finite" };
    return { ok: false, reason: points === 1 ? "one-load" : "too-few" };
  }
  if (fit.slope >= 0) return { ok: false, reason: "not-falling" };
  return {
    ok: true,
    metric,
    n: fit.n,
    interceptMps: fit.intercept,
    slopeMpsPerKg: fit.slope,
    v0Mps: fit.intercept,
    l0Kg: -fit.intercept / fit.slope,
    rSquared: fit.rSquared,
    seeMps: fit.see,
    lightestKg: fit.minX,
    heaviestKg: fit.maxX,
  };
}

export function velocityAt(line: LoadVelocityLine, loadKg: number): number {
  return line.interceptMps + line.slopeMpsPerKg * loadKg;
}

export function loadAt(line: LoadVelocityLine, velocityMps: number): number {
  return (velocityMps - line.interceptMps) / line.slopeMpsPerKg;
}
