import { uuidv7 } from "uuidv7";
import { addNote, notesWith } from "../../../db/queries/notes.server";
import { planById } from "../../../db/queries/plans.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** How the act is written down; by it the sheet is opened. */
const wordsOf = (planName: string): string => `Report on "${planName}" written for a parent`;

/** Writes down that a coach gives a report to a parent: without it there is no such sheet. */
export function giveToParent(
  principal: Principal,
  input: { athleteId: string; planId: string },
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, input.athleteId);
    const row = await planById(tx, input.planId);
    if (!person || !row) return failed("no-block", "This athlete or block is not there any more.");
    await addNote(tx, {
      id: uuidv7(),
      about: "athlete",
      aboutId: person.id,
      athleteId: person.id,
      kind: "hand-over",
      date: (await readPlaces(tx)).todayOf(person),
      words: wordsOf(row.plan.name),
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done(null);
  });
}

/** Who gave a block's report to a parent last, and when; undefined where nobody did. */
export async function givenToParent(
  tx: TeamTransaction,
  of: { athleteId: string; planName: string },
): Promise<{ by: string; date: string } | undefined> {
  const notes = await notesWith(tx, {
    words: wordsOf(of.planName),
    aboutIds: [of.athleteId],
    most: 1,
  });
  const [note] = notes;
  return note && { by: note.enteredBy, date: note.date };
}
