import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import type { Guarded, ReasonKind } from "../../../core/maxes/limits";
import {
  addLimit,
  liftLimit,
  limitsOf,
  readReasons,
  readsOf,
} from "../../../db/queries/person.server";
import type { LimitForm } from "../../forms/athlete";
import { now } from "../../platform/clock.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { mayWrite, type Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { ofAthlete, onAthlete } from "./on-athlete.server";

export function saveLimit(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof LimitForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    const { reasonKind, reason, guardianConsent, refuses, until, capPercent, ...limit } = input;
    await addLimit(
      tx,
      {
        id: uuidv7(),
        athleteId: person.id,
        ...limit,
        refuses: refuses as Guarded[],
        capPercent: capPercent ?? null,
        until: until ?? null,
        ...entered,
      },
      reasonKind || reason
        ? {
            id: uuidv7(),
            kind: (reasonKind ?? "other") as ReasonKind,
            reason,
            guardianConsent: guardianConsent === "yes",
            ...entered,
          }
        : undefined,
    );
    return done(null);
  });
}

export function endLimit(
  principal: Principal,
  athleteId: string,
  limitId: string,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, _, today) => {
    const own = (await limitsOf(tx, person.id)).some((limit) => limit.id === limitId);
    const lifted = own && (await liftLimit(tx, limitId, { on: today, by: principal.name }));
    return lifted ? done(null) : failed("no-limit", "This limit was lifted already.");
  });
}

/** Who has read the reasons of an athlete's limits, the newest first: for the owner. */
export function readReads(
  principal: Principal,
  athleteId: string,
): Promise<Outcome<Array<{ id: string; by: string; at: string; instruction: string }>>> {
  if (principal.kind !== "person" || principal.role !== "owner")
    return Promise.resolve(failed("owner-only", "Who read a reason is shown to the owner."));
  return ofAthlete(principal, athleteId, async (tx, person) => {
    const limits = await limitsOf(tx, person.id);
    const places = await readPlaces(tx);
    const time = new Intl.DateTimeFormat("en-GB", {
      dateStyle: "medium",
      timeStyle: "short",
      timeZone: places.roomOf(person)?.zone ?? places.zone,
    });
    const reads = await readsOf(
      tx,
      limits.map((limit) => limit.id),
    );
    return done(
      reads.map((read) => ({
        id: read.id,
        by: read.readBy,
        at: time.format(read.readAt),
        instruction: limits.find((limit) => limit.id === read.limitId)?.instruction ?? "",
      })),
    );
  });
}

export interface ShownReason {
  limitId: string;
  kind: ReasonKind;
  reason: string;
  guardianConsent: boolean;
  by: string;
}

/**
 * The reasons of an athlete's limits: for owner and coaches, and for that athlete. Each reading
 * is recorded with the reader's name.
 */
export function showReasons(
  principal: Principal,
  athleteId: string,
): Promise<Outcome<ShownReason[]>> {
  const own = principal.kind === "person" && principal.athleteId === athleteId;
  if (!own && !mayWrite(principal, "/athletes/:athleteId")) {
    return Promise.resolve(
      failed("not-yours", "Reasons are shown to the owner, the coaches and the athlete."),
    );
  }
  return ofAthlete(principal, athleteId, async (tx, person) => {
    const limits = await limitsOf(tx, person.id);
    const rows = await readReasons(
      tx,
      limits.map((limit) => limit.id),
      { by: principal.name, at: now() },
    );
    return done(
      rows.map((row) => ({
        limitId: row.limitId,
        kind: row.kind,
        reason: row.reason,
        guardianConsent: row.guardianConsent,
        by: row.enteredBy,
      })),
    );
  });
}
