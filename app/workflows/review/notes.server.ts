import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import {
  addNote,
  healthNotes,
  notedAbout,
  notesWith,
  removeNote,
  type StoredNote,
} from "../../../db/queries/notes.server";
import { planNames } from "../../../db/queries/plans.server";
import { listSessions } from "../../../db/queries/sessions.server";
import { listAthletes, listSquads } from "../../../db/queries/squads.server";
import type { NoteForm } from "../../forms/note";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { mayKnowReasons } from "../lifters/public-words.server";
import { readPlaces } from "../lifters/today.server";

/** Sessions that a note may be about without being opened from one. */
const MOST_SESSIONS = 30;
/** Notes that a page lists. */
const MOST_LISTED = 200;

/** Notes by their words; health notes of one athlete only where one is asked for by name. */
export function readNotes(principal: Principal, asked: { words: string; aboutId: string }) {
  return inTeam(principal, async (tx) => {
    const athletes = await listAthletes(tx);
    const squads = await listSquads(tx);
    const sessions = await listSessions(tx, MOST_SESSIONS);
    const plans = await planNames(tx);
    const asks = asked.aboutId
      ? (await notedAbout(tx, [asked.aboutId])).get(asked.aboutId)
      : undefined;
    const about = asks?.id ?? "";
    const notes = await notesWith(tx, {
      words: asked.words,
      most: MOST_LISTED,
      ...(about ? { aboutIds: [about] } : {}),
    });
    const isAthlete = asks?.about === "athlete";
    const names = await notedAbout(tx, [
      ...new Set([...notes.map((one) => one.aboutId), ...(about ? [about] : [])]),
    ]);
    const shown = (one: StoredNote) => ({
      id: one.id,
      kind: one.kind,
      about: names.get(one.aboutId)?.name ?? "somebody who left",
      date: one.date,
      words: one.words,
      by: one.enteredBy,
    });
    return {
      athletes: athletes.map(({ id, name }) => ({ id, name })),
      squads: squads.map(({ id, name }) => ({ id, name })),
      plans,
      sessions: [
        ...sessions.map(({ id, title, date }) => ({ id, name: `${title}, ${date}` })),
        // An older one, where it is asked for.
        ...(asks?.about === "session" && !sessions.some((one) => one.id === about)
          ? [{ id: about, name: asks.name }]
          : []),
      ],
      aboutId: about,
      words: asked.words,
      notes: notes.map(shown),
      health:
        isAthlete && mayKnowReasons(principal)
          ? (await healthNotes(tx, about)).map(shown)
          : undefined,
    };
  });
}

export type NotesPage = Awaited<ReturnType<typeof readNotes>>;

/** Writes a note and gives its identifier back, or takes one away. */
export function saveNote(
  principal: Principal,
  input: z.output<typeof NoteForm>,
): Promise<Outcome<{ noteId: string | undefined }>> {
  return inTeamOnce<{ noteId: string | undefined }>(principal, async (tx) => {
    if (input.intent === "remove")
      return (await removeNote(tx, input.noteId))
        ? done({ noteId: undefined })
        : failed("no-note", "This note is not there any more.");
    const about = (await notedAbout(tx, [input.aboutId])).get(input.aboutId);
    if (!about) return failed("no-about", "Choose what it is about.");
    if (input.kind === "health" && about.about !== "athlete")
      return failed("health-of-one", "A note on health is about one athlete.");
    const person =
      about.about === "athlete"
        ? (await listAthletes(tx)).find((one) => one.id === input.aboutId)
        : undefined;
    const places = await readPlaces(tx);
    const noteId = uuidv7();
    await addNote(tx, {
      id: noteId,
      about: about.about,
      aboutId: input.aboutId,
      athleteId: about.athleteId ?? null,
      kind: input.kind,
      date: person ? places.todayOf(person) : places.today,
      words: input.words,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ noteId });
  });
}
