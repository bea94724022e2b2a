import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import {
  addNote,
  healthNotes,
  notesWith,
  removeNote,
  type StoredNote,
} from "../../../db/queries/notes.server";
import { listAthletes, listSquads } from "../../../db/queries/squads.server";
import type { NoteForm } from "../../forms/note";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { mayKnowReasons } from "../lifters/public-words.server";
import { readPlaces } from "../lifters/today.server";

/** Notes that a page lists. */
const MOST_LISTED = 200;

/** Notes by their words; health notes of one athlete only where one is asked for by name. */
export function readNotes(principal: Principal, asked: { words: string; aboutId: string }) {
  return inTeam(principal, async (tx) => {
    const athletes = await listAthletes(tx);
    const squads = await listSquads(tx);
    const names = new Map([
      ...athletes.map((one) => [one.id, one.name] as const),
      ...squads.map((one) => [one.id, one.name] as const),
    ]);
    const shown = (one: StoredNote) => ({
      id: one.id,
      kind: one.kind,
      about: names.get(one.aboutId) ?? "somebody who left",
      date: one.date,
      words: one.words,
      by: one.enteredBy,
    });
    const about = names.has(asked.aboutId) ? asked.aboutId : "";
    const notes = await notesWith(tx, {
      words: asked.words,
      most: MOST_LISTED,
      ...(about ? { aboutIds: [about] } : {}),
    });
    const isAthlete = athletes.some((one) => one.id === about);
    return {
      athletes: athletes.map(({ id, name }) => ({ id, name })),
      squads: squads.map(({ id, name }) => ({ id, name })),
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

/** Writes a note, or takes one away. */
export function saveNote(
  principal: Principal,
  input: z.output<typeof NoteForm>,
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    if (input.intent === "remove")
      return (await removeNote(tx, input.noteId))
        ? done(null)
        : failed("no-note", "This note is not there any more.");
    const person = (await listAthletes(tx)).find((one) => one.id === input.aboutId);
    const squad = (await listSquads(tx)).find((one) => one.id === input.aboutId);
    if (!person && !squad) return failed("no-about", "Choose whom it is about.");
    if (input.kind === "health" && !person)
      return failed("health-of-one", "A note on health is about one athlete.");
    const places = await readPlaces(tx);
    await addNote(tx, {
      id: uuidv7(),
      about: person ? "athlete" : "squad",
      aboutId: input.aboutId,
      athleteId: person?.id ?? null,
      kind: input.kind,
      date: person ? places.todayOf(person) : places.today,
      words: input.words,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done(null);
  });
}
