import type { LogEntry } from "../../../core/floor/entries";
import type { FrozenSession } from "../../../core/floor/frozen";
import { planById } from "../../../db/queries/plans.server";
import {
  entriesAfter,
  frozenOf,
  sessionHead,
  simulatedLifters,
} from "../../../db/queries/sessions.server";
import type { SimulatedLifter } from "../../../device/lifter";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

export interface SessionOnFloor {
  sessionId: string;
  status: "running" | "ended";
  frozen: FrozenSession;
  entries: LogEntry[];
}

const GONE = "This session is not there, or not in your room. Open the floor and choose again.";

export function readSession(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<SessionOnFloor>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    if (!row || (principal.kind === "rack" && row.roomId !== principal.roomId)) {
      return failed("no-session", GONE);
    }
    return done({
      sessionId,
      status: row.status,
      frozen: row.frozen,
      entries: await entriesAfter(tx, sessionId, 0),
    });
  });
}

export interface RackOnFloor extends SessionOnFloor {
  rackId: string;
  /** Stand-in lifters, by athlete id, where the team has them. */
  simulated: Record<string, SimulatedLifter>;
}

/** One rack's share of a session, small enough for its tablet. */
export function readRack(
  principal: Principal,
  sessionId: string,
  rackId: string,
): Promise<Outcome<RackOnFloor>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    const rack = row?.frozen.racks.find((one) => one.id === rackId);
    if (!row || !rack || (principal.kind === "rack" && row.roomId !== principal.roomId)) {
      return failed("no-rack", GONE);
    }
    const plan = await planById(tx, row.planId);
    const ids = rack.lifters.map((lifter) => lifter.athleteId);
    const work = plan?.plan.block.slots[row.slotId]?.work;
    const simulated = work?.kind === "lift" ? await simulatedLifters(tx, work.variantId, ids) : [];
    const mine = new Set(ids);
    const entries = await entriesAfter(tx, sessionId, 0);
    return done({
      sessionId,
      rackId,
      status: row.status,
      frozen: { ...row.frozen, racks: [rack] },
      entries: entries.filter(
        (entry) => entry.body.kind === "void" || mine.has(entry.body.athleteId),
      ),
      simulated: Object.fromEntries(simulated.map((one) => [one.athleteId, one.truth])),
    });
  });
}

/** Whether a session is there, and for a tablet in its room. */
export function maySeeSession(principal: Principal, sessionId: string): Promise<boolean> {
  return inTeam(principal, async (tx) => {
    const head = await sessionHead(tx, sessionId);
    return head !== undefined && (principal.kind !== "rack" || head.roomId === principal.roomId);
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
    if (!head || (principal.kind === "rack" && head.roomId !== principal.roomId)) return undefined;
    return { entries: await entriesAfter(tx, sessionId, seq), ended: head.status === "ended" };
  });
}
