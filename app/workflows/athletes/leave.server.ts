import { noteErased } from "../../../db/kept/erasures.server";
import { noteChange } from "../../../db/queries/members.server";
import { removeSignIns } from "../../../db/queries/people.server";
import { athleteById, eraseAthlete, setArchived } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { environment } from "../../platform/env.server";
import { log } from "../../platform/log.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { onAthlete } from "./on-athlete.server";

/** Takes an athlete off every list, with everything kept; or brings one back. */
export function archive(
  principal: Principal,
  athleteId: string,
  away: boolean,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person) => {
    const changed = await setArchived(tx, person.id, away ? now() : null);
    if (changed) return done(null);
    return person.erasedAt
      ? failed("erased", "This athlete was erased. Nothing brings a person back.")
      : failed("so-already", away ? "Archived already." : "On the lists already.");
  });
}

/**
 * Erases a person for good: names, notes and reasons go, the log and its numbers stay under nobody's
 * name (docs/decisions/privacy.md). The owner's alone, with the name typed.
 */
export async function erase(
  principal: Principal,
  athleteId: string,
  typed: string,
): Promise<Outcome<null>> {
  if (principal.kind !== "person" || principal.role !== "owner")
    return failed("owner-only", "Only the owner of the team erases a person.");
  const erased = await inTeam<Outcome<string[]>>(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person || person.erasedAt)
      return failed("nobody", "There is nobody of this name to erase any more.");
    if (typed.trim() !== person.name)
      return failed("other-name", `Type the whole name as it stands: ${person.name}.`);
    const users = await eraseAthlete(tx, athleteId, { name: principal.name, at: now() });
    if (users && users.length > 0) {
      const gone = { name: "Erased athlete", detail: "erased", athleteId };
      await noteChange(tx, { kind: "removed", ...gone, by: principal.name, at: now() });
    }
    return users
      ? done(users)
      : failed("nobody", "There is nobody of this name to erase any more.");
  });
  if (!erased.ok) return erased;
  await removeSignIns(databases().auth.database, erased.value);
  noteBesideBackups(principal, athleteId);
  return done(null);
}

/**
 * Beside the backups, the moment somebody is erased: a backup from before, brought back after the
 * disk died, erases them again. By ids only.
 */
function noteBesideBackups(principal: Principal, athleteId: string): void {
  const folder = environment().BACKUP_FOLDER;
  if (!folder) return;
  const { teamId, name: by } = principal;
  try {
    noteErased(folder, { teamId, athleteId, by, at: now().toISOString() });
  } catch (error) {
    log.error({ err: error }, "an erased person could not be noted beside the backups");
  }
}
