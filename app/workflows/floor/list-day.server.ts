import {
  type Block,
  dateOf,
  daysOf,
  isIn,
  lastDate,
  slotsOf,
  slotWeek,
} from "../../../core/plan/block";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { listPlans, newestVersions, type PlanRow } from "../../../db/queries/plans.server";
import { listSessions, type SessionHead } from "../../../db/queries/sessions.server";
import { isFor, listAthletes } from "../../../db/queries/squads.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

/** One lift of a plan on its date. */
export interface PlannedDay {
  planId: string;
  planName: string;
  squadName: string;
  roomName: string;
  slotId: string;
  liftName: string;
  week: number;
  weeks: number;
  date: LocalDate;
  session: { id: string; status: "running" | "ended" } | undefined;
  /** Athletes see it; else a coach runs it as a draft. */
  published: boolean;
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
    // What is over is not expanded; what was published is what is started.
    const plans = (await listPlans(tx)).filter(
      (row) => daysBetween(lastDate(row.plan.block), localDate(row.zone)) <= MISSED_DAYS,
    );
    const versions = await newestVersions(
      tx,
      plans.map((row) => row.plan.id),
    );
    const days = plans.flatMap((row) => {
      const version = versions.get(row.plan.id);
      const block = version?.block ?? row.plan.block;
      const today = localDate(row.zone);
      const here = athletes.filter((athlete) => isFor(row.plan, athlete));
      return plannedDays(row, block, sessions).map((day) => ({
        ...day,
        today,
        published: version !== undefined,
        athletes: here
          .filter((athlete) => isIn(block, athlete.id, day.date))
          .map(({ id, name }) => ({ id, name })),
      }));
    });
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

/** The lifts of every day of a plan that can be put on the floor. */
function plannedDays(
  row: PlanRow,
  block: Block,
  sessions: SessionHead[],
): Omit<PlannedDay, "athletes" | "published">[] {
  return daysOf(block).flatMap((day) =>
    slotsOf(block, day.id).flatMap((slot) => {
      const { work } = slot;
      const variant = row.variants.find((one) => work.kind === "lift" && one.id === work.variantId);
      if (!variant) return [];
      return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week) => {
        if ((slotWeek(block, slot, week)?.sets.length ?? 0) === 0) return [];
        const session = sessions.find(
          (one) => one.planId === row.plan.id && one.week === week && one.slotId === slot.id,
        );
        return [
          {
            planId: row.plan.id,
            planName: block.name,
            squadName: row.squadName,
            roomName: row.roomName,
            slotId: slot.id,
            liftName: variant.name,
            week,
            weeks: block.weeks,
            date: dateOf(block, week, day),
            session: session && { id: session.id, status: session.status },
          },
        ];
      });
    }),
  );
}
