import { ladderStanding } from "../../../core/boxsquat/ladder";
import {
  type Block,
  dateOf,
  daysOf,
  exerciseIn,
  isIn,
  lastDate,
  pairingsOf,
  pairingWeek,
  type SectionKind,
  slotsOf,
  slotWeek,
  TEMPLATE_ORDER,
} from "../../../core/plan/block";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { ladderGroups, ladderMarks } from "../../../db/queries/box.server";
import { listComplexes } from "../../../db/queries/contrast.server";
import { listExercises } from "../../../db/queries/library.server";
import { listPlans, newestVersions, type PlanRow } from "../../../db/queries/plans.server";
import {
  listSessions,
  type PlanSession,
  type SessionHead,
} from "../../../db/queries/sessions.server";
import { isFor, listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { isOfFloor } from "../lifters/alone.server";

/** A slot or a pairing of a day that is not on the floor yet. */
export interface PlannedSlot {
  id: string;
  section: SectionKind;
  name: string;
}

/** One day of a plan on its date, with what of it is still to be done. */
export interface PlannedDay {
  planId: string;
  planName: string;
  squadName: string;
  roomId: string;
  roomName: string;
  dayId: string;
  week: number;
  weeks: number;
  date: LocalDate;
  slots: PlannedSlot[];
  /** Athletes see it; else a coach runs it as a draft. */
  published: boolean;
  /** Who is of it; `alone`: trains or trained it on a phone of their own. */
  athletes: Array<{ id: string; name: string; alone?: "running" | "ended" }>;
  /** How many of them stand on a rung of the squad's teaching ladder; 0 where it has none. */
  onLadder: number;
}

/** A session with who trains it alone. */
export interface ListedSession extends SessionHead {
  alone: string | undefined;
}

export interface Day {
  today: PlannedDay[];
  coming: PlannedDay[];
  running: ListedSession[];
  recent: ListedSession[];
}

const COMING_DAYS = 14;
/** A planned day that was not done stays on offer this long. */
const MISSED_DAYS = 7;

/** What is planned for today, what comes, what runs and what was done. */
export function listDay(principal: Principal): Promise<Day> {
  return inTeam(principal, async (tx) => {
    // Apart: many who train alone must not hide what the squads have done.
    const sessions = [
      ...(await listSessions(tx, 200, "floor")),
      ...(await listSessions(tx, 200, "alone")),
    ];
    const athletes = await listAthletes(tx);
    // What is over is not expanded; what was published is what is started.
    const plans = (await listPlans(tx)).filter(
      (row) => daysBetween(lastDate(row.plan.block), localDate(row.zone)) <= MISSED_DAYS,
    );
    const versions = await newestVersions(
      tx,
      plans.map((row) => row.plan.id),
    );
    const names = await workNames(tx);
    const ladders = await onLadders(tx);
    const nameOf = new Map(athletes.map((one) => [one.id, one.name]));
    const listed = sessions.map((session) => ({
      ...session,
      alone: session.ownOf === null ? undefined : (nameOf.get(session.ownOf) ?? "somebody"),
    }));
    const days = plans.flatMap((row) => {
      const version = versions.get(row.plan.id);
      const block = version?.block ?? row.plan.block;
      const today = localDate(row.zone);
      const here = athletes.filter((athlete) => isFor(row.plan, athlete));
      const climbs = ladders(row.plan.squadId);
      const begun = begunIn(sessions.filter(isOfFloor(row)));
      const alone = aloneIn(sessions);
      return plannedDays(row, block, names, begun).map((day) => ({
        ...day,
        today,
        published: version !== undefined,
        athletes: here
          .filter((athlete) => isIn(block, athlete.id, day.date))
          .map(({ id, name }) => ({ id, name, ...alone(id, day) })),
        onLadder: here.filter((athlete) => climbs(athlete.id)).length,
      }));
    });
    return {
      today: days.filter((day) => day.date === day.today),
      coming: days
        .filter((day) => {
          const away = daysBetween(day.today, day.date);
          return away !== 0 && away >= -MISSED_DAYS && away <= COMING_DAYS;
        })
        .sort((a, b) => a.date.localeCompare(b.date)),
      running: listed.filter((session) => session.status === "running"),
      recent: listed.filter((session) => session.status === "ended").slice(0, 8),
    };
  });
}

/** Slots of plans' weeks that are on the floor or were, "plan/week/slot". */
function begunIn(sessions: readonly PlanSession[]): ReadonlySet<string> {
  return new Set(
    sessions.flatMap((session) =>
      session.parts.map((part) => `${part.planId}/${part.week}/${part.slotId}`),
    ),
  );
}

/** Whether somebody trains or trained slots of a plan's day alone. */
function aloneIn(sessions: readonly PlanSession[]) {
  const own = sessions.filter((one) => one.ownOf !== null);
  return (athleteId: string, day: Pick<PlannedDay, "planId" | "week" | "slots">) => {
    const found = own.find(
      (one) =>
        one.ownOf === athleteId &&
        one.parts.some(
          (part) =>
            part.planId === day.planId &&
            part.week === day.week &&
            day.slots.some((slot) => slot.id === part.slotId),
        ),
    );
    return found ? { alone: found.status } : {};
  };
}

/** Who of a squad still stands on a rung, where the squad's ladder was begun. */
async function onLadders(tx: TeamTransaction) {
  const groups = await ladderGroups(tx);
  if (groups.size === 0) return () => () => false;
  const marks = await ladderMarks(tx);
  const ready = (athleteId: string) =>
    ladderStanding(
      marks
        .filter((mark) => mark.athleteId === athleteId)
        .map((mark) => ({ ...mark, by: mark.enteredBy })),
    ).ready;
  return (squadId: string | null) => {
    const begun = squadId !== null && groups.has(squadId);
    return (athleteId: string) => begun && !ready(athleteId);
  };
}

interface WorkNames {
  exercise: ReadonlyMap<string, string>;
  complex: ReadonlyMap<string, string>;
}

async function workNames(tx: Parameters<typeof listExercises>[0]): Promise<WorkNames> {
  const [{ rows }, complexes] = [await listExercises(tx), await listComplexes(tx)];
  return {
    exercise: new Map(rows.map((one) => [one.id, one.name])),
    complex: new Map(complexes.map((one) => [one.lineageId, one.complex.name])),
  };
}

/** The days of a plan with what of them can be put on the floor. */
function plannedDays(
  row: PlanRow,
  block: Block,
  names: WorkNames,
  begun: ReadonlySet<string>,
): Array<Omit<PlannedDay, "athletes" | "published" | "onLadder">> {
  const order = TEMPLATE_ORDER[block.template];
  return daysOf(block).flatMap((day) =>
    Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week) => {
      const lifted = slotsOf(block, day.id).flatMap((slot): PlannedSlot[] => {
        if ((slotWeek(block, slot, week)?.sets.length ?? 0) === 0) return [];
        const { work } = slot;
        const name =
          work.kind === "lift"
            ? row.variants.find((one) => one.id === work.variantId)?.name
            : names.exercise.get(exerciseIn(block, slot, week) ?? "");
        return name === undefined ? [] : [{ id: slot.id, section: slot.section, name }];
      });
      const paired = pairingsOf(block, day.id).flatMap((pairing): PlannedSlot[] => {
        const name = names.complex.get(pairing.complexId);
        return pairingWeek(block, pairing, week) === undefined || name === undefined
          ? []
          : [{ id: pairing.id, section: "power", name }];
      });
      const slots = [...lifted, ...paired]
        .filter((slot) => !begun.has(`${row.plan.id}/${week}/${slot.id}`))
        .sort((a, b) => order.indexOf(a.section) - order.indexOf(b.section));
      if (slots.length === 0) return [];
      return [
        {
          planId: row.plan.id,
          planName: block.name,
          squadName: row.squadName,
          roomId: row.plan.roomId,
          roomName: row.roomName,
          dayId: day.id,
          week,
          weeks: block.weeks,
          date: dateOf(block, week, day),
          slots,
        },
      ];
    }),
  );
}
