import { uuidv7 } from "uuidv7";
import { simplerComplex } from "../../../core/contrast/adapt";
import type { Complex } from "../../../core/contrast/complex";
import {
  checkComplex,
  complexSettings,
  type PairingAthlete,
} from "../../../core/contrast/complex-checks";
import { runSettings } from "../../../core/contrast/run-settings";
import { freezePairing, PAIRING_SLOT } from "../../../core/floor/freeze-pairing";
import { pairingsOf } from "../../../core/floor/frozen";
import { dateOf, pairingWeek } from "../../../core/plan/block";
import { daysBetween } from "../../../core/units/time";
import { ensureComplexes, listComplexes } from "../../../db/queries/contrast.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import {
  entriesAfter,
  frozenOf,
  insertSession,
  listPairings,
} from "../../../db/queries/sessions.server";
import { groupById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { ownGaps } from "../lifters/own-gaps.server";
import { loadsOf, pairingLifters } from "../lifters/pairing-loads.server";
import { readPlaces } from "../lifters/today.server";

const NO_RUN = failed("no-run", "This pairing is not in your team any more.");

/** The athletes' own gaps, where a complex asks for potentiation. */
async function gapsFor(tx: TeamTransaction, complex: Complex): Promise<Map<string, number>> {
  return complex.aim === "potentiation" ? ownGaps(tx) : new Map();
}

/** What a squad brings to a complex: checks by name, and each athlete's loads. */
export function previewPairing(
  principal: Principal,
  complexId: string,
  groupId: string,
  week: number,
) {
  return inTeam(principal, async (tx) => {
    await ensureComplexes(tx);
    const row = (await listComplexes(tx)).find((one) => one.id === complexId);
    if (!row) return failed("gone", "This complex is not in your library any more.");
    const people = await pairingLifters(tx, await groupById(tx, groupId), [row.complex]);
    const gaps = await gapsFor(tx, row.complex);
    const settings = complexSettings(await coachValues(tx));
    const asked = (one: (typeof people)[number]): PairingAthlete => ({
      name: one.lifter.name,
      squatPerBody: one.squatPerBody,
      trainingYears: one.lifter.trainingYears,
    });
    return done({
      checks: checkComplex(row.complex, people.map(asked), true, settings),
      athletes: people.map((one) => ({
        id: one.lifter.id,
        name: one.lifter.name,
        weak: checkComplex(row.complex, [asked(one)], true, settings).some(
          (check) => check.code === "strength-first",
        ),
        instructions: [...one.lifter.instructions],
        gapS: gaps.get(one.lifter.id),
        loads: loadsOf(row.complex, week, one),
      })),
    });
  });
}

/** Puts a complex on the floor for some athletes; who is not strong enough may do less. */
export function startPairing(
  principal: Principal,
  input: {
    complexId: string;
    groupId: string;
    /** The complex's own week: its jumps' loads move with it. */
    week: number;
    present: readonly string[];
    simpler: readonly string[];
    /** Who keeps the complex's gap although a test found an own one. */
    average: readonly string[];
  },
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const row = (await listComplexes(tx)).find((one) => one.id === input.complexId);
    if (!row) return failed("gone", "This complex is not in your library any more.");
    const group = await groupById(tx, input.groupId);
    const people = (await pairingLifters(tx, group, [row.complex])).filter((one) =>
      input.present.includes(one.lifter.id),
    );
    if (people.length === 0)
      return failed("nobody", "Nobody was chosen. Tick who is here, then start again.");
    const id = uuidv7();
    const gaps = await gapsFor(tx, row.complex);
    const places = await readPlaces(tx);
    const at = now();
    const date = people[0]?.today ?? places.today;
    await insertSession(tx, {
      id,
      slotId: PAIRING_SLOT,
      date,
      status: "running",
      frozen: freezePairing({
        complex: row.complex,
        settings: runSettings(await coachValues(tx)),
        athletes: people.map((one) => {
          const { lifter } = one;
          const simpler = input.simpler.includes(lifter.id);
          const complex = simpler ? simplerComplex(row.complex) : row.complex;
          const gapS = input.average.includes(lifter.id) ? undefined : gaps.get(lifter.id);
          return {
            athleteId: lifter.id,
            name: lifter.name,
            unit: lifter.unit ?? "kg",
            simpler,
            ...(gapS === undefined ? {} : { gapS }),
            loads: loadsOf(complex, input.week, one),
          };
        }),
        place: { id, name: "Floor" },
        date,
        zone: places.zone,
      }),
      startedAt: at,
      startedBy: principal.name,
    });
    return done({ id });
  });
}

/** A pairing as its page needs it: what was frozen, and every entry so far. */
export function readPairing(principal: Principal, id: string) {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, id);
    if (!row || pairingsOf(row.frozen).length === 0) return NO_RUN;
    return done({
      id: row.id,
      frozen: row.frozen,
      status: row.status,
      entries: await entriesAfter(tx, id, 0),
    });
  });
}

const PLANNED_BACK_DAYS = 3;
const PLANNED_ON_DAYS = 7;

/** The pairings that plans have about now, by date. */
export function plannedPairings(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const complexes = await listComplexes(tx);
    const found = (await listPlans(tx)).flatMap((row) => {
      const { block } = row.plan;
      const today = localDate(row.zone);
      return Object.entries(block.pairings ?? {}).flatMap(([id, pairing]) => {
        const day = block.days[pairing.dayId];
        const complex = complexes.find((one) => one.lineageId === pairing.complexId);
        if (!day || !complex) return [];
        return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week) => {
          const own = pairingWeek(block, pairing, week);
          const date = dateOf(block, week, day);
          const away = daysBetween(today, date);
          if (own === undefined || away < -PLANNED_BACK_DAYS || away > PLANNED_ON_DAYS) return [];
          return [
            {
              key: `${row.plan.id}/${id}/${week}`,
              planName: block.name,
              groupId: row.plan.squadId ?? row.plan.athleteId ?? "",
              squadName: row.squadName,
              complexId: complex.id,
              name: complex.complex.name,
              week: own,
              date,
              today: away === 0,
            },
          ];
        });
      });
    });
    return found.sort((a, b) => a.date.localeCompare(b.date));
  });
}

/** The newest pairings, those that run first. */
export function readPairings(principal: Principal) {
  return inTeam(principal, async (tx) =>
    (await listPairings(tx, 12))
      .map((run) => ({
        id: run.id,
        name: run.title,
        date: run.date,
        count: pairingsOf(run.frozen).reduce(
          (sum, slot) => sum + slot.groups.reduce((n, group) => n + group.athletes.length, 0),
          0,
        ),
        running: run.status === "running",
      }))
      .sort((a, b) => Number(b.running) - Number(a.running)),
  );
}
