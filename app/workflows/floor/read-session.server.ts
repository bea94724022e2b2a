import type { LogEntry } from "../../../core/floor/entries";
import {
  absentOf,
  type FrozenSession,
  type FrozenSlot,
  liftsOf,
  peopleOf,
  shareOfStation,
  withoutWorkings,
} from "../../../core/floor/frozen";
import { type FloorState, reduceFloor } from "../../../core/floor/state";
import { dayTimes } from "../../../core/racks/lift-problem";
import type { DayTimes } from "../../../core/racks/simulate-day";
import { tonnageWorking } from "../../../core/review/session-sum";
import { setWorking } from "../../../core/review/set-working";
import type { Working } from "../../../core/units/working";
import { racksOf, sensorAtRack } from "../../../db/queries/gear.server";
import { variantById } from "../../../db/queries/maxes.server";
import { authorNames } from "../../../db/queries/people.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { planById } from "../../../db/queries/plans.server";
import {
  entriesAfter,
  frozenOf,
  movedTo,
  sessionHead,
  simulatedLifters,
} from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { type SensorSource, simulatedSource } from "../../../device/sources";
import { standInLifter } from "../../../device/stand-in";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";
import { mayKnow } from "./may-know.server";

export interface SessionOnFloor {
  sessionId: string;
  status: "running" | "ended";
  frozen: FrozenSession;
  entries: LogEntry[];
  /** Who wrote entries, by the log's own name for them. */
  names: Record<string, string>;
}

/** A session as the floor reads it, with who was here and is refused in it. */
export interface FloorSession extends SessionOnFloor {
  /** For groups made anew. */
  times: DayTimes;
  leftOut: Array<{ name: string; code: string }>;
}

export const GONE =
  "This session is not there, or not in your room. Open the floor and choose again.";

export function readSession(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<FloorSession>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    if (!row || !mayKnow(principal, row)) return failed("no-session", GONE);
    return done({
      sessionId,
      status: row.status,
      frozen: withoutWorkings(row.frozen),
      entries: await entriesAfter(tx, sessionId, 0),
      names: await authorNames(tx),
      leftOut: await leftOutOf(tx, row.frozen),
      times: dayTimes(await coachValues(tx)),
    });
  });
}

/** Names stand outside of the session: who was erased since has none. */
async function leftOutOf(tx: TeamTransaction, frozen: FrozenSession) {
  if (!frozen.leftOut) return [];
  const people = await listAthletes(tx);
  return frozen.leftOut.flatMap(({ athleteId, code }) => {
    const person = people.find((one) => one.id === athleteId);
    return person ? [{ name: person.name, code }] : [];
  });
}

export interface StationOnFloor extends SessionOnFloor {
  stationId: string;
  /** "Rack 3", or a place's name. */
  name: string;
  /** By slot and athlete, where each one's frames come from, where there is a sensor. */
  sensors: Record<string, SensorSource>;
  /** Why the station measures nothing by itself; undefined where it does. */
  noSensor: string | undefined;
  /** Whose reps came along: of others the station knows which sets are done. */
  repsOf: string[];
}

/** What a session stands on, without its log. */
export function readFrozen(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<{ title: string; status: "running" | "ended"; frozen: FrozenSession }>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    if (!row || !mayKnow(principal, row)) return failed("no-session", GONE);
    return done({ title: row.title, status: row.status, frozen: row.frozen });
  });
}

/**
 * One working of a session: of a set's load as it was frozen, of what a set came to, or of a
 * lifter's tonnage in a slot. Pages carry none of them.
 */
export function readWorking(
  principal: Principal,
  sessionId: string,
  of: { kind: "load" | "set" | "tonnage"; slotId: string; athleteId: string; setKey: string },
): Promise<Outcome<{ working: Working }>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    if (!row || !mayKnow(principal, row)) return failed("no-session", GONE);
    const working =
      of.kind === "load"
        ? liftsOf(row.frozen)
            .filter((slot) => slot.slotId === of.slotId)
            .flatMap((slot) => [
              ...slot.groups.flatMap((one) => one.lifters),
              ...(slot.absent ?? []),
            ])
            .find((lifter) => lifter.athleteId === of.athleteId)
            ?.sets.find((set) => set.key === of.setKey)?.working
        : doneWorking(
            reduceFloor(row.frozen, await entriesAfter(tx, sessionId, 0, { of: [of.athleteId] })),
            of,
          );
    return working ? done({ working }) : failed("no-set", "This set is not in the session.");
  });
}

function doneWorking(
  floor: FloorState,
  of: { kind: "set" | "tonnage" | "load"; slotId: string; athleteId: string; setKey: string },
): Working | undefined {
  const racks = floor.racks.filter((rack) => rack.slot.slotId === of.slotId);
  const state = racks
    .flatMap((rack) => rack.lifters)
    .find((one) => one.lifter.athleteId === of.athleteId);
  if (!state) return undefined;
  if (of.kind === "tonnage") return tonnageWorking(state);
  const set = state.sets.find((one) => one.prescription.key === of.setKey);
  return set && setWorking(set, state.lifter.name, racks[0]?.slot.mostContactMps);
}

