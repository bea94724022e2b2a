import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import type { Mass } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { variantById } from "../../../db/queries/maxes.server";
import { renameSignIn } from "../../../db/queries/members.server";
import {
  addAthlete,
  addCompetition,
  keepBodyMass,
  keepDayNote,
  keepSetup,
  removeCompetition,
  updateAthlete,
} from "../../../db/queries/person.server";
import { namesakes, setAlsoIn } from "../../../db/queries/squads.server";
import type { FactsForm, NewPersonForm, QuickForm, SetupForm } from "../../forms/athlete";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { FUTURE, isFuture, onAthlete } from "./on-athlete.server";
import { NO_ATHLETE } from "./read-athlete.server";

export function addPerson(
  principal: Principal,
  { another, alsoIn, ...facts }: z.output<typeof NewPersonForm>,
): Promise<Outcome<{ athleteId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const { squads } = await readPlaces(tx);
    if (facts.squadId !== null && !squads.some((squad) => squad.id === facts.squadId)) {
      return failed("no-squad", "This squad is not in your team any more.");
    }
    const [same] = await namesakes(tx, facts.name);
    if (same && another !== "yes") {
      const squad = squads.find((one) => one.id === same.squadId)?.name ?? "no squad";
      return failed(
        "same-name",
        `${same.name} is here already (${squad}${same.archivedAt ? ", archived" : ""}). Tick that this is another person, or open that one.`,
      );
    }
    const athleteId = uuidv7();
    await addAthlete(tx, { id: athleteId, ...facts });
    await setAlsoIn(tx, athleteId, facts.squadId, alsoIn);
    return done({ athleteId });
  });
}

export function saveFacts(
  principal: Principal,
  athleteId: string,
  { alsoIn, ...facts }: z.output<typeof FactsForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, _, today) => {
    if (facts.trainingSince && isFuture(today, facts.trainingSince)) return FUTURE;
    await updateAthlete(tx, person.id, facts);
    // A sign-in of theirs is called as the lists call them.
    if (facts.name !== person.name) await renameSignIn(tx, person.id, facts.name);
    await setAlsoIn(tx, person.id, facts.squadId, alsoIn);
    return done(null);
  });
}

/** A quick field of the squad table. */
export function saveQuick(
  principal: Principal,
  quick: z.output<typeof QuickForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, quick.athleteId, async (tx, person, entered, today) => {
    if (quick.field === "bodyMass") {
      await keepBodyMass(tx, {
        id: uuidv7(),
        athleteId: person.id,
        date: today,
        mass: quick.value,
        ...entered,
      });
    } else await updateAthlete(tx, person.id, { [quick.field]: quick.value });
    return done(null);
  });
}

export function saveBodyMass(
  principal: Principal,
  athleteId: string,
  input: { mass: Mass; date: LocalDate },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    await keepBodyMass(tx, { id: uuidv7(), athleteId: person.id, ...input, ...entered });
    return done(null);
  });
}

export function saveCompetition(
  principal: Principal,
  athleteId: string,
  input: { name: string; date: LocalDate },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    await addCompetition(tx, { id: uuidv7(), athleteId: person.id, ...input, ...entered });
    return done(null);
  });
}

export function dropCompetition(
  principal: Principal,
  athleteId: string,
  id: string,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx) => {
    await removeCompetition(tx, id);
    return done(null);
  });
}

export function saveDayNote(
  principal: Principal,
  athleteId: string,
  input: {
    date: LocalDate;
    sleepH: number | undefined;
    eating: number | undefined;
    soreness: number | undefined;
  },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    await keepDayNote(tx, {
      id: uuidv7(),
      athleteId: person.id,
      date: input.date,
      sleepH: input.sleepH ?? null,
      eating: input.eating ?? null,
      soreness: input.soreness ?? null,
      ...entered,
    });
    return done(null);
  });
}

export function saveSetup(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof SetupForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    if (!(await variantById(tx, input.variantId))) return NO_ATHLETE;
    await keepSetup(tx, {
      id: uuidv7(),
      athleteId: person.id,
      ...input,
      startHeightCm: input.startHeightCm ?? null,
      bottomM: input.bottomM ?? null,
      lockoutM: input.lockoutM ?? null,
      boxSeatCm: input.boxSeatCm ?? null,
      boxCreaseCm: input.boxCreaseCm ?? null,
      ...entered,
    });
    return done(null);
  });
}
