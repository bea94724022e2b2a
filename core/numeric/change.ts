import type { Working } from "../units/working";
import { mean, standardDeviation } from "./statistics";
import { studentCdf, studentQuantile } from "./student-t";

/** Share of the between-athlete SD that is the smallest worthwhile change. */
export const WORTHWHILE_SHARE = 0.2;
/** Better and worse both above this chance: unclear. */
export const UNCLEAR_ABOVE = 0.05;
const LEVEL = 0.9;

/** A typed error stands on so many degrees of freedom: as a published one of some thirty athletes. */
export const TYPED_FREEDOM = 30;

export interface TypicalError {
  value: number;
  /** Degrees of freedom: pairs of repeat trials less one, summed over the pairings. */
  freedom: number;
}

/**
 * Typical error from repeat trials: SD of the differences between consecutive trials ÷ √2, pooled
 * over the pairings (1–2, 2–3 …) by their freedom.
 * @param trials one list an athlete, in order; lists shorter than a pairing do not count in it
 */
export function typicalError(trials: ReadonlyArray<readonly number[]>): TypicalError | undefined {
  let sum = 0;
  let freedom = 0;
  const longest = trials.reduce((most, one) => Math.max(most, one.length), 0);
  for (let i = 0; i + 1 < longest; i++) {
    const differences = trials.flatMap((one) =>
      one.length > i + 1 ? [(one[i + 1] as number) - (one[i] as number)] : [],
    );
    const sd = standardDeviation(differences);
    if (sd === undefined) continue;
    sum += (sd * sd * (differences.length - 1)) / 2;
    freedom += differences.length - 1;
  }
  const value = Math.sqrt(sum / freedom);
  return freedom === 0 || !Number.isFinite(value) ? undefined : { value, freedom };
}

/** 0.2 × the between-athlete SD of the first trial; undefined under two athletes. */
export function smallestWorthwhileChange(firstTrials: readonly number[]): number | undefined {
  const sd = standardDeviation(firstTrials);
  return sd === undefined ? undefined : WORTHWHILE_SHARE * sd;
}

export type ChangeVerdict = "better" | "trivial" | "worse" | "unclear";

export interface Change {
  /** Later − earlier, in the test's unit. */
  difference: number;
  low: number;
  high: number;
  /** Flat-prior probabilities, 0–1; they sum to one. */
  better: number;
  trivial: number;
  worse: number;
  verdict: ChangeVerdict;
  working: Working;
}

/**
 * One athlete's change between two tests. Its error is TE·√2 on the typical error's freedom; the
 * chances are flat-prior probabilities that the true change exceeds the smallest worthwhile one
 * (Hopkins; disputed by Sainani 2018). With chances of better and worse both over 5 % it is
 * unclear; otherwise the likeliest of the three.
 * @param higherIsBetter false for times
 * @returns undefined where the typical error has no freedom, or a figure is no number
 */
export function changeBetween(input: {
  before: number;
  after: number;
  error: TypicalError;
  worthwhile: number;
  higherIsBetter: boolean;
  unit: string;
  decimals: number;
  /** Trials averaged in each value; the error falls with their root. */
  trialsBefore?: number;
  trialsAfter?: number;
}): Change | undefined {
  const { before, after, error, worthwhile, unit, decimals } = input;
  const figures = [before, after, error.value, error.freedom, worthwhile];
  if (!figures.every(Number.isFinite) || error.freedom <= 0 || error.value < 0 || worthwhile < 0)
    return undefined;
  const difference = after - before;
  const sd = error.value * Math.sqrt(1 / (input.trialsBefore ?? 1) + 1 / (input.trialsAfter ?? 1));
  const above = (limit: number) =>
    sd === 0
      ? Number(difference > limit)
      : 1 - studentCdf((limit - difference) / sd, error.freedom);
  const up = above(worthwhile);
  const down = 1 - above(-worthwhile);
  const better = input.higherIsBetter ? up : down;
  const worse = input.higherIsBetter ? down : up;
  const trivial = Math.max(0, 1 - better - worse);
  const half = studentQuantile((1 + LEVEL) / 2, error.freedom) * sd;
  if (![difference, better, worse, half, difference + half].every(Number.isFinite))
    return undefined;
  const verdict: ChangeVerdict =
    better > UNCLEAR_ABOVE && worse > UNCLEAR_ABOVE
      ? "unclear"
      : better >= trivial && better >= worse
        ? "better"
        : worse >= trivial
          ? "worse"
          : "trivial";
  const show = (value: number) => `${value.toFixed(decimals)} ${unit}`;
  const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
  return {
    difference,
    low: difference - half,
    high: difference + half,
    better,
    trivial,
    worse,
    verdict,
    working: {
      title: "Change between two tests",
      lines: [
        { label: "Before, after", value: `${show(before)}, ${show(after)}` },
        {
          label: "Typical error",
          value: show(error.value),
          detail: `from repeat trials, ${error.freedom} degrees of freedom`,
        },
        {
          label: "Smallest worthwhile change",
          value: show(worthwhile),
          detail: "0.2 × SD between athletes",
        },
        {
          label: "Change",
          value: show(difference),
          detail: `90 % between ${show(difference - half)} and ${show(difference + half)}`,
        },
        {
          label: "Better, trivial, worse",
          value: `${percent(better)}, ${percent(trivial)}, ${percent(worse)}`,
          detail: "chances under a flat prior; this way of judging is disputed (Sainani 2018)",
        },
        { label: "So", value: verdict, emphasis: "answer" },
      ],
      sources: ["Hopkins 2000, 2004; Sainani 2018"],
      changes: ["More trials, another typical error, another smallest worthwhile change."],
    },
  };
}

/** The value that a test stands on: the best of its trials, or their mean. */
export function testValue(
  trials: readonly number[],
  higherIsBetter: boolean,
  take: "best" | "mean",
): number | undefined {
  if (trials.length === 0) return undefined;
  if (take === "mean") return mean(trials);
  return higherIsBetter ? Math.max(...trials) : Math.min(...trials);
}
