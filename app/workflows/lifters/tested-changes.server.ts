import {
  type Change,
  changeBetween,
  smallestWorthwhileChange,
  TYPED_FREEDOM,
  testValue,
  typicalError,
} from "../../../core/numeric/change";
import type { LocalDate } from "../../../core/units/time";
import {
  type PhysicalResult,
  type PhysicalTest,
  physicalResults,
  physicalTests,
} from "../../../db/queries/physical.server";
import type { TeamTransaction } from "../../../db/team.server";

export interface TestedQuality {
  key: string;
  testName: string;
  side: string;
  approach: boolean;
  loadKg: number;
  unit: string;
  decimals: number;
  results: Array<{
    id: string;
    date: LocalDate;
    trials: number[];
    splits: number[];
    value: number;
    atLeast: boolean;
    by: string;
  }>;
  testId: string;
  /** The two that are compared, where a day parts them. */
  before: TestedQuality["results"][number] | undefined;
  after: TestedQuality["results"][number] | undefined;
  /** Whose typical error it is. */
  errorOf: "typed" | "own" | "team";
  /** Between the last two; undefined with one, or with no repeat trials in the team. */
  change: Change | undefined;
  /** Why there is none. */
  without: string | undefined;
  /** The team's own noise or spread is not known yet: a typed or published one would do. */
  wantsNoise: boolean;
  /** The smallest change that counts, in the test's unit; undefined with one athlete. */
  worthwhile: number | undefined;
  higherIsBetter: boolean;
  /** A mean of several trials errs less than one of them. */
  take: PhysicalTest["take"];
}

/** Trials are compared with their like: the same test, side, approach and load. */
function likeKey(result: PhysicalResult): string {
  return `${result.testId}/${result.side}/${result.approach}/${result.loadKg}`;
}

const DECIMALS = { cm: 1, m: 2, s: 2 } as const;

/** An athlete's jumps, throws and sprints, with the last change judged by the team's own error. */
export async function readChanges(
  tx: TeamTransaction,
  athleteId: string,
): Promise<{ tests: PhysicalTest[]; qualities: TestedQuality[] }> {
  const tests = await physicalTests(tx);
  const all = await physicalResults(tx);
  return { tests, qualities: testedQualities({ tests, all, athleteId }) };
}

/** An athlete's own error is taken from so many pairs of repeat trials on. */
const OWN_FREEDOM = 6;

/**
 * What an athlete tested, each quality with the change between two results: the last two, or the last
 * one before a day and the newest since. The error is the typed one, else the athlete's own where
 * there are trials enough, else the team's.
 * @param typed errors by test, in the test's unit
 */
export function testedQualities(input: {
  tests: readonly PhysicalTest[];
  all: readonly PhysicalResult[];
  athleteId: string;
  since?: LocalDate;
  typed?: Readonly<Record<string, number>>;
}): TestedQuality[] {
  const { tests, all, athleteId, since } = input;
  const own = new Map<string, PhysicalResult[]>();
  for (const result of all) {
    if (result.athleteId !== athleteId) continue;
    own.set(likeKey(result), [...(own.get(likeKey(result)) ?? []), result]);
  }
  const qualities = [...own].flatMap(([key, results]): TestedQuality[] => {
    const test = tests.find((one) => one.id === results[0]?.testId);
    const first = results[0];
    if (!test || !first) return [];
    const like = all.filter((one) => likeKey(one) === key);
    const decimals = DECIMALS[test.unit];
    const shown = results.map((one) => ({
      id: one.id,
      date: one.date,
      trials: one.trials,
      splits: one.splits,
      value: testValue(one.trials, test.higherIsBetter, test.take) ?? 0,
      atLeast: one.atLeast,
      by: one.enteredBy,
    }));
    const [before, after] =
      since === undefined
        ? shown.slice(-2)
        : [shown.findLast((one) => one.date <= since), shown.findLast((one) => one.date > since)];
    const typed = input.typed?.[test.id];
    const ownError = typicalError(results.map((one) => one.trials));
    const { error, errorOf } =
      typed !== undefined
        ? { error: { value: typed, freedom: TYPED_FREEDOM }, errorOf: "typed" as const }
        : ownError && ownError.freedom >= OWN_FREEDOM
          ? { error: ownError, errorOf: "own" as const }
          : { error: typicalError(like.map((one) => one.trials)), errorOf: "team" as const };
    // The first result of each athlete, and of it the first trial.
    const firstTrials = [
      ...new Map([...like].reverse().map((one) => [one.athleteId, one.trials[0]])).values(),
    ].flatMap((value) => (value === undefined ? [] : [value]));
    const worthwhile = smallestWorthwhileChange(firstTrials);
    const without =
      !before || !after
        ? "A second test day shows a change."
        : before.atLeast || after.atLeast
          ? "A test cut short is a lower bound: no change is computed."
          : !error
            ? "Repeat trials of two athletes are needed for the typical error."
            : worthwhile === undefined
              ? "Two athletes are needed for the smallest worthwhile change."
              : undefined;
    const change =
      before && after && !without && error && worthwhile !== undefined
        ? changeBetween({
            before: before.value,
            after: after.value,
            error,
            worthwhile,
            higherIsBetter: test.higherIsBetter,
            unit: test.unit,
            decimals,
            // A mean of several trials errs less than one of them; the best of several is one.
            ...(test.take === "mean"
              ? { trialsBefore: before.trials.length, trialsAfter: after.trials.length }
              : {}),
          })
        : undefined;
    return [
      {
        key,
        testName: test.name,
        side: first.side,
        approach: first.approach,
        loadKg: first.loadKg,
        unit: test.unit,
        decimals,
        results: shown,
        testId: test.id,
        before: since === undefined ? undefined : before,
        after: since === undefined ? undefined : after,
        errorOf,
        change,
        without,
        wantsNoise:
          before !== undefined &&
          after !== undefined &&
          !before.atLeast &&
          !after.atLeast &&
          without !== undefined,
        worthwhile,
        higherIsBetter: test.higherIsBetter,
        take: test.take,
      },
    ];
  });
  return qualities.sort(
    (a, b) => a.testName.localeCompare(b.testName) || a.side.localeCompare(b.side),
  );
}
