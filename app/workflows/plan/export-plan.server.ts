import { createHash, randomBytes } from "node:crypto";
import ical from "ical-generator";
import { uuidv7 } from "uuidv7";
import { type Block, dateOf, daysOf, ownInSlot, slotsOf, slotWeek } from "../../../core/plan/block";
import { elsewhereWords, slotCells, variantIn } from "../../../core/plan/block-loads";
import { dayTimes } from "../../../core/plan/day-clock";
import { atLift } from "../../../core/prescribe/lifter";
import { methodWords } from "../../../core/prescribe/method";
import { ownWords } from "../../../core/prescribe/own-words";
import { FREE } from "../../../core/prescribe/rigging";
import { describeBasis } from "../../../core/recipe/basis";
import { targetOf } from "../../../core/recipe/speeds";
import { instantAt } from "../../../core/units/time";
import { addFeed, feedByToken, feedsOf, revokeFeed } from "../../../db/queries/feeds.server";
import { coachValues, listSchools } from "../../../db/queries/plan-library.server";
import { newestVersion, planById } from "../../../db/queries/plans.server";
import type { TeamTransaction } from "../../../db/team.server";
import { blockAsJson } from "../../forms/block";
import { csvOf } from "../../forms/delimited";
import { localDate, now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { workLookup, workTable } from "../lifters/plan-checks.server";
import { NO_PLAN } from "../lifters/plan-edit.server";
import { planLifters } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import { teamDay } from "../lifters/today.server";

/** The dates of a block, nameless: what is on, not who is in it. */
function calendarOf(input: {
  block: Block;
  title: string;
  zone: string;
  nameOf: (slotId: string, week: number) => string;
}): string {
  const { block, title, zone, nameOf } = input;
  // Without a zone of its own moments are written as Greenwich's, which every calendar reads.
  const calendar = ical({ name: title });
  calendar.x("X-WR-TIMEZONE", zone);
  const timed = dayTimes(block);
  for (let week = 1; week <= block.weeks; week++) {
    for (const day of daysOf(block)) {
      const slots = slotsOf(block, day.id).filter(
        (slot) => (slotWeek(block, slot, week)?.sets.length ?? 0) > 0,
      );
      if (slots.length === 0) continue;
      const date = dateOf(block, week, day);
      const next = new Date(`${date}T00:00:00Z`);
      const times = timed.find((one) => one.dayId === day.id && one.week === week);
      calendar.createEvent({
        id: `${title}-${week}-${day.id}`,
        ...(times
          ? {
              start: instantAt(zone, date, times.startMin),
              end: instantAt(zone, date, times.endMin),
            }
          : { start: next, end: new Date(next.getTime() + 86_400_000), allDay: true }),
        summary: `${title}, week ${week}: ${day.name}`,
        description: slots.map((slot) => nameOf(slot.id, week)).join("\n"),
      });
    }
  }
  return calendar.toString();
}

/** A plan as a file: the block as JSON, everybody's loads as a table, its dates as a calendar. */
export function exportPlan(
  principal: Principal,
  planId: string,
  as: "json" | "csv" | "ics",
): Promise<Outcome<{ name: string; type: string; text: string }>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, planId);
    if (!row) return NO_PLAN;
    const { block } = row.plan;
    const name = block.name.toLowerCase().replace(/[^a-z0-9]+/g, "-");
    if (as === "json") {
      const school = (await listSchools(tx)).find((one) => one.id === block.schoolId);
      return done({
        name: `${name}.json`,
        type: "application/json",
        text: blockAsJson(block, school?.school.name ?? ""),
      });
    }
    const table = await workTable(tx, row);
    const lookup = workLookup(table);
    if (as === "ics") {
      const text = calendarOf({
        block,
        title: `${block.name}, ${row.squadName}`,
        zone: row.zone,
        nameOf: (slotId) => {
          const slot = block.slots[slotId];
          return (slot && lookup(slot, undefined)?.name) || slot?.recipe.name || "";
        },
      });
      return done({ name: `${name}.ics`, type: "text/calendar", text });
    }
    const room = await blockRoom(tx, row, "kg");
    if (!room) return failed("no-rack", `${row.roomName} has no rack with a bar yet.`);
    const athletes = await planLifters(tx, row, block, localDate(row.zone));
    const weeks = Array.from({ length: block.weeks }, (_, i) => i + 1);
    const values = await coachValues(tx);
    const rows: string[][] = [];
    for (const day of daysOf(block)) {
      for (const slot of slotsOf(block, day.id)) {
        const liftName = lookup(slot, undefined)?.name ?? slot.recipe.name;
        const theirs = ownInSlot(block, slot.id);
        for (const cell of slotCells({ block, slotId: slot.id, weeks, athletes, room, liftName })) {
          const how = cell.wave
            ? methodWords(slot.recipe, cell.wave, slot.box, values.smallestStopS)
            : [];
          athletes.forEach((athlete, i) => {
            const runs = cell.byAthlete[i] ?? [];
            const own = cell.wave
              ? ownWords({
                  rigging: cell.riggings[i] ?? FREE,
                  loadsKg: runs.map((run) => run.loadKg),
                  facts: atLift(athlete, variantIn(slot, cell.wave) ?? ""),
                  basis: slot.recipe.basis,
                  coachSpeed: targetOf(slot.recipe) !== undefined,
                  unit: "kg",
                  addRestS: theirs.rests.get(athlete.id) ?? 0,
                  floorMps: theirs.floors.get(athlete.id),
                })
              : [];
            for (const run of runs) {
              const set = cell.wave?.sets.find((one) => one.key === run.key);
              rows.push([
                dateOf(block, cell.week, day),
                String(cell.week),
                day.name,
                liftName,
                athlete.name,
                String(run.count),
                String(run.reps),
                set ? describeBasis(set.basis, "kg") : "",
                `${slot.recipe.rest.leastS}-${slot.recipe.rest.mostS}`,
                run.loadKg === undefined ? "" : String(run.loadKg),
                run.overridden ? "own" : "",
                [...how, ...own, ...elsewhereWords(runs, "kg")].join("; "),
                run.reason ?? "",
              ]);
            }
          });
        }
      }
    }
    const head = [
      "date",
      "week",
      "day",
      "slot",
      "athlete",
      "sets",
      "reps",
      "asked",
      "rest_s",
      "load_kg",
      "by",
      "how",
      "no_load_because",
    ];
    return done({ name: `${name}.csv`, type: "text/csv", text: csvOf(head, rows) });
  });
}

