import { mondayOf } from "../../../core/review/athlete-weeks";
import { CALL_NAMES } from "../../../core/review/calls";
import type { WeekDigest } from "../../../core/review/week-digest";
import { massKg } from "../../../core/units/mass";
import { addDays, type LocalDate } from "../../../core/units/time";
import { listVariants, recordsOf } from "../../../db/queries/maxes.server";
import { notesBetween } from "../../../db/queries/notes.server";
import { competitions } from "../../../db/queries/person.server";
import { decidedCalls } from "../../../db/queries/reviews.server";
import { sessionsBetween } from "../../../db/queries/sessions.server";
import { groupById, listAthletes, listGroups } from "../../../db/queries/squads.server";
import { liftPoints, newestWork, otherWork } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { Principal } from "../../platform/rights";
import { readGroupCalls } from "../lifters/group-calls.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { overSums } from "../lifters/session-sums.server";
import { readPlaces } from "../lifters/today.server";

/** Competitions are named so far ahead, days. */
const AHEAD_DAYS = 14;

/** A squad's week: what was done, decided, written and is to come; nothing on anybody's health. */
export async function readWeek(principal: Principal, asked: { groupId: string; on: string }) {
  return overSums(principal, async (tx) => {
    const [groups, { today }, unit] = await Promise.all([
      listGroups(tx),
      readPlaces(tx),
      readerUnit(tx, principal),
    ]);
    const group = groups.find((one) => one.id === asked.groupId) ?? groups[0];
    const on =
      /^\d{4}-\d\d-\d\d$/.test(asked.on) && !Number.isNaN(Date.parse(asked.on))
        ? (asked.on as LocalDate)
        : today;
    const from = mondayOf(asked.on === "" && group ? await trainedLast(tx, group.id, today) : on);
    return {
      groups: groups.map(({ id, name }) => ({ id, name })),
      groupId: group?.id ?? "",
      today,
      unit,
      digest: group && (await digestOf(tx, group, from, today)),
    };
  });
}

export type WeekPage = Awaited<ReturnType<typeof readWeek>>;

/** The newest day on which somebody of a group trained: whoever looks on a Monday wants the week before. */
async function trainedLast(
  tx: TeamTransaction,
  groupId: string,
  today: LocalDate,
): Promise<LocalDate> {
  const kept = await groupById(tx, groupId);
  const people = kept ? await listAthletes(tx, kept) : [];
  const newest = await newestWork(
    tx,
    people.map((one) => one.id),
  );
  return newest && newest.localeCompare(today) < 0 ? newest : today;
}

async function digestOf(
  tx: TeamTransaction,
  group: { id: string; name: string },
  from: LocalDate,
  today: LocalDate,
): Promise<WeekDigest | undefined> {
  const kept = await groupById(tx, group.id);
  if (!kept) return undefined;
  const to = addDays(from, 6);
  const people = await listAthletes(tx, kept);
  const ids = people.map((one) => one.id);
  const nameOf = (id: string | null) => people.find((one) => one.id === id)?.name;
  // What waits is a matter of today: a week that is over shows what was decided in it.
  const [points, { exercises, pairings }, between, waiting, decided, listed, records, ahead] =
    await Promise.all([
      liftPoints(tx, { athleteIds: ids, from, to }),
      otherWork(tx, { athleteIds: ids, from, to }),
      sessionsBetween(tx, from, to),
      to < today
        ? undefined
        : readGroupCalls(tx, group.id, today).then((found) => found.calls.length),
      decidedCalls(tx, from),
      listVariants(tx),
      recordsOf(tx, ids),
      competitions(tx),
    ]);
  const worked = new Set([...points, ...exercises, ...pairings].map((one) => one.sessionId));
  const sessions = between.filter((one) => worked.has(one.id));
  const variants = new Map(listed.map((one) => [one.id, one.name]));
  const inWeek = (date: LocalDate) => date >= from && date <= to;
  return {
    squadName: group.name,
    from,
    to,
    sessions: sessions.map(({ date, title }) => ({ date, title })),
    athletes: people.flatMap((person) => {
      const lifts = points.filter((one) => one.athleteId === person.id);
      const done = exercises.filter((one) => one.athleteId === person.id);
      const paired = pairings.filter((one) => one.athleteId === person.id);
      const sessions = new Set([...lifts, ...done, ...paired].map((one) => one.sessionId)).size;
      if (sessions === 0) return [];
      const sum = (pick: (one: (typeof lifts)[number]["points"]) => number) =>
        lifts.reduce((n, one) => n + pick(one.points), 0);
      return [
        {
          name: person.name,
          sessions,
          setsDone: sum((one) => one.setsDone) + done.reduce((n, one) => n + one.sum.setsDone, 0),
          setsPlanned:
            sum((one) => one.setsPlanned) + done.reduce((n, one) => n + one.sum.setsPlanned, 0),
          cut: sum((one) => one.cut),
          tonnageKg:
            sum((one) => one.tonnageKg) + done.reduce((n, one) => n + (one.sum.tonnageKg ?? 0), 0),
          heavyDays: new Set(lifts.flatMap((one) => (one.points.heavy ? [one.date] : []))).size,
          faults: [...new Set(lifts.flatMap((one) => one.points.faults.map(([fault]) => fault)))],
        },
      ];
    }),
    records: records
      .filter((one) => inWeek(one.date) && (one.kind === "tested" || one.kind === "competition"))
      .map((one) => ({
        name: nameOf(one.athleteId) ?? "",
        lift: variants.get(one.variantId) ?? "",
        kg: massKg(one.load),
        date: one.date,
      })),
    waiting,
    decided: decided
      .filter(
        (one) =>
          inWeek(one.date) &&
          one.undoneAt === null &&
          (one.squadId === group.id || ids.includes(one.athleteId ?? "")),
      )
      .map((one) => ({
        name: nameOf(one.athleteId) ?? group.name,
        words: CALL_NAMES[one.kind],
        decision: one.decision,
      })),
    notes: (await notesBetween(tx, { from, to, aboutIds: [group.id, ...ids, ...worked] })).map(
      (one) => ({
        about:
          nameOf(one.athleteId) ??
          sessions.find((session) => session.id === one.aboutId)?.title ??
          group.name,
        date: one.date,
        words: one.words,
        by: one.enteredBy,
      }),
    ),
    coming: ahead
      .filter(
        (one) =>
          one.date >= from &&
          one.date <= addDays(to, AHEAD_DAYS) &&
          (one.squadId === group.id || ids.includes(one.athleteId ?? "")),
      )
      .map(({ date, name }) => ({ date, name })),
  };
}
