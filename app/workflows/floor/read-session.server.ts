import type { LogEntry } from "../../../core/floor/entries";
import { type FrozenSession, liftsOf, shareOfStation } from "../../../core/floor/frozen";
import { FloorFold } from "../../../core/floor/state";
import { authorNames } from "../../../db/queries/people.server";
import { planById } from "../../../db/queries/plans.server";
import {
  entriesAfter,
  frozenOf,
  sessionHead,
  simulatedLifters,
} from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { type SensorSource, simulatedSource } from "../../../device/sources";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

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
  leftOut: Array<{ name: string; code: string }>;
}

const GONE = "This session is not there, or not in your room. Open the floor and choose again.";

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
      frozen: row.frozen,
      entries: await entriesAfter(tx, sessionId, 0),
      names: await authorNames(tx),
      leftOut: await leftOutOf(tx, row.frozen),
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

export interface RackOnFloor extends SessionOnFloor {
  rackId: string;
  /** Where each athlete's frames come from, where there is a sensor. */
  sensors: Record<string, SensorSource>;
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

/** A tablet knows the sessions of its room. */
function mayKnow(principal: Principal, session: { roomId: string | null }): boolean {
  return principal.kind !== "rack" || session.roomId === principal.roomId;
}

/** The entries that a share of a session can show: of its athletes, and what takes them back. */
function ofShare(frozen: FrozenSession, entries: LogEntry[]): LogEntry[] {
  const fold = new FloorFold(frozen).add(entries);
  const strangers = new Set(fold.state().setAside.map((one) => one.entryId));
  return entries.filter((entry) => !strangers.has(entry.id));
}

/** One rack's share of a session, small enough for its tablet. */
export function readRack(
  principal: Principal,
  sessionId: string,
  rackId: string,
): Promise<Outcome<RackOnFloor>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    const station = row?.frozen.stations.find((one) => one.id === rackId);
    if (!row || station?.kind !== "rack" || !mayKnow(principal, row)) {
      return failed("no-rack", GONE);
    }
    const frozen = shareOfStation(row.frozen, rackId);
    const ids = liftsOf(frozen).flatMap((slot) =>
      slot.racks.flatMap((rack) => rack.lifters.map((lifter) => lifter.athleteId)),
    );
    const plan = row.planId === null ? undefined : await planById(tx, row.planId);
    const work = plan?.plan.block.slots[row.slotId]?.work;
    const simulated = work?.kind === "lift" ? await simulatedLifters(tx, work.variantId, ids) : [];
    return done({
      sessionId,
      rackId,
      status: row.status,
      frozen,
      entries: ofShare(frozen, await entriesAfter(tx, sessionId, 0)),
      names: await authorNames(tx),
      sensors: Object.fromEntries(
        simulated.map((one) => [
          one.athleteId,
          simulatedSource(one.truth, one.athleteId + sessionId),
        ]),
      ),
    });
  });
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
): Promise<{ entries: LogEntry[]; ended: boolean } | undefined> {
  return inTeam(principal, async (tx) => {
    const head = await sessionHead(tx, sessionId);
    if (!head || !mayKnow(principal, head)) return undefined;
    return { entries: await entriesAfter(tx, sessionId, seq), ended: head.status === "ended" };
  });
}
