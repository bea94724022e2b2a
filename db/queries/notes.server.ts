import { and, desc, eq, gte, ilike, inArray, lte, ne, or } from "drizzle-orm";
import type { LocalDate } from "../../core/units/time";
import { athlete, note, plan, squad, trainingSession } from "../schema";
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

/** What a note is about, by name, and whose it is: with the athlete it is erased. */
export interface NoteAbout {
  about: StoredNote["about"];
  id: string;
  name: string;
  athleteId: string | undefined;
}

/** Athletes, squads, sessions and plans by their ids, whichever they are. */
export async function notedAbout(
  tx: TeamTransaction,
  ids: readonly string[],
): Promise<Map<string, NoteAbout>> {
  if (ids.length === 0) return new Map();
  const asked = [...ids];
  const athletes = await tx
    .select({ id: athlete.id, name: athlete.name })
    .from(athlete)
    .where(inArray(athlete.id, asked));
  const squads = await tx
    .select({ id: squad.id, name: squad.name })
    .from(squad)
    .where(inArray(squad.id, asked));
  const sessions = await tx
    .select({
      id: trainingSession.id,
      title: trainingSession.title,
      date: trainingSession.date,
      ownOf: trainingSession.ownOf,
    })
    .from(trainingSession)
    .where(inArray(trainingSession.id, asked));
  const plans = await tx
    .select({
      id: plan.id,
      name: plan.name,
      athleteId: plan.athleteId,
    })
    .from(plan)
    .where(inArray(plan.id, asked));
  const found: NoteAbout[] = [
    ...athletes.map(({ id, name }) => ({ about: "athlete" as const, id, name, athleteId: id })),
    ...squads.map(({ id, name }) => ({ about: "squad" as const, id, name, athleteId: undefined })),
    ...sessions.map(({ id, title, date, ownOf }) => ({
      about: "session" as const,
      id,
      name: `${title ?? "Session"}, ${date}`,
      athleteId: ownOf ?? undefined,
    })),
    ...plans.map(({ id, name, athleteId }) => ({
      about: "plan" as const,
      id,
      name: `Plan ${name}`,
      athleteId: athleteId ?? undefined,
    })),
  ];
  return new Map(found.map((one) => [one.id, one]));
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
