import type { CoachValues } from "../settings/coach-values";
import { teamDefault } from "../settings/usual";
import { formatClock } from "../units/time";
import type { Complex } from "./complex";
import { needsLift } from "./item-load";

/** What a complex is checked by; a team may set its own. */
export interface ComplexSettings {
  /** Dense gaps, s. */
  complexGapLeastS: number;
  complexGapMostS: number;
  /** Under this much gap little potentiation is seen (Seitz & Haff 2016), s. */
  potentiationLeastS: number;
  /** A light jump is at most this share of body mass, or of a max, %. */
  lightJumpBodyPercent: number;
  lightJumpMaxPercent: number;
  /** Strength asked for first. */
  squatPerBody: number;
  trainingYears: number;
  /** Rest between rounds that keeps output, s. */
  leastRoundRestS: number;
  /** Power reps a set at most. */
  powerReps: number;
}

const POWER_REPS = 5;

/** The team's, else the usual ones. */
export const complexSettings = (values: CoachValues): ComplexSettings => ({
  complexGapLeastS: teamDefault(values, "complexGapLeastS"),
  complexGapMostS: teamDefault(values, "complexGapMostS"),
  potentiationLeastS: teamDefault(values, "potentiationLeastS"),
  squatPerBody: teamDefault(values, "pairingSquatPerBody"),
  trainingYears: teamDefault(values, "pairingTrainingYears"),
  leastRoundRestS: teamDefault(values, "pairingRoundRestS"),
  lightJumpBodyPercent: teamDefault(values, "lightJumpBodyPercent"),
  lightJumpMaxPercent: teamDefault(values, "lightJumpMaxPercent"),
  powerReps: POWER_REPS,
});

export const COMPLEX_DEFAULTS: ComplexSettings = complexSettings({});

export interface ComplexCheck {
  code: string;
  level: "warning" | "note";
  text: string;
}

export interface PairingAthlete {
  name: string;
  squatPerBody: number | undefined;
  trainingYears: number | undefined;
}

/** What stands against a complex, and for whom a simpler one is offered. */
export function checkComplex(
  complex: Complex,
  athletes: readonly PairingAthlete[] = [],
  /** Whether the day's template puts power before the heavy work. */
  powerFirst = true,
  settings: ComplexSettings = COMPLEX_DEFAULTS,
): ComplexCheck[] {
  const found: ComplexCheck[] = [];
  const say = (code: string, level: ComplexCheck["level"], text: string) =>
    found.push({ code, level, text });
  const { items } = complex;
  for (const item of items) {
    if (needsLift(item.load) && item.of === undefined)
      say(
        "no-base",
        "warning",
        `${item.name}: a share needs the lift that it is of. Name it, or set the load otherwise.`,
      );
  }
  if (items.length < 2) say("one-item", "warning", "A pairing has at least two items.");
  const patterns = new Set(items.map((item) => family(item.pattern)));
  if (patterns.size > 1 && complex.patternReason.trim() === "") {
    say(
      "pattern",
      "warning",
      "Its items do not share a movement pattern. Choose a matching one, or write the reason.",
    );
  }
  if (powerFirst && !complex.beforeMain)
    say("order", "warning", "It stands after the main heavy work; this template puts power first.");
  for (const item of items) {
    const light = settings;
    if (
      item.kind === "jump" &&
      item.load.by === "body" &&
      item.load.percent > light.lightJumpBodyPercent
    )
      say(
        "not-light",
        "warning",
        `${item.name}: ${item.load.percent} % of body mass is not light; over ${light.lightJumpBodyPercent} % the jump is a lift.`,
      );
    if (
      item.kind === "jump" &&
      item.load.by === "percent" &&
      item.load.percent > light.lightJumpMaxPercent
    )
      say(
        "not-light",
        "warning",
        `${item.name}: ${item.load.percent} % of the max is not light; over ${light.lightJumpMaxPercent} % the jump is a lift.`,
      );
    if ((item.kind === "jump" || item.kind === "throw") && item.reps > light.powerReps)
      say(
        "many-reps",
        "note",
        `${item.name}: ${item.reps} reps; beyond ${light.powerReps} it is no longer power work.`,
      );
    if (item.kind === "throw" && !item.sides && /one-hand|rotation|side|scoop/i.test(item.name))
      say(
        "one-side",
        "note",
        `${item.name}: thrown to one side only. Throw on both sides, or keep the ledger.`,
      );
  }
  items.slice(0, -1).forEach((item) => {
    const { complexGapLeastS: least, complexGapMostS: most } = settings;
    if (complex.aim === "complex" && (item.gapS < least || item.gapS > most))
      say(
        "gap",
        "note",
        `After ${item.name}: ${item.gapS} s; dense work goes by ${least} to ${most} s.`,
      );
    if (
      complex.aim === "potentiation" &&
      item.kind === "lift" &&
      item.gapS < settings.potentiationLeastS
    )
      say(
        "gap",
        "note",
        `After ${item.name}: ${formatClock(item.gapS)}; under ${formatClock(settings.potentiationLeastS)} little is gained on average. The athlete's own gap comes before the average.`,
      );
  });
  if (complex.rounds > 1 && complex.restS < settings.leastRoundRestS)
    say(
      "rest",
      "note",
      `${complex.restS} s between rounds: power is judged by output. Watch whether it holds.`,
    );
  const weak = athletes.filter(
    (one) =>
      (one.squatPerBody !== undefined && one.squatPerBody < settings.squatPerBody) ||
      (one.trainingYears !== undefined && one.trainingYears < settings.trainingYears),
  );
  if (weak.length > 0)
    say(
      "strength-first",
      "warning",
      `Strength first for ${weak.map((one) => one.name).join(", ")} (squat ${settings.squatPerBody} × body mass and ${settings.trainingYears === 1 ? "a year" : `${settings.trainingYears} years`} of training). Offer the simpler version.`,
    );
  const unknown = athletes.filter((one) => one.squatPerBody === undefined);
  if (unknown.length > 0)
    say(
      "strength-unknown",
      "note",
      `No squat max over body mass is known for ${unknown.map((one) => one.name).join(", ")}.`,
    );
  return found;
}

/** Patterns that belong together in a pairing: legs, pushes, pulls, the rest by themselves. */
function family(pattern: string): string {
  if (["squat", "hinge", "single-leg", "jump", "sprint", "olympic-pull"].includes(pattern))
    return "legs";
  if (["horizontal-push", "vertical-push"].includes(pattern)) return "push";
  if (["horizontal-pull", "vertical-pull"].includes(pattern)) return "pull";
  // A two-hand throw is driven by the legs and ends in a push: it goes with both.
  return pattern === "throw" ? "legs" : pattern;
}