const hashOf = (token: string) => createHash("sha256").update(token).digest("hex");

const SHOWN_ONCE = failed(
  "shown-once",
  "This address was made already and is shown once only. Revoke it and make another, if it was not copied.",
);

/** Makes a calendar address that can be followed without a sign-in. Shown once. */
export function makeFeed(
  principal: Principal,
  planId: string,
): Promise<Outcome<{ address: string }>> {
  const make = async (tx: TeamTransaction) => {
    if (!(await planById(tx, planId))) return NO_PLAN;
    const token = randomBytes(24).toString("base64url");
    await addFeed(tx, {
      id: uuidv7(),
      planId,
      tokenHash: hashOf(token),
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ address: `/feed/${token}.ics` });
  };
  return inTeamOnce(principal, make, SHOWN_ONCE);
}

export function listFeeds(principal: Principal, planId: string) {
  return inTeam(principal, async (tx) => {
    const dayOf = await teamDay(tx);
    return (await feedsOf(tx, planId)).map(({ id, revokedAt, enteredBy, enteredAt }) => ({
      id,
      revoked: revokedAt !== null,
      by: enteredBy,
      on: dayOf(enteredAt),
    }));
  });
}

export function endFeed(principal: Principal, id: string): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await revokeFeed(tx, id, now());
    return done(null);
  });
}

/** The calendar behind a token; undefined where it was revoked or never was. */
export async function readFeed(token: string): Promise<string | undefined> {
  const feed = await feedByToken(databases().auth.database, hashOf(token));
  if (!feed || feed.revokedAt) return undefined;
  return inTeam({ teamId: feed.teamId }, async (tx) => {
    const row = await planById(tx, feed.planId);
    if (!row) return undefined;
    const block = (await newestVersion(tx, feed.planId))?.block ?? row.plan.block;
    return calendarOf({
      block,
      title: "Training",
      zone: row.zone,
      nameOf: (slotId) => block.slots[slotId]?.recipe.name ?? "",
    });
  });
}
