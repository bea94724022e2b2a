import { boxRepWords } from "../boxsquat/stops";
import type { SetState } from "../floor/set-state";
import { endedWords } from "../liverules/rep";
import { formatClock } from "../units/time";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { written } from "../units/written";

export const STANDING_WORDS = {
  under: "under",
  on: "on speed",
  over: "over",
  "no-target": "no wanted speed",
  "not-measured": "not measured",
} as const;

export type Standing = keyof typeof STANDING_WORDS;

/** What a set came to, without its working. */
export interface SetSum {
  key: string;
  number: number;
  /** Measured reps that did not fail. */
  reps: Array<{ number: number; velocityMps: number }>;
  bestMps: number | undefined;
  standing: Standing;
  target: SetState["target"];
  eye: SetState["eye"];
  /** As it was lifted; of the working max, %, where the plan's was a share of one. */
  loadKg: number | undefined;
  percent: number | undefined;
  /** Counted reps, whoever measured them. */
  counted: number;
  cut: boolean;
  faults: string[];
  /** Measured by an older processing: beside its own day alone. */
  older: boolean;
  /** Where its speeds come from: "sensor", "typed", "video", "eye" … */
  sources: string[];
  /** Rest before it, s; by one tablet's clock or by two. */
  rest: SetState["restTaken"];
  /** Stops at the bottom, lowering, meeting with the box, time to the peak: a rep each. */
  box: { pausesS: number[]; loweringMps: number[]; contactsMps: number[]; toPeakS: number[] };
}

/** A set that was done, as a review's line draws it. */
export function setSum(set: SetState): SetSum {
  const { prescription: planned } = set;
  const counted = set.reps.filter((rep) => rep.outcome === "counted");
  const reps = set.reps.flatMap((rep) =>
    rep.velocityMps === undefined || rep.outcome === "failed"
      ? []
      : [{ number: rep.number, velocityMps: rep.velocityMps }],
  );
  return {
    key: set.prescription.key,
    number: set.prescription.number,
    reps,
    bestMps: reps.length > 0 ? Math.max(...reps.map((rep) => rep.velocityMps)) : undefined,
    standing: set.verdict?.standing ?? "not-measured",
    target: set.target,
    eye: set.eye,
    loadKg: set.loadKg,
    percent:
      planned.truePercent === undefined || !planned.loadKg || set.loadKg === undefined
        ? undefined
        : (planned.truePercent * set.loadKg) / planned.loadKg,
    counted: counted.length,
    cut: set.cut,
    faults: set.faults.map((one) => one.fault),
    older: counted.some((rep) => rep.older),
    sources: [...new Set(counted.map((rep) => rep.source))],
    rest: set.restTaken,
    box: {
      pausesS: counted.flatMap((rep) => rep.pauseS ?? []),
      loweringMps: counted.flatMap((rep) => rep.loweringMps ?? []),
      contactsMps: counted.flatMap((rep) => rep.contactMps ?? []),
      toPeakS: counted.flatMap((rep) => rep.toPeakS ?? []),
    },
  };
}

/**
 * The working of a set's best speed: every rep, the rest, how it ended.
 * @param mostContactMps the coach's limit on meeting the box, as the session was begun with it
 */
export function setWorking(set: SetState, name: string, mostContactMps?: number): Working {
  const { bestMps, standing } = setSum(set);
  const speed = (mps: number | undefined) =>
    mps === undefined ? "not measured" : `${formatVelocity(mps)} m/s`;
  const lines: Working["lines"] = [
    { label: "Load", value: written(set.loadKg ?? 0, 1) },
    ...set.reps.map((rep) => ({
      label: `Rep ${rep.number}${rep.outcome === "failed" ? ", failed" : ""}`,
      value: speed(rep.velocityMps),
      detail: [
        boxRepWords({ ...rep, mostContactMps }),
        rep.source,
        rep.older ? "older processing" : "",
      ]
        .filter(Boolean)
        .join(" · "),
    })),
    {
      label: "Wanted",
      value: set.target
        ? `${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)} m/s`
        : "not set",
    },
    {
      label: "Best",
      value:
        bestMps === undefined ? speed(undefined) : `${speed(bestMps)}, ${STANDING_WORDS[standing]}`,
      emphasis: "answer",
    },
  ];
  if (set.restTaken)
    lines.push({
      label: "Rest before it",
      value: formatClock(set.restTaken.seconds),
      detail: set.restTaken.measured ? "measured on one tablet" : "estimated: two clocks",
    });
  lines.push({ label: "Ended by", value: endedWords(set.endedBy) });
  return { title: `${name}, set ${set.prescription.number}`, lines };
}
