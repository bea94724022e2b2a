import { type FaultHistory, returnsWithin } from "../boxsquat/box-faults";
import { type DepthLedger, type DepthSet, depthLedger } from "../boxsquat/depth";
import { usual } from "../settings/usual";
import { plainNumber } from "../units/mass";
import type { LocalDate } from "../units/time";

import { type CycleSession, type CycleWeek, several, weekOf } from "./cycle-week";
import { type SpeedChange, signedMps, speedAtEqualLoad } from "./equal-load";

/** Sets cut up to this share of the done ones are "few", %. */
export const FEW_CUT_PERCENT = usual("fewCutPercent");

/** What a coach may decide at the end of a cycle, or within it. */
export const CYCLE_DECISIONS = ["raise", "hold", "lower", "change-box", "end"] as const;
export type CycleDecision = (typeof CYCLE_DECISIONS)[number];
export const CYCLE_DECISION_NAMES: Record<CycleDecision, string> = {
  raise: "Raise the load",
  hold: "Hold the load",
  lower: "Take load off",
  "change-box": "Change height or style",
  end: "End the cycle",
};

/** One finding of a review, with what it speaks for. */
export interface CycleFinding {
  about: "attendance" | "speed" | "cut" | "stops" | "faults" | "depth" | "next";
  speaksFor: "raise" | "hold" | "lower" | "look" | "none";
  words: string;
}

export interface BoxCycleReview {
  weeks: CycleWeek[];
  speed: SpeedChange;
  depth: DepthLedger;
  findings: CycleFinding[];
  /** What the rule proposes; the coach decides. */
  proposal: "raise" | "hold" | "lower" | "not-enough";
}

/**
 * The review of a cycle on the box: raise only where speed at equal load rose beyond noise, few
 * sets were cut, and no fault of the last week speaks against it (DOMAIN 13; the share of cut
 * sets is the coach's).
 * @param sessions in order of their dates, those to come left out
 * @param nextPercent share of the max that the plan goes to next, %
 */
export function reviewBoxCycle(input: {
  sessions: readonly CycleSession[];
  slope: number | undefined;
  depthSets: readonly DepthSet[];
  faults: readonly FaultHistory[];
  nextPercent: number | undefined;
  today: LocalDate;
  fewCutPercent?: number;
  /** What the depth ledger asks for. */
  depthAsked?: { weeks: number; percent: number };
}): BoxCycleReview {
  const few = input.fewCutPercent ?? FEW_CUT_PERCENT;
  const weeks = input.sessions.map(weekOf);
  const speed = speedAtEqualLoad(weeks, input.slope);
  const depth = depthLedger(input.depthSets, input.today, input.depthAsked);
  const findings: CycleFinding[] = [];

  const came = weeks.filter((one) => one.present).length;
  const done = weeks.reduce((sum, one) => sum + one.doneSets, 0);
  const planned = weeks.reduce((sum, one) => sum + (one.present ? one.plannedSets : 0), 0);
  findings.push({
    about: "attendance",
    speaksFor: came * 2 < weeks.length ? "hold" : "none",
    words: `There for ${came} of ${several(weeks.length, "session", "sessions")}, ${done} of ${planned} sets done.`,
  });

  if (speed.ok) {
    const between = speed.pairs.map((one) => `${one.from.week} to ${one.to.week}`).join(" and ");
    const range = `${signedMps(speed.changeMps)} m/s, week ${between}${speed.byLine ? ", by the own profile" : ""}`;
    findings.push({
      about: "speed",
      speaksFor: speed.verdict === "rose" ? "raise" : speed.verdict === "fell" ? "lower" : "hold",
      words: {
        rose: `Speed at equal load rose beyond noise: ${range}.`,
        fell: `Speed at equal load fell beyond noise: ${range}.`,
        "within-noise": `Speed at equal load changed by no more than noise: ${range}.`,
      }[speed.verdict],
    });
  } else findings.push({ about: "speed", speaksFor: "none", words: speed.words });

  const cut = weeks.reduce((sum, one) => sum + one.cutSets, 0);
  if (done > 0) {
    const share = (100 * cut) / done;
    findings.push({
      about: "cut",
      speaksFor: share > few + 1e-9 ? "hold" : "none",
      words: `${several(cut, "set", "sets")} of ${done} cut, ${plainNumber(share, 0)} %; up to ${few} % counts as few.`,
    });
  }

  const watched = weeks.filter((one) => one.bounces !== undefined);
  if (watched.length > 0) {
    const bounces = watched.reduce((sum, one) => sum + (one.bounces ?? 0), 0);
    const reps = watched.reduce((sum, one) => sum + one.reps, 0);
    findings.push({
      about: "stops",
      speaksFor: bounces * 10 > reps ? "look" : "none",
      words:
        bounces === 0
          ? "No bounce: every measured stop was long enough."
          : `${several(bounces, "bounce", "bounces")} in ${reps} reps: the stop was shorter than the slot asks.`,
    });
  }

  const last = weeks.filter((one) => one.present).at(-1);
  const open = last?.faults ?? [];
  const seen = [...new Set(weeks.flatMap((one) => one.faults.map((fault) => fault.fault)))];
  const gone = seen.filter((fault) => !open.some((one) => one.fault === fault));
  if (open.length > 0)
    findings.push({
      about: "faults",
      speaksFor: "hold",
      words: `In the last session: ${open.map((one) => `${one.fault} × ${one.times}`).join(", ")}.`,
    });
  if (gone.length > 0)
    findings.push({
      about: "faults",
      speaksFor: "none",
      words: `Not seen any more in the last session: ${gone.join(", ")}.`,
    });
  if (seen.length === 0 && done > 0)
    findings.push({ about: "faults", speaksFor: "none", words: "No fault was tagged." });

  if (!depth.enough) findings.push({ about: "depth", speaksFor: "look", words: depth.words });
  const { nextPercent } = input;
  if (nextPercent !== undefined)
    for (const one of returnsWithin(input.faults, nextPercent))
      findings.push({
        about: "next",
        speaksFor: "hold",
        words: `The plan goes to ${plainNumber(nextPercent, 1)} %: "${one.fault}" came back at ${plainNumber(one.returnsAt ?? 0, 1)} %.`,
      });

  const says = (what: CycleFinding["speaksFor"]) => findings.some((one) => one.speaksFor === what);
  return {
    weeks,
    speed,
    depth,
    findings,
    proposal: !speed.ok
      ? "not-enough"
      : says("lower")
        ? "lower"
        : says("hold") || !says("raise")
          ? "hold"
          : "raise",
  };
}
