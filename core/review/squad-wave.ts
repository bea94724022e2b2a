import type { BasisKind } from "../recipe/basis";
import type { LocalDate } from "../units/time";
import { cycleSets } from "./cycle-sets";
import { type CycleWeek, weekOf } from "./cycle-week";
import {
  type EqualSpeed,
  equalSpeed,
  type MeasuredSet,
  type SlopeKnown,
  usualSlope,
} from "./equal-speed";
import { type FaultDay, faultReturns } from "./fault-return";
import type { LiftPoints, LiftSum } from "./session-sum";
import { type SetFade, setFade } from "./set-fade";
import { type SquadMean, shrinkTowards, squadMean } from "./squad-mean";
import { type AthleteWave, reviewAthleteWave, type WaveRule } from "./wave";

/** A lift's day of an athlete in the few numbers that trends ask for. */
export interface PointDay {
  date: LocalDate;
  points: LiftPoints;
}

/** A session of the wave, as planned and as one athlete did it. */
export interface WaveSession {
  week: number;
  date: LocalDate;
  kind: CycleWeek["kind"];
  planned: { sets: number; reps: number };
  /** Undefined: this athlete was not there. */
  sum: LiftSum | undefined;
}

export interface WavePerson {
  athleteId: string;
  name: string;
  /** All days of the lift that are looked back over, the wave's own too. */
  history: readonly PointDay[];
  sessions: readonly WaveSession[];
  max:
    | { kg: number; baseKg: number; variantId: string; ageDays: number; stale: boolean }
    | undefined;
  profileAgeDays: number | undefined;
  held: number;
}

export interface WaveRow extends AthleteWave {
  athleteId: string;
  name: string;
  weeks: CycleWeek[];
  speed: EqualSpeed;
  fade: SetFade;
  /** The newest day's sets at its main load. */
  lastSets: Array<{ number: number; bestMps: number; cut: boolean }>;
  tonnageKg: number;
  maxKg: number | undefined;
}

export interface SquadWave {
  rows: WaveRow[];
  /** Of the wave's own days alone: what one wave can tell. */
  waveMean: SquadMean | undefined;
  /** Of all days that are looked back over; athletes are shrunk towards it. */
  longMean: SquadMean | undefined;
  towards: string;
}

/** How far a tested line's slope may be off, of itself. */
const OWN_SLOPE_SHARE = 0.15;
/** Of a lift without line and max: so little is known of speed over load, m/s per kg. */
const ANY_SLOPE: SlopeKnown = { slopeMpsPerKg: -0.012, sdMpsPerKg: 0.01 };

/** What is known of an athlete's speed over load: their own line, else the usual one of their max. */
export function slopeKnown(history: readonly PointDay[], maxKg: number | undefined): SlopeKnown {
  const own = history.findLast((day) => day.points.slopeMpsPerKg !== undefined)?.points
    .slopeMpsPerKg;
  if (own !== undefined && own < 0)
    return { slopeMpsPerKg: own, sdMpsPerKg: OWN_SLOPE_SHARE * -own };
  return (maxKg === undefined ? undefined : usualSlope(maxKg)) ?? ANY_SLOPE;
}

/**
 * The measured sets of days in one metric: that of the newest. Where no device measured any, those
 * that were filmed, and each says so: the two are never one line.
 */
export function measuredSets(history: readonly PointDay[]): MeasuredSet[] {
  const metric = history.at(-1)?.points.metric;
  const days = history.filter(({ points }) => points.metric === metric);
  const filmed = days.every(({ points }) => points.sets.length === 0);
  return days.flatMap(({ date, points }) =>
    ((filmed ? points.filmed : points.sets) ?? []).map(([loadKg, before, bestMps]) => ({
      date,
      loadKg,
      before,
      bestMps,
      ...(filmed ? { filmed } : {}),
    })),
  );
}

export const faultDay = ({ date, points }: PointDay): FaultDay => ({
  date,
  sets: points.setsDone,
  faults: points.faults.map(([fault, sets, percent]) => ({
    fault,
    sets,
    percent: percent ?? undefined,
  })),
});

interface Alone {
  maxKg: number | undefined;
  sets: MeasuredSet[];
  slope: SlopeKnown;
  first: EqualSpeed;
}

