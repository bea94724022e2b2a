import { isDeepStrictEqual } from "node:util";
import type { LogEntry } from "../../../core/floor/entries";
import {
  allotSeq,
  entriesById,
  insertEntries,
  lockSession,
} from "../../../db/queries/sessions.server";
import { type EntryAnswer, EntrySchema } from "../../forms/entries";
import { now } from "../../platform/clock.server";
import { loggingInTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

type Unsent = Omit<LogEntry, "seq">;

const TAKEN = "Another entry with this number is stored already.";

/**
 * Adds entries to a session's log. The same entry sent twice is stored once; an entry is
 * acknowledged only after it was read back, in a new transaction, equal to what was sent. Each
 * entry is answered on its own.
 */
export async function appendEntries(
  principal: Principal,
  sessionId: string,
  raw: readonly unknown[],
): Promise<Outcome<{ answers: EntryAnswer[] }>> {
  const refused = new Map<string, string>();
  const entries: Unsent[] = [];
  raw.forEach((one, index) => {
    const parsed = EntrySchema.safeParse(one);
    if (parsed.success) {
      const entry = normalised(parsed.data);
      const twin = entries.find((other) => other.id === entry.id);
      if (!twin) entries.push(entry);
      // The same twice is one; another under its number is refused, and the first one stands.
      else if (!isDeepStrictEqual(twin, entry)) refused.set(`#${index}`, TAKEN);
    } else refused.set(idOf(one) ?? `#${index}`, inWords(parsed.error.issues[0]));
  });

  const problem = await loggingInTeam(principal, async (tx) => {
    const session = await lockSession(tx, sessionId);
    if (!session || (principal.kind === "rack" && session.roomId !== principal.roomId)) {
      return failed("no-session", "This session is not in your room.");
    }
    const stored = new Map(
      (
        await entriesById(
          tx,
          entries.map((entry) => entry.id),
        )
      ).map((row) => [row.entry.id, row]),
    );
    const fresh = entries.filter((entry) => {
      if (stored.has(entry.id)) return false;
      const late = tooLate(entry, session.endedAt, principal);
      if (late) refused.set(entry.id, late);
      return !late;
    });
    if (fresh.length > 0) {
      const first = await allotSeq(tx, sessionId, fresh.length);
      const author = principal.kind === "rack" ? `rack:${principal.deviceId}` : principal.userId;
      await insertEntries(
        tx,
        sessionId,
        author,
        now(),
        fresh.map((entry, i) => ({ ...entry, seq: first + i })),
      );
    }
    return undefined;
  });
  if (problem) return problem;

  const kept = entries.filter((entry) => !refused.has(entry.id));
  const readBack = new Map(
    (
      await loggingInTeam(principal, (tx) =>
        entriesById(
          tx,
          kept.map((entry) => entry.id),
        ),
      )
    ).map((row) => [row.entry.id, row]),
  );
  const answers: EntryAnswer[] = kept.map((entry) => {
    const row = readBack.get(entry.id);
    if (row?.entry.seq === undefined) {
      return { id: entry.id, status: "refused", reason: "It was not found again after storing." };
    }
    const { seq, ...stored } = row.entry;
    if (row.sessionId !== sessionId || !isDeepStrictEqual(stored, entry)) {
      return {
        id: entry.id,
        status: "refused",
        reason: TAKEN,
      };
    }
    return { id: entry.id, status: "stored", seq };
  });
  for (const [id, reason] of refused) answers.push({ id, status: "refused", reason });
  return done({ answers });
}

/** As the database gives it back: one spelling of the same moment, no undefined members. */
function normalised(entry: Unsent): Unsent {
  return {
    ...entry,
    wallTime: new Date(entry.wallTime).toISOString(),
    body: JSON.parse(JSON.stringify(entry.body)) as Unsent["body"],
  };
}

/** After the end of a session, or the revoking of its tablet, only what was made before counts. */
function tooLate(entry: Unsent, endedAt: Date | null, principal: Principal): string | undefined {
  const made = Date.parse(entry.wallTime);
  if (endedAt && made > endedAt.getTime()) {
    return "The session had ended before this was logged.";
  }
  if (principal.kind === "rack" && principal.revokedAt && made > principal.revokedAt.getTime()) {
    return "This tablet was taken off the team before this was logged.";
  }
  return undefined;
}

function idOf(one: unknown): string | undefined {
  const id = (one as { id?: unknown } | null)?.id;
  return typeof id === "string" ? id : undefined;
}

function inWords(issue: { path: PropertyKey[]; message: string } | undefined): string {
  return issue ? `${issue.path.join(".") || "entry"}: ${issue.message}` : "not an entry";
}
