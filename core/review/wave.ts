import type { BasisKind } from "../recipe/basis";
import type { CoachValues } from "../settings/coach-values";
import { teamDefault } from "../settings/usual";
import { reviewDefault } from "../settings/usual-review";
import { plainNumber } from "../units/mass";
import { formatPercent } from "../units/percent";
import { formatVelocity } from "../units/velocity";
import { say, type Text, written } from "../units/written";
import type { CallEvidence, ReviewCall } from "./calls";
import { type CycleWeek, several } from "./cycle-week";
import { signedMps } from "./equal-load";
import type { EqualSpeed } from "./equal-speed";
import type { FaultReturn } from "./fault-return";
import type { SetFade } from "./set-fade";
import { type Stall, stallOf } from "./stall";

/** The numbers that the rule of a wave goes by; each is the team's own. */
export interface WaveRule {
  /** Chance that speed rises (or falls) from which it is called, 0–1. */
  riseChance: number;
  fewCutPercent: number;
  fadePercent: number;
  addRestS: number;
  /** Exposures before a stall is called; undefined: not set, none is. */
  stallExposures: number | undefined;
  stallChance: number;
  smallestMps: number;
  /** How far a base goes up or down, %; undefined: the coach says each time. */
  stepPercent: number | undefined;
  /** Days after which a profile is old. */
  profileDays: number;
}

/** The team's rule, from its settings. */
export function waveRule(values: CoachValues): WaveRule {
  return {
    riseChance: reviewDefault(values, "riseChancePercent") / 100,
    fewCutPercent: teamDefault(values, "fewCutPercent"),
    fadePercent: reviewDefault(values, "fadePercent"),
    addRestS: reviewDefault(values, "fadeRestS"),
    stallExposures: values.stallExposures,
    stallChance: reviewDefault(values, "stallChancePercent") / 100,
    smallestMps: reviewDefault(values, "smallestRiseMps"),
    stepPercent: values.baseStepPercent,
    profileDays: reviewDefault(values, "profileDays"),
  };
}

/** What an athlete's wave is judged by. */
export interface AthleteWaveInput {
  athleteId: string;
  planId: string;
  slotId: string;
  variantId: string;
  weeks: readonly CycleWeek[];
  speed: EqualSpeed;
  /** Days of the lift over which the speed was looked at. */
  exposures: number;
  fade: SetFade;
  /** The newest day's sets at its main load. */
  lastSets: NonNullable<CallEvidence["sets"]>;
  returns: readonly FaultReturn[];
  /** Which time through the recipe, and whether its last day is over. */
  run: number;
  over: boolean;
  /** What the percentages stand on; undefined without a max. */
  max: { kg: number; variantId: string; ageDays: number; stale: boolean } | undefined;
  /** Age of the newest profile; undefined without one. */
  profileAgeDays: number | undefined;
  basis: BasisKind;
  /** Pains that no coach has spoken on. */
  held: number;
}

/** A line of the rule with what it read. */
export interface RuleLine {
  label: string;
  holds: "yes" | "no" | "not set" | "unknown";
  read: Text;
}

export interface AthleteWave {
  there: number;
  sessions: number;
  setsDone: number;
  setsPlanned: number;
  cut: number;
  cutPercent: number | undefined;
  stall: Stall;
  rule: RuleLine[];
  calls: ReviewCall[];
  /** In a few words where no call waits: "Goes on by the recipe". */
  standing: Text;
}

/** Loads that a call may move: by the other bases they follow from something else. */
const MOVES_BASE: readonly BasisKind[] = ["percent"];

/**
 * An athlete's wave by the rule of DOMAIN 13: a base goes up only where speed at equal load rose beyond
 * noise and few sets were cut; a stall needs the coach's exposures and a high chance; the plan goes on by
 * its recipe unless evidence speaks against it, and "unclear" is neither response nor stall.
 */
