import { and, desc, eq, gte, ilike, inArray, lte, ne, or } from "drizzle-orm";
import type { LocalDate } from "../../core/units/time";
import { note } from "../schema";
import type { TeamTransaction } from "../team.server";

export type StoredNote = typeof note.$inferSelect;

const NEWEST = [desc(note.date), desc(note.enteredAt), desc(note.id)] as const;

/** `%` and `_` of a search mean themselves. */
const literally = (text: string) => text.replaceAll(/[\\%_]/g, (one) => `\\${one}`);

/** Notes that are not on health, the newest first; those with some words in them. */
export function notesWith(
  tx: TeamTransaction,
  asked: { words: string; aboutIds?: readonly string[]; most: number },
): Promise<StoredNote[]> {
  return tx
    .select()
    .from(note)
    .where(
      and(
        ne(note.kind, "health"),
        asked.words === "" ? undefined : ilike(note.words, `%${literally(asked.words)}%`),
        asked.aboutIds ? inArray(note.aboutId, [...asked.aboutIds]) : undefined,
      ),
    )
    .orderBy(...NEWEST)
    .limit(asked.most);
}

/** Notes that are not on health of some days. */
export function notesBetween(
  tx: TeamTransaction,
  asked: { from: LocalDate; to: LocalDate; aboutIds: readonly string[] },
): Promise<StoredNote[]> {
  return tx
    .select()
    .from(note)
    .where(
      and(
        ne(note.kind, "health"),
        gte(note.date, asked.from),
        lte(note.date, asked.to),
        or(
          inArray(note.aboutId, [...asked.aboutIds]),
          inArray(note.athleteId, [...asked.aboutIds]),
        ),
      ),
    )
    .orderBy(...NEWEST);
}

/** Notes on an athlete's health: for who may know reasons, and asked for by name alone. */
export function healthNotes(tx: TeamTransaction, athleteId: string): Promise<StoredNote[]> {
  return tx
    .select()
    .from(note)
    .where(and(eq(note.kind, "health"), eq(note.athleteId, athleteId)))
    .orderBy(...NEWEST);
}

export async function addNote(
  tx: TeamTransaction,
  row: Omit<typeof note.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(note).values({ teamId: tx.teamId, ...row });
}

/** Takes a note away; false where it is not there. */
export async function removeNote(tx: TeamTransaction, id: string): Promise<boolean> {
  const rows = await tx.delete(note).where(eq(note.id, id)).returning({ id: note.id });
  return rows.length === 1;
}