/** One station of a session, small enough for its tablet. */
export function readStation(
  principal: Principal,
  sessionId: string,
  stationId: string,
): Promise<Outcome<StationOnFloor>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    const station = row?.frozen.stations.find((one) => one.id === stationId);
    if (!row || !station || !mayKnow(principal, row)) {
      return failed("no-rack", GONE);
    }
    // A session keeps the rack's number: a rack that was drawn anew since has its sensor too.
    const sensor =
      station.kind === "rack" && row.roomId
        ? await sensorAtRack(tx, row.roomId, Number(station.name))
        : undefined;
    const repsOf = [
      ...new Set([
        ...row.frozen.slots.flatMap((slot) =>
          peopleOf({
            ...slot,
            groups: slot.groups.filter((group) => group.stationId === stationId),
          } as FrozenSlot).map((one) => one.athleteId),
        ),
        ...(await movedTo(tx, sessionId, stationId)),
      ]),
    ];
    return done({
      sessionId,
      stationId,
      repsOf,
      name: station.kind === "rack" ? `Rack ${station.name}` : station.name,
      status: row.status,
      frozen: shareOfStation(row.frozen),
      entries: await entriesAfter(tx, sessionId, 0, { repsOf }),
      names: await authorNames(tx),
      noSensor: station.kind === "rack" ? noSensorWords(sensor) : undefined,
      sensors: !sensor
        ? {}
        : sensor.by === "simulated"
          ? await simulatedAt(tx, row, { sessionId, stationId, rateHz: sensor.rateHz })
          : sendingAt(row.frozen, await rackNow(tx, row.roomId, station)),
    });
  });
}

/** What a rack without a measuring sensor says: its gear decides, and nothing else. */
function noSensorWords(sensor: unknown): string | undefined {
  return sensor
    ? undefined
    : "No sensor stands at this rack in Gear: type the speeds. Under Tablets a simulated one can be tried.";
}

/** The rack that has a station's number now: it may have been drawn anew since the start. */
async function rackNow(
  tx: TeamTransaction,
  roomId: string | null,
  station: { id: string; name: string },
): Promise<string> {
  if (roomId === null) return station.id;
  const racks = await racksOf(tx, roomId);
  return racks.find((one) => one.number === Number(station.name))?.rackId ?? station.id;
}

/** A sensor that sends by itself measures everybody at its rack, who comes later too. */
function sendingAt(frozen: FrozenSession, rackId: string): Record<string, SensorSource> {
  return Object.fromEntries(
    liftsOf(frozen).flatMap((slot) =>
      [...peopleOf(slot), ...absentOf(slot)].map(
        ({ athleteId }) => [`${slot.slotId}/${athleteId}`, { kind: "sensor", rackId }] as const,
      ),
    ),
  );
}

/** The simulated sensor's lifters of every lift at a rack, by "slot/athlete". */
async function simulatedAt(
  tx: TeamTransaction,
  row: { frozen: FrozenSession; planId: string | null; slotId: string },
  of: { sessionId: string; stationId: string; rateHz: number },
): Promise<Record<string, SensorSource>> {
  const plan = row.planId === null ? undefined : await planById(tx, row.planId);
  const work = plan?.plan.block.slots[row.slotId]?.work;
  const found: Array<[string, SensorSource]> = [];
  for (const slot of liftsOf(row.frozen)) {
    // Sessions from before a slot named its variant had one slot: the plan's.
    const variantId = slot.variantId ?? (work?.kind === "lift" ? work.variantId : undefined);
    const rack = slot.racks.find((one) => one.id === of.stationId);
    if (variantId === undefined || !rack) continue;
    const ids = rack.lifters.map((lifter) => lifter.athleteId);
    const sources = await simulated(tx, { ...of, variantId, ids });
    for (const [id, source] of Object.entries(sources))
      found.push([`${slot.slotId}/${id}`, source]);
  }
  return Object.fromEntries(found);
}

/** The simulated sensor's lifters: as measured where somebody was, else a stand-in by the max. */
async function simulated(
  tx: TeamTransaction,
  of: { sessionId: string; variantId: string; ids: readonly string[]; rateHz: number },
): Promise<Record<string, SensorSource>> {
  const { sessionId, variantId, ids, rateHz } = of;
  const known = new Map(
    (await simulatedLifters(tx, variantId, [...ids])).map((one) => [one.athleteId, one.truth]),
  );
  const variant = await variantById(tx, variantId);
  const { today } = await readPlaces(tx);
  const maxes = await readMaxes(tx, () => today, ids, [variantId]);
  const entries = ids.flatMap((id): Array<[string, SensorSource]> => {
    const found = maxes(id).of(variantId);
    const lifter =
      known.get(id) ??
      (variant &&
        standInLifter(
          variant.lift,
          "max" in found ? found.max.kg : undefined,
          `${id}/${variantId}`,
        ));
    return lifter ? [[id, simulatedSource(lifter, id + sessionId, rateHz)]] : [];
  });
  return Object.fromEntries(entries);
}

/** Whether a session is there, and for a tablet in its room. */
export function maySeeSession(principal: Principal, sessionId: string): Promise<boolean> {
  return inTeam(principal, async (tx) => {
    const head = await sessionHead(tx, sessionId);
    return head !== undefined && mayKnow(principal, head);
  });
}

/** Entries after a reader's cursor; undefined where the session is not theirs to see. */
export function readEntriesAfter(
  principal: Principal,
  sessionId: string,
  seq: number,
  /** Of one athlete alone, and of nobody; of everybody where left out. */
  athleteId?: string,
): Promise<{ entries: LogEntry[]; ended: boolean } | undefined> {
  return inTeam(principal, async (tx) => {
    const head = await sessionHead(tx, sessionId);
    if (!head || !mayKnow(principal, head)) return undefined;
    const wanted = athleteId === undefined ? {} : { of: [athleteId] };
    return {
      entries: await entriesAfter(tx, sessionId, seq, wanted),
      ended: head.status === "ended",
    };
  });
}