export function reviewAthleteWave(input: AthleteWaveInput, rule: WaveRule): AthleteWave {
  const { weeks, speed, fade, max } = input;
  const there = weeks.filter((week) => week.present);
  const sum = (pick: (week: CycleWeek) => number) => there.reduce((n, week) => n + pick(week), 0);
  const setsDone = sum((week) => week.doneSets);
  const cut = sum((week) => week.cutSets);
  const cutPercent = setsDone === 0 ? undefined : (100 * cut) / setsDone;
  const fewCut = cutPercent !== undefined && cutPercent <= rule.fewCutPercent + 1e-9;
  const stall = stallOf({
    speed,
    exposures: input.exposures,
    exposuresAsked: rule.stallExposures,
    smallestMps: rule.smallestMps,
    chanceAsked: rule.stallChance,
  });
  const rises = speed.ok && speed.chanceRises >= rule.riseChance;
  const falls = speed.ok && 1 - speed.chanceRises >= rule.riseChance;
  const fades = fade.ok && fade.fades;
  const movesBase = MOVES_BASE.includes(input.basis);
  const { athleteId, planId, slotId, variantId } = input;
  const evidence: CallEvidence = { lines: evidenceLines(input, cut, setsDone), ...drawn(input) };
  const call = (
    kind: ReviewCall["kind"],
    proposal: Text,
    action: ReviewCall["action"],
    sure: number,
    about = `${planId}/${slotId}/${input.run}`,
  ): ReviewCall => ({
    kind,
    about: `${kind}/${athleteId}/${about}`,
    athleteId,
    squadId: undefined,
    planId,
    slotId,
    variantId,
    proposal,
    evidence,
    action,
    sure,
  });
  const base = (way: 1 | -1): ReviewCall["action"] | undefined =>
    max && {
      type: "base",
      variantId: max.variantId,
      fromKg: max.kg,
      toKg: stepped(max.kg, way * (rule.stepPercent ?? 0)),
    };
  const calls: ReviewCall[] = [];
  const chance = speed.ok ? speed.chanceRises : 0.5;
  if (input.held > 0)
    calls.push(call("hold", "Hold the load until a coach clears it", { type: "keep" }, 1));
  else if (falls && (max === undefined || max.stale))
    calls.push(
      call(
        "test",
        max
          ? `Test the max: speed fell, and the max is ${max.ageDays} days old`
          : "Test a max: speed fell, and there is none",
        { type: "to-do", what: "test", days: 14 },
        1 - chance,
      ),
    );
  else if (input.over && falls && movesBase && max) {
    const action = base(-1);
    if (action) calls.push(call("lower", baseWords("Lower", action), action, 1 - chance));
  } else if (input.over && rises && fewCut && !fades && movesBase && max) {
    const action = base(1);
    if (action) calls.push(call("raise", baseWords("Raise", action), action, chance));
  } else if (input.over && stall.stalls)
    calls.push(
      call(
        "variation",
        `Change the variation: no rise that counts in ${several(stall.exposures, "day", "days")} of it`,
        { type: "to-do", what: "variation", days: 21 },
        stall.chance,
      ),
    );
  if (fades && fade.ok)
    calls.push(
      call(
        "rest",
        `${rule.addRestS} s more rest: ${formatPercent(fade.percent, 0)} of speed was lost from the first set to the last`,
        { type: "rest", planId, slotId, addS: rule.addRestS },
        fade.chanceOver,
      ),
    );
  for (const one of input.returns)
    calls.push(
      call(
        "fault",
        `"${one.fault}" is back, in ${one.seen} of ${one.sets} sets${one.percent === undefined ? "" : ` at ${formatPercent(one.percent, 0)}`}`,
        { type: "to-do", what: "look", days: 14 },
        one.seen / Math.max(1, one.sets),
        `${variantId}/${one.fault}/${one.on}`,
      ),
    );
  return {
    there: there.length,
    sessions: weeks.length,
    setsDone,
    setsPlanned: weeks.reduce((n, week) => n + week.plannedSets, 0),
    cut,
    cutPercent,
    stall,
    rule: ruleLines(input, rule, { rises, falls, fewCut, cut, setsDone, cutPercent, stall }),
    calls,
    standing: standingWords(input, { rises, falls, movesBase, held: !fewCut || fades }),
  };
}

/** A base that many per cent on, to the half kilogram. */
const stepped = (kg: number, percent: number): number =>
  Math.round(2 * kg * (1 + percent / 100)) / 2;

function baseWords(verb: "Raise" | "Lower", action: ReviewCall["action"]): Text {
  if (action.type !== "base") return verb;
  return action.toKg === action.fromKg
    ? say`${verb} the base from ${written(action.fromKg, 1)}: by how much, you say`
    : say`${verb} the base from ${written(action.fromKg, 1)} to ${written(action.toKg, 1)}`;
}

/** A loss of speed as a change: a loss is below nothing. */
export const lossWords = (lossPercent: number): string => {
  const whole = Math.round(lossPercent);
  return whole === 0 ? "0 %" : `${whole > 0 ? "−" : "+"}${Math.abs(whole)} %`;
};

const percent = (chance: number) => `${Math.round(100 * chance)} %`;

function evidenceLines(input: AthleteWaveInput, cut: number, done: number): Text[] {
  const { speed, fade } = input;
  const lines: Text[] = [];
  if (speed.ok)
    lines.push(
      say`At ${written(speed.loadKg, 1)}: ${signedMps(speed.perWave.estimate)} m/s a wave (90 % ${signedMps(speed.perWave.low)} to ${signedMps(speed.perWave.high)}), over ${several(speed.days.length, "day", "days")}; ${percent(speed.chanceRises)} that it rises`,
    );
  lines.push(`${cut} of ${several(done, "set", "sets")} cut`);
  if (fade.ok)
    lines.push(
      `Fade of the last day ${lossWords(fade.percent)} (90 % ${lossWords(fade.low)} to ${lossWords(fade.high)})`,
    );
  return lines;
}

