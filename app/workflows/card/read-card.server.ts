import { instructionsOn } from "../../../db/queries/person.server";
import { athleteById } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readNextDays } from "../lifters/next-days.server";

/** An athlete's own next session, and nobody else's. */
export function readCard(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
    const person = athleteId ? await athleteById(tx, athleteId) : undefined;
    if (!person) {
      return failed("no-card", "Your sign-in has no athlete yet. Ask your coach to connect it.");
    }
    const read = await readNextDays(tx, person);
    if (!read.ok) return read;
    const { today, days } = read.value;
    const instructions = (await instructionsOn(tx, () => today, person.id)).get(person.id) ?? [];
    const [next, ...also] = days;
    return done({ name: person.name, instructions, next, also });
  });
}
