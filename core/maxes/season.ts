import { daysBetween, type LocalDate } from "../units/time";

/** What an athlete trains for, and where in the year. */
export const GOALS = ["general-strength", "sport", "competition-lifting"] as const;
export type Goal = (typeof GOALS)[number];
export const GOAL_NAMES: Record<Goal, string> = {
  "general-strength": "General strength",
  sport: "Sport",
  "competition-lifting": "Competition lifting",
};

export const SEASON_PHASES = ["off-season", "pre-season", "in-season", "peak"] as const;
export type SeasonPhase = (typeof SEASON_PHASES)[number];
export const SEASON_PHASE_NAMES: Record<SeasonPhase, string> = {
  "off-season": "Off-season",
  "pre-season": "Pre-season",
  "in-season": "In season",
  peak: "Peak",
};

/** From this many days before a competition its nearness is marked. */
export const COMPETITION_MARK_DAYS = 28;
/** No testing for this long after a competition. */
export const AFTER_COMPETITION_DAYS = 14;

export interface Competition {
  name: string;
  date: LocalDate;
}

export interface CompetitionMark {
  competition: Competition;
  /** Days to it; negative after it. */
  days: number;
  kind: "before" | "day" | "after";
  /** No testing in the fortnight after. */
  testingRefused: boolean;
}

/**
 * The nearest mark of a day: the next competition within four weeks, or one of the last fortnight.
 * Near one the coach gives the factor; none is invented here.
 */
export function competitionMark(
  competitions: readonly Competition[],
  day: LocalDate,
): CompetitionMark | undefined {
  const marks = competitions.flatMap((competition): CompetitionMark[] => {
    const days = daysBetween(day, competition.date);
    if (days > COMPETITION_MARK_DAYS || days < -AFTER_COMPETITION_DAYS) return [];
    const kind = days > 0 ? "before" : days === 0 ? "day" : "after";
    return [{ competition, days, kind, testingRefused: kind === "after" }];
  });
  // The fortnight after comes first: it refuses, while nearness only marks.
  return marks.sort(
    (a, b) =>
      Number(b.testingRefused) - Number(a.testingRefused) || Math.abs(a.days) - Math.abs(b.days),
  )[0];
}

export function describeMark(mark: CompetitionMark): string {
  const { competition, days, kind } = mark;
  const count = Math.abs(days);
  const span =
    count >= 14 && kind === "before"
      ? `${Math.floor(count / 7)} weeks`
      : `${count} ${count === 1 ? "day" : "days"}`;
  if (kind === "day") return `${competition.name} today`;
  return kind === "before"
    ? `${span} to ${competition.name}`
    : `No testing: ${span} after ${competition.name}`;
}
