import { trainingYears } from "../../../core/maxes/records";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import { massKg } from "../../../core/units/mass";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { listVariants } from "../../../db/queries/maxes.server";
import { competitions, instructionsOn, newestMasses } from "../../../db/queries/person.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { listArchived, listAthletes, squadsOf } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { mayKnowReasons } from "../lifters/public-words.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";

/** The squads with what a coach compares, a row an athlete. */
export function readAthletes(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const { squads, rooms, todayOf, roomOf, today: teamsToday } = await readPlaces(tx);
    const people = await listAthletes(tx);
    const variants = await listVariants(tx);
    const days = new Map(people.map((person) => [person.id, todayOf(person)]));
    const maxesOf = await readMaxes(tx, (id) => days.get(id) ?? teamsToday);
    const profiles = new Map<string, LocalDate>();
    for (const profile of await newestProfiles(tx, {})) {
      const known = profiles.get(profile.athleteId);
      if (!known || profile.testedOn > known) profiles.set(profile.athleteId, profile.testedOn);
    }
    const ids = people.map((one) => one.id);
    const masses = new Map(
      (await newestMasses(tx, ids)).map((one) => [one.athleteId, massKg(one.mass)]),
    );
    const instructions = await instructionsOn(tx, (id) => days.get(id) ?? teamsToday);
    const events = await competitions(tx);
    const used = new Set<string>();
    const rows = people.map((person) => {
      const today = days.get(person.id) ?? teamsToday;
      const maxes = maxesOf(person.id);
      const profileOn = profiles.get(person.id);
      const mark = competitionMark(
        events.filter(
          (one) =>
            one.athleteId === person.id ||
            (one.squadId !== null && squadsOf(person).includes(one.squadId)),
        ),
        today,
      );
      return {
        id: person.id,
        name: person.name,
        squadIds: squadsOf(person),
        squadName: squads.find((one) => one.id === person.squadId)?.name ?? "",
        roomName: roomOf(person)?.name ?? "",
        bodyMassKg: masses.get(person.id),
        unit: person.unit,
        goal: person.goal,
        seasonPhase: person.seasonPhase,
        birthYear: mayKnowReasons(principal) ? person.birthYear : null,
        trainingYears: trainingYears(person.trainingSince ?? undefined, today),
        instructions: instructions.get(person.id) ?? [],
        mark: mark && { words: describeMark(mark), refused: mark.testingRefused },
        maxes: [...maxes.own].map(([variantId, max]) => {
          used.add(variantId);
          const { kg, ageDays, stale, working } = max;
          return { variantId, kg, ageDays, stale, working };
        }),
        profileOn,
        /** Days since the newest profile of any lift. */
        profileDays: profileOn === undefined ? undefined : daysBetween(profileOn, today),
      };
    });
    return {
      variants: variants
        .filter((one) => used.has(one.id))
        .map(({ id, name, lift }) => ({ id, name, lift })),
      rooms: rooms.map(({ id, name }) => ({ id, name })),
      squads: squads.map(({ id, name, sport }) => ({ id, name, sport })),
      rows,
      archived: mayKnowReasons(principal)
        ? (await listArchived(tx)).map(({ id, name }) => ({ id, name }))
        : [],
    };
  });
}
