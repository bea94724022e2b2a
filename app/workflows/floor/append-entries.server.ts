import { isDeepStrictEqual } from "node:util";
import { type EntryAnswer, EntrySchema, type SenderClock } from "../../forms/entries";
import { done, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { TAKEN, type Unsent, writeLog } from "./write-log.server";

/**
 * Adds entries to a session's log. The same entry sent twice is stored once; an entry is
 * acknowledged only after it was read back, in a new transaction, equal to what was sent. Each
 * entry is answered on its own.
 */
export async function appendEntries(
  principal: Principal,
  sessionId: string,
  raw: readonly unknown[],
  clock?: SenderClock,
): Promise<Outcome<{ answers: EntryAnswer[] }>> {
  const refused: EntryAnswer[] = [];
  const entries = new Map<string, Unsent>();
  raw.forEach((one, index) => {
    const parsed = EntrySchema.safeParse(one);
    if (!parsed.success) {
      const id = idOf(one) ?? `#${index}`;
      refused.push({ id, status: "refused", reason: inWords(parsed.error.issues[0]) });
      return;
    }
    // A body of version 1 names no station: it is stored as it came and lifted when it is read.
    const entry = normalised(parsed.data as Unsent);
    const twin = entries.get(entry.id);
    if (!twin) entries.set(entry.id, entry);
    // The same twice is one; another under its number is refused, and the first one stands.
    else if (!isDeepStrictEqual(twin, entry))
      refused.push({ id: `#${index}`, status: "refused", reason: TAKEN });
  });
  const written = await writeLog(principal, sessionId, [...entries.values()], clock);
  return written.ok ? done({ answers: [...written.value.answers, ...refused] }) : written;
}

/** As the database gives it back: one spelling of the same moment and id, no undefined members. */
function normalised(entry: Unsent): Unsent {
  return {
    ...entry,
    id: entry.id.toLowerCase(),
    deviceId: entry.deviceId.toLowerCase(),
    bootId: entry.bootId.toLowerCase(),
    supersedes: entry.supersedes.map((id) => id.toLowerCase()),
    wallTime: new Date(entry.wallTime).toISOString(),
    body: JSON.parse(JSON.stringify(entry.body)) as Unsent["body"],
  };
}

/** Only what is an id is said again. */
function idOf(one: unknown): string | undefined {
  const id = (one as { id?: unknown } | null)?.id;
  return typeof id === "string" && id.length <= 36 ? id : undefined;
}

function inWords(issue: { path: PropertyKey[]; message: string } | undefined): string {
  return issue ? `${issue.path.join(".") || "entry"}: ${issue.message}` : "not an entry";
}
