import { analyseProfile, type ProfileResult } from "../../../core/profile/analysis";
import type { DatedProfile } from "../../../core/profile/compare";
import { type ForcePower, forcePower } from "../../../core/profile/power";
import { type Threshold, velocityThreshold } from "../../../core/profile/threshold";
import { massKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { say, written } from "../../../core/units/written";
import { isOlder } from "../../../core/velocity/processing";
import type { singlesOf, VariantRow } from "../../../db/queries/maxes.server";
import type { StoredProfileTest } from "../../../db/queries/profiles.server";

type Singles = Awaited<ReturnType<typeof singlesOf>>;

/** The threshold of a variant for an athlete and metric. */
export function thresholdOf(
  variant: VariantRow,
  metric: "MCV" | "MPV" | "PV",
  singles: Singles,
): Threshold | undefined {
  return velocityThreshold({
    lift: variant.lift,
    metric,
    teamMps:
      metric === "MCV" && !isOlder(variant.thresholdProcessing)
        ? (variant.thresholdMps ?? undefined)
        : undefined,
    singles: singles
      .filter((one) => one.variantId === variant.id)
      .map((one) => ({
        loadKg: massKg(one.load),
        velocityMps: one.velocityMps,
        metric: one.metric,
        date: one.date,
      })),
  });
}

export interface AnalysedTest {
  id: string;
  date: LocalDate;
  metric: "MCV" | "MPV" | "PV";
  source: string;
  enteredBy: string;
  note: string;
  addedKg: number;
  reps: StoredProfileTest["reps"];
  threshold: Threshold | undefined;
  result: ProfileResult;
  power: ForcePower | undefined;
}

/** A test as it is compared with another of its lift; undefined where it has no line. */
export function datedProfile(test: AnalysedTest, variantId: string): DatedProfile | undefined {
  const { date, metric, source, result } = test;
  return result.ok ? { testedOn: date, variantId, metric, source, analysis: result } : undefined;
}

/** A stored test with everything computed from it. */
export function analyseTest(
  test: StoredProfileTest,
  variant: VariantRow,
  singles: Singles,
): AnalysedTest {
  const threshold = thresholdOf(variant, test.metric, singles);
  const result: ProfileResult = isOlder(test.processing)
    ? { ok: false, reason: "older-processing" }
    : analyseProfile({ reps: test.reps, metric: test.metric, threshold });
  return {
    id: test.id,
    date: test.date,
    metric: test.metric,
    source: test.source,
    enteredBy: test.enteredBy,
    note: test.note,
    addedKg: test.addedKg,
    reps: test.reps,
    threshold,
    result,
    power: result.ok
      ? forcePower({
          used: result.used,
          line: result.line,
          addedKg: test.addedKg,
          oneRmKg: result.oneRepMax?.kg,
          systemName:
            test.addedKg === 0 ? "bar only" : say`bar and ${written(test.addedKg, 1)} of the body`,
        })
      : undefined,
  };
}