function drawn({ speed, fade, lastSets }: AthleteWaveInput): Omit<CallEvidence, "lines"> {
  return {
    ...(speed.ok
      ? {
          days: {
            loadKg: speed.loadKg,
            days: speed.days.map((day) => ({
              date: day.date,
              speedMps: day.speedMps,
              sdMps: Math.sqrt(day.readingSdMps ** 2 + speed.daySdMps ** 2),
            })),
          },
          level: {
            loadKg: speed.loadKg,
            speedMps: speed.now.estimate,
            sdMps: (speed.now.high - speed.now.low) / 3.29,
            ...(fade.ok ? { fadePercent: fade.percent } : {}),
          },
        }
      : {}),
    ...(lastSets.length > 0 ? { sets: lastSets } : {}),
  };
}

function ruleLines(
  input: AthleteWaveInput,
  rule: WaveRule,
  is: {
    rises: boolean;
    falls: boolean;
    fewCut: boolean;
    cut: number;
    setsDone: number;
    cutPercent: number | undefined;
    stall: Stall;
  },
): RuleLine[] {
  const { speed, fade, max, profileAgeDays } = input;
  const { stall } = is;
  const asked = percent(rule.riseChance);
  return [
    {
      label: `Speed rose beyond noise, ${asked}`,
      holds: speed.ok ? (is.rises ? "yes" : "no") : "unknown",
      read: speed.ok
        ? `${signedMps(speed.perWave.estimate)} m/s a wave, ${percent(speed.chanceRises)} that it rises`
        : "not comparable: one day, or nothing measured",
    },
    {
      label: `Few cut, up to ${rule.fewCutPercent} %`,
      holds: is.cutPercent === undefined ? "unknown" : is.fewCut ? "yes" : "no",
      read:
        is.cutPercent === undefined
          ? "no set done"
          : `${is.cut} of ${is.setsDone}, ${formatPercent(is.cutPercent, 0)}`,
    },
    {
      label: `Fade over ${rule.fadePercent} %`,
      holds: fade.ok ? (fade.fades ? "yes" : "no") : "unknown",
      read: fade.ok
        ? `${lossWords(fade.percent)} over ${fade.sets} sets, ${percent(fade.chanceOver)} over the limit`
        : "too few sets at one load",
    },
    {
      label:
        rule.stallExposures === undefined
          ? "Stall, exposures not set"
          : `Stall, from ${rule.stallExposures} exposures, ${percent(rule.stallChance)}`,
      holds:
        rule.stallExposures === undefined
          ? "not set"
          : stall.stalls
            ? "yes"
            : stall.why === "not-measured"
              ? "unknown"
              : "no",
      read: `${several(stall.exposures, "exposure", "exposures")}${stall.chance === undefined ? "" : `, ${percent(stall.chance)} that the rise is under ${formatVelocity(rule.smallestMps)} m/s a wave`}`,
    },
    {
      label: "Max is stale",
      holds: max ? (max.stale ? "yes" : "no") : "unknown",
      read: max ? say`${written(max.kg, 1)}, ${several(max.ageDays, "day", "days")} old` : "no max",
    },
    {
      label: `Profile over ${rule.profileDays} days old`,
      holds:
        profileAgeDays === undefined ? "unknown" : profileAgeDays > rule.profileDays ? "yes" : "no",
      read: profileAgeDays === undefined ? "no profile" : several(profileAgeDays, "day", "days"),
    },
    {
      label: "Pain that no coach has cleared",
      holds: input.held > 0 ? "yes" : "no",
      read: input.held > 0 ? several(input.held, "flag", "flags") : "none",
    },
    {
      label: "A fault is back",
      holds: input.returns.length > 0 ? "yes" : "no",
      read: input.returns.map((one) => one.fault).join(", ") || "none",
    },
  ];
}

function standingWords(
  { speed, over, max }: AthleteWaveInput,
  is: { rises: boolean; falls: boolean; movesBase: boolean; held: boolean },
): Text {
  if (!speed.ok) return "Not comparable yet; the plan goes on";
  if (is.rises && !is.movesBase) return "Faster; the load follows by itself";
  if (is.rises && is.held) return "Faster, with sets cut or fading: the plan goes on";
  if (is.rises && !max) return "Faster; without a max there is no base to raise";
  if (is.rises || (is.falls && !over && is.movesBase))
    return `${is.rises ? "Faster" : "Slower"}; asked when the wave is over`;
  if (is.falls) return "Slower; the load follows by itself";
  const { sessionsMore } = speed;
  return sessionsMore === undefined
    ? "Unclear; the plan goes on"
    : sessionsMore === 0
      ? "No clear change; the plan goes on"
      : `Unclear; about ${several(sessionsMore, "more session", "more sessions")} would tell`;
}

/** How often speed was within the noise, in words for print: "unclear (62 %)". */
export const chanceWords = (speed: EqualSpeed): string =>
  speed.ok
    ? `${{ rises: "rises", falls: "falls", unclear: "unclear" }[speed.verdict]}, ${plainNumber(100 * speed.chanceRises, 0)} %`
    : "not comparable";
