import { type MassUnit, massKg, readMass } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { keepVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { repForce } from "../../../core/velocity/force";
import { repVelocity } from "../../../core/velocity/stream";
import type { ReadStream } from "../../workers/read-file";

/** What is chosen about a stream: its two columns, and whose test it becomes. */
export interface StreamChoice {
  time: number;
  position: number;
  athleteId: string;
  variantId: string;
  date: LocalDate;
  metric: VelocityMetric;
}

/** The columns of time and position by their titles; the first two where no title says so. */
export function streamColumns(header: readonly string[]): { time: number; position: number } {
  const at = (words: RegExp, otherwise: number) => {
    const found = header.findIndex((title) => words.test(title.toLowerCase()));
    return found < 0 ? otherwise : found;
  };
  return { time: at(/^(t|t_s|time.*)$/, 0), position: at(/pos|height|displ/, 1) };
}

type Rep = ReadStream["sets"][number][number];

/** A set that was found in a stream, with the load that somebody wrote beside it. */
export interface LoadedSet {
  /** Those that counted. */
  reps: Rep[];
  failed: number;
  text: string;
  /** Undefined while nothing that can be a load is written. */
  kg: number | undefined;
}

export function loadedSets(
  sets: ReadStream["sets"],
  loads: Readonly<Record<number, string>>,
  unit: MassUnit,
): LoadedSet[] {
  return sets.map((reps, i) => {
    const counted = reps.filter((rep) => rep.outcome === "counted");
    const text = loads[i] ?? "";
    const load = readMass(text, unit);
    const kg = load.ok && load.mass.amount > 0 ? massKg(load.mass) : undefined;
    return { reps: counted, failed: reps.length - counted.length, text, kg };
  });
}

/** The reps of a test as they are kept; sets without a load are left out. */
export function measuredReps(sets: readonly LoadedSet[], metric: VelocityMetric, addedKg: number) {
  return sets.flatMap(({ reps, kg }) =>
    kg === undefined
      ? []
      : reps.map((rep) => ({
          loadKg: kg,
          velocityMps: keepVelocity(repVelocity(rep, metric)),
          ...repForce(rep, kg + addedKg),
        })),
  );
}