/** Two waves of a lift look back over the same days: what these say alone is worked out once. */
const alone = new WeakMap<readonly PointDay[], Alone>();

function trendAlone(history: readonly PointDay[], maxKg: number | undefined): Alone {
  const there = alone.get(history);
  if (there?.maxKg === maxKg && there !== undefined) return there;
  const sets = measuredSets(history);
  const slope = slopeKnown(history, maxKg);
  const made = { maxKg, sets, slope, first: equalSpeed(sets, { slope }) };
  alone.set(history, made);
  return made;
}

/**
 * A squad's wave: each athlete by the rule, shrunk towards the squad's mean where it is one, and what
 * the wave alone says of the squad.
 */
export function reviewSquadWave(input: {
  planId: string;
  slotId: string;
  variantId: string;
  basis: BasisKind;
  smallestStopS: number | undefined;
  run: number;
  over: boolean;
  people: readonly WavePerson[];
  rule: WaveRule;
}): SquadWave {
  const { people, rule } = input;
  const known = people.map((person) => {
    const { sets, slope, first } = trendAlone(person.history, person.max?.kg);
    const [from, to] = [person.sessions[0]?.date, person.sessions.at(-1)?.date];
    const inWave = sets.filter((set) => from && to && set.date >= from && set.date <= to);
    return {
      person,
      sets,
      slope,
      first,
      wave: equalSpeed(inWave, { slope }),
    };
  });
  const own = (speed: EqualSpeed) => (speed.ok && speed.alone ? [speed.alone] : []);
  const longMean = squadMean(known.flatMap((one) => own(one.first)));
  const towards = shrinkTowards(longMean);
  const rows = known.map(({ person, sets, slope }): WaveRow => {
    const weeks = person.sessions.map(({ sum, ...session }) =>
      weekOf({
        ...session,
        heightCm: sum?.box?.heightCm,
        style: undefined,
        sets: sum && sum.sets.length > 0 ? cycleSets(sum, input.smallestStopS) : undefined,
      }),
    );
    const speed = equalSpeed(sets, { slope, ...towards });
    const last = person.sessions.findLast((one) => one.sum && one.sum.sets.length > 0)?.sum;
    const lastSets = last ? mainSets(last) : [];
    const fade = setFade(
      lastSets.map((set) => ({ before: set.number - 1, bestMps: set.bestMps })),
      rule.fadePercent,
    );
    const review = reviewAthleteWave(
      {
        athleteId: person.athleteId,
        planId: input.planId,
        slotId: input.slotId,
        run: input.run,
        over: input.over,
        variantId: input.variantId,
        weeks,
        speed,
        exposures: new Set(person.history.map((day) => day.date)).size,
        fade,
        lastSets,
        returns: faultReturns(person.history.map(faultDay)),
        max: person.max && {
          kg: person.max.baseKg,
          variantId: person.max.variantId,
          ageDays: person.max.ageDays,
          stale: person.max.stale,
        },
        profileAgeDays: person.profileAgeDays,
        basis: input.basis,
        held: person.held,
      },
      rule,
    );
    return {
      ...review,
      athleteId: person.athleteId,
      name: person.name,
      weeks,
      speed,
      fade,
      lastSets,
      tonnageKg: person.sessions.reduce((sum, one) => sum + (one.sum?.tonnageKg ?? 0), 0),
      maxKg: person.max?.kg,
    };
  });
  return {
    rows,
    waveMean: squadMean(known.flatMap((one) => own(one.wave))),
    longMean,
    towards: towards.words,
  };
}

/** A day's measured sets at the load it did most, in order. */
function mainSets(sum: LiftSum): WaveRow["lastSets"] {
  const by = new Map<number, number>();
  for (const set of sum.sets)
    if (set.loadKg !== undefined) by.set(set.loadKg, (by.get(set.loadKg) ?? 0) + 1);
  const [main] = [...by].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [];
  return sum.sets.flatMap((set) =>
    set.loadKg === main && set.bestMps !== undefined && !set.older
      ? [{ number: set.number, bestMps: set.bestMps, cut: set.cut }]
      : [],
  );
}
