import { plainNumber } from "../units/mass";
import { formatVelocity, GRAVITY } from "../units/velocity";
import type { Working } from "../units/working";
import { say, type Text, written } from "../units/written";
import type { ProfileRep } from "./analysis";
import { type LoadVelocityLine, velocityAt } from "./line";

/** Power by the line at a load, W: (load + c)·g·v, an estimate. */
export function estimatedPowerW(line: LoadVelocityLine, addedKg: number, loadKg: number): number {
  return (loadKg + addedKg) * GRAVITY * velocityAt(line, loadKg);
}

export interface LoadedFigure {
  loadKg: number;
  velocityMps: number;
  value: number;
}

export interface Peak extends LoadedFigure {
  /** Still rising at the heaviest tested load: a lower bound only; the next test goes heavier. */
  reached: boolean;
  measured: boolean;
  /** Of the 1RM that the same test gives, %; undefined where it gives none. */
  percentOfMax: number | undefined;
  /** From the peak to the heaviest tested load, % of the peak; undefined where not reached. */
  fallAfterPercent: number | undefined;
  working: Working;
}

export interface ForcePower {
  /** Per tested load: the fastest rep's force and power, measured or estimated. */
  points: Array<{
    loadKg: number;
    velocityMps: number;
    forceN: number | undefined;
    powerW: number;
    powerMeasured: boolean;
  }>;
  peakPower: Peak;
  /** Mean propulsive, at a tested point; undefined where no force was measured. */
  peakForce: Peak | undefined;
  /** Mass moved besides the bar, kg. */
  addedKg: number;
}

/**
 * Force and power over load. Measured points where stream or device gives them; else
 * P ≈ (bar + c)·g·v along the line, which peaks at (L0 − c)/2, labelled an estimate.
 *
 * Force is never estimated from a mean velocity: over a whole concentric the mean force is the
 * weight, so only measured force has a peak.
 * @param used fastest rep a load, ascending by load
 * @param addedKg 0, or 0.88 × body mass
 * @param oneRmKg 1RM by the same line, for the peaks' share of it
 */
export function forcePower(input: {
  used: readonly ProfileRep[];
  line: LoadVelocityLine;
  addedKg: number;
  systemName: Text;
  oneRmKg?: number | undefined;
}): ForcePower {
  const { used, line, addedKg } = input;
  const oneRmKg = input.oneRmKg !== undefined && input.oneRmKg > 0 ? input.oneRmKg : undefined;
  const points = used.map((rep) => ({
    loadKg: rep.loadKg,
    velocityMps: rep.velocityMps,
    forceN: rep.forceN,
    powerW: rep.powerW ?? (rep.loadKg + addedKg) * GRAVITY * rep.velocityMps,
    powerMeasured: rep.powerW !== undefined,
  }));
  const allPower = points.every((point) => point.powerMeasured);
  const forces = points.flatMap(({ loadKg, velocityMps, forceN }) =>
    forceN === undefined ? [] : [{ loadKg, velocityMps, value: forceN }],
  );
  return {
    points,
    addedKg,
    peakPower: allPower
      ? peakOf(
          points.map(({ loadKg, velocityMps, powerW }) => ({ loadKg, velocityMps, value: powerW })),
          { title: "Peak power", unit: "W", system: input.systemName, oneRmKg },
        )
      : estimatedPeak(line, addedKg, input.systemName, oneRmKg),
    peakForce:
      forces.length === points.length && forces.length > 1
        ? peakOf(forces, { title: "Peak force", unit: "N", system: input.systemName, oneRmKg })
        : undefined,
  };
}

function peakOf(
  points: readonly LoadedFigure[],
  name: { title: string; unit: string; system: Text; oneRmKg: number | undefined },
): Peak {
  const best = points.reduce((a, b) => (b.value > a.value ? b : a));
  const heaviest = points[points.length - 1] as LoadedFigure;
  const reached = best !== heaviest;
  const percentOfMax = name.oneRmKg && (100 * best.loadKg) / name.oneRmKg;
  const fallAfterPercent =
    reached && best.value > 0 ? 100 * (1 - heaviest.value / best.value) : undefined;
  return {
    ...best,
    reached,
    measured: true,
    percentOfMax,
    fallAfterPercent,
    working: {
      title: name.title,
      lines: [
        ...points.map((point) => ({
          label: say`${written(point.loadKg)} at ${formatVelocity(point.velocityMps)} m/s`,
          value: `${plainNumber(point.value, 0)} ${name.unit}`,
        })),
        { label: "System mass", value: name.system },
        {
          label: reached ? "Greatest at" : "Not reached: at least, at",
          value: say`${written(best.loadKg)}, ${formatVelocity(best.velocityMps)} m/s`,
          detail: reached
            ? undefined
            : "The last step is the greatest. The next test goes heavier.",
          emphasis: "answer",
        },
        ...shareLine(percentOfMax, name.oneRmKg),
        ...(fallAfterPercent === undefined
          ? []
          : [
              {
                label: say`From there to ${written(heaviest.loadKg)}`,
                value: `−${plainNumber(fallAfterPercent, 1)} %`,
                detail: "how fast it falls after its peak",
              },
            ]),
      ],
      sources: ["Mean over the propulsive phase, measured"],
      changes: ["A heavier or a lighter tested load."],
    },
  };
}

const shareLine = (percent: number | undefined, oneRmKg: number | undefined) =>
  percent === undefined || oneRmKg === undefined
    ? []
    : [
        {
          label: "Of the 1RM by this line",
          value: `${plainNumber(percent, 0)} %`,
          detail: written(oneRmKg, 1),
        },
      ];

function estimatedPeak(
  line: LoadVelocityLine,
  addedKg: number,
  system: Text,
  oneRmKg: number | undefined,
): Peak {
  const loadKg = Math.max(0, (line.l0Kg - addedKg) / 2);
  const velocityMps = velocityAt(line, loadKg);
  const value = estimatedPowerW(line, addedKg, loadKg);
  const percentOfMax = oneRmKg && (100 * loadKg) / oneRmKg;
  return {
    loadKg,
    velocityMps,
    value,
    reached: true,
    measured: false,
    percentOfMax,
    fallAfterPercent: undefined,
    working: {
      title: "Peak power, estimated",
      lines: [
        { label: "L0", value: written(line.l0Kg, 1) },
        { label: "Mass besides the bar (c)", value: written(addedKg, 1), detail: system },
        {
          label: "(L0 − c) ÷ 2",
          value: written(loadKg, 1),
          detail: `${formatVelocity(velocityMps)} m/s`,
          emphasis: "answer",
        },
        { label: "(bar + c)·g·v", value: `${plainNumber(value, 0)} W`, detail: "an estimate" },
        ...shareLine(percentOfMax, oneRmKg),
      ],
      sources: ["Vertex of (load + c)·g·(V0 + slope·load)"],
      changes: ["A test with measured force and power."],
    },
  };
}
