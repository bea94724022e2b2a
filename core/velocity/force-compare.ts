import { plainNumber } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";

/** A rep as its stream gave it: mean propulsive force and power, mean concentric speed. */
export interface DrivenRep {
  loadKg: number;
  forceN: number;
  powerW: number;
  velocityMps: number;
}

export interface ForceComparison {
  /** Time from the bottom to the top, s. */
  lightS: number;
  heavyS: number;
  /** The light rep's mean force, power and time, of the heavy one's, %. */
  forceShare: number;
  powerShare: number;
  timeShare: number;
  working: Working;
}

const isDriven = ({ loadKg, forceN, powerW, velocityMps }: DrivenRep) =>
  loadKg >= 0.5 &&
  loadKg < 2000 &&
  forceN >= 1 &&
  forceN < 50_000 &&
  powerW >= 1 &&
  powerW < 50_000 &&
  velocityMps >= 0.02 &&
  velocityMps < 12;

/**
 * A fast light rep beside a slow heavy one, both from measured streams: mean force and power as the
 * streams have them (`repForce`), the time under them as range ÷ mean speed. It shows how far speed
 * makes up for load; what either trains is not in it.
 * @param rangeM of the bar, 0.05 to 2.5 m
 * @returns undefined for a rep or a range that is none
 */
export function compareForces(input: {
  light: DrivenRep;
  heavy: DrivenRep;
  rangeM: number;
}): ForceComparison | undefined {
  const { light, heavy, rangeM } = input;
  if (!isDriven(light) || !isDriven(heavy) || !(rangeM >= 0.05 && rangeM <= 2.5)) return undefined;
  const [lightS, heavyS] = [rangeM / light.velocityMps, rangeM / heavy.velocityMps];
  const share = (a: number, b: number) => (100 * a) / b;
  const forceShare = share(light.forceN, heavy.forceN);
  const powerShare = share(light.powerW, heavy.powerW);
  const timeShare = share(lightS, heavyS);
  const line = (name: string, rep: DrivenRep, s: number) => ({
    label: say`${name}, ${written(rep.loadKg)}`,
    value: `${plainNumber(rep.forceN, 0)} N`,
    detail: `${plainNumber(rep.powerW, 0)} W, ${formatVelocity(rep.velocityMps)} m/s, for ${plainNumber(s, 2)} s`,
  });
  return {
    lightS,
    heavyS,
    forceShare,
    powerShare,
    timeShare,
    working: {
      title: "Force of two reps",
      lines: [
        line("Light and fast", light, lightS),
        line("Heavy and slow", heavy, heavyS),
        {
          label: "Mean force of the light one",
          value: `${plainNumber(forceShare, 0)} %`,
          detail: `of the heavy one's; power ${plainNumber(powerShare, 0)} %, time ${plainNumber(timeShare, 0)} %`,
          emphasis: "answer",
        },
      ],
      sources: ["F = m (g + Δv ÷ t) over the propulsive phase: docs/sources.md, force and power"],
      changes: ["Another system mass: the bar alone, or with 0.88 of the body."],
    },
  };
}
