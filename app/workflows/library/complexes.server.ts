import { uuidv7 } from "uuidv7";
import { simplerComplex } from "../../../core/contrast/adapt";
import type { Complex } from "../../../core/contrast/complex";
import { complexSettings } from "../../../core/contrast/complex-checks";
import {
  addComplexVersion,
  type ComplexRow,
  ensureComplexes,
  listComplexes,
  putComplexAway,
} from "../../../db/queries/contrast.server";
import {
  coachValues,
  ensurePlanLibrary,
  listSchools,
} from "../../../db/queries/plan-library.server";
import { listGroups } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { teamDay } from "../lifters/today.server";

const GONE = failed("gone", "This complex is not in your library any more.");

/** The team's complexes, the newest version of each, and who can run one. */
export function readComplexes(principal: Principal) {
  return inTeam(principal, async (tx) => {
    await ensureComplexes(tx);
    await ensurePlanLibrary(tx);
    return {
      complexes: (await listComplexes(tx)).map((row) => ({
        id: row.id,
        lineageId: row.lineageId,
        version: row.version,
        complex: row.complex,
        away: row.awayOn !== null,
        by: row.enteredBy,
      })),
      settings: complexSettings(await coachValues(tx)),
      schools: (await listSchools(tx)).map(({ school }) => school.name),
      groups: (await listGroups(tx)).map(({ id, name }) => ({ id, name })),
    };
  });
}

/** Adds what becomes of a complex that is in the library. */
function addFrom(
  principal: Principal,
  id: string,
  make: (old: ComplexRow) => Pick<ComplexRow, "lineageId" | "version" | "complex">,
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const old = (await listComplexes(tx)).find((one) => one.id === id);
    if (!old) return GONE;
    const made = { id: uuidv7(), ...make(old) };
    await addComplexVersion(tx, { ...made, enteredBy: principal.name, enteredAt: now() });
    return done({ id: made.id });
  });
}

/** Saves a new version of a complex; what was run keeps what it ran. */
export const saveComplex = (principal: Principal, input: { id: string; complex: Complex }) =>
  addFrom(principal, input.id, ({ lineageId, version }) => ({
    lineageId,
    version: version + 1,
    complex: input.complex,
  }));

/** A complex of its own that begins as a copy, or as the simpler version of one. */
export const copyComplex = (principal: Principal, input: { id: string; simpler: boolean }) =>
  addFrom(principal, input.id, ({ complex }) => ({
    lineageId: uuidv7(),
    version: 1,
    complex: input.simpler ? simplerComplex(complex) : { ...complex, name: `${complex.name}, own` },
  }));

export function shelveComplex(
  principal: Principal,
  input: { id: string; away: boolean },
): Promise<Outcome<{ id: string }>> {
  return inTeam(principal, async (tx) => {
    const old = (await listComplexes(tx)).find((one) => one.id === input.id);
    if (!old) return GONE;
    await putComplexAway(tx, input.id, input.away ? (await teamDay(tx))(now()) : null);
    return done({ id: input.id });
  });
}
