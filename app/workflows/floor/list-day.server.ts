import { addDays, daysBetween, type LocalDate } from "../../../core/units/time";
import { expandRecipe } from "../../../core/wave/recipe";
import { listPlans, type PlanRow } from "../../../db/queries/plans.server";
import { listSessions, type SessionHead } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

/** One week of a plan, on its date. */
export interface PlannedDay {
  planId: string;
  planName: string;
  squadName: string;
  roomName: string;
  liftName: string;
  week: number;
  weeks: number;
  date: LocalDate;
  session: { id: string; status: "running" | "ended" } | undefined;
  athletes: Array<{ id: string; name: string }>;
}

export interface Day {
  today: PlannedDay[];
  coming: PlannedDay[];
  running: SessionHead[];
  recent: SessionHead[];
}

const COMING_DAYS = 14;
/** A planned day that was not done stays on offer this long. */
const MISSED_DAYS = 7;

/** What is planned for today, what comes, what runs and what was done. */
export function listDay(principal: Principal): Promise<Day> {
  return inTeam(principal, async (tx) => {
    const sessions = await listSessions(tx, 200);
    const athletes = await listAthletes(tx);
    const days = (await listPlans(tx)).flatMap((row) =>
      plannedDays(row, sessions).map((day) => ({
        ...day,
        today: localDate(row.zone),
        athletes: athletes
          .filter((athlete) => athlete.squadId === row.plan.squadId)
          .map(({ id, name }) => ({ id, name })),
      })),
    );
    const open = days.filter((day) => day.session === undefined);
    return {
      today: days.filter(
        (day) =>
          day.date === day.today && (day.session === undefined || day.session.status === "running"),
      ),
      coming: open
        .filter((day) => {
          const away = daysBetween(day.today, day.date);
          return away !== 0 && away >= -MISSED_DAYS && away <= COMING_DAYS;
        })
        .sort((a, b) => a.date.localeCompare(b.date)),
      running: sessions.filter((session) => session.status === "running"),
      recent: sessions.filter((session) => session.status === "ended").slice(0, 8),
    };
  });
}

function plannedDays(row: PlanRow, sessions: SessionHead[]): Omit<PlannedDay, "athletes">[] {
  const weeks = expandRecipe(row.plan.recipe);
  return weeks.map((week) => {
    const session = sessions.find((one) => one.planId === row.plan.id && one.week === week.number);
    return {
      planId: row.plan.id,
      planName: row.plan.name,
      squadName: row.squadName,
      roomName: row.roomName,
      liftName: row.variant.name,
      week: week.number,
      weeks: weeks.length,
      date: addDays(row.plan.startDate, 7 * (week.number - 1)),
      session: session && { id: session.id, status: session.status },
    };
  });
}
