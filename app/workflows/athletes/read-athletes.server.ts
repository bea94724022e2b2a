import { GUARDED_NAMES, refusals } from "../../../core/maxes/limits";
import { trainingYears } from "../../../core/maxes/records";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import { massKg } from "../../../core/units/mass";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { currentChoices, listVariants, recordsOf } from "../../../db/queries/maxes.server";
import { competitions, instructionsOn, newestMasses } from "../../../db/queries/person.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { listArchived, listAthletes, squadsOf } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { mayKnowReasons } from "../lifters/public-words.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";

/** Records that count as done: an estimate is no reason to stand on another. */
const DONE: ReadonlySet<string> = new Set(["competition", "tested"]);

type Stored = Awaited<ReturnType<typeof recordsOf>>;

/** By athlete and lift the newest record that was done after the one in use. */
function newerRecords(records: Stored, choices: Awaited<ReturnType<typeof currentChoices>>) {
  const inUse = new Map(
    choices.map((one) => [`${one.athleteId}/${one.variantId}`, one.record.date]),
  );
  const seen = new Set<string>();
  const newer = new Map<string, Array<{ id: string; variantId: string; kg: number }>>();
  // The newest first, as they are read.
  for (const record of records) {
    const key = `${record.athleteId}/${record.variantId}`;
    const used = inUse.get(key);
    if (seen.has(key) || !DONE.has(record.kind)) continue;
    seen.add(key);
    if (used !== undefined && record.date <= used) continue;
    newer.set(record.athleteId, [
      ...(newer.get(record.athleteId) ?? []),
      { id: record.id, variantId: record.variantId, kg: massKg(record.load) },
    ]);
  }
  return newer;
}

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
    const newer = newerRecords(await recordsOf(tx), await currentChoices(tx, {}));
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
        /** What age alone refuses by default; the age itself is not said by it. */
        byAge: refusals({
          limits: [],
          birthYear: person.birthYear ?? undefined,
          lift: "",
          today,
        }).map((one) => GUARDED_NAMES[one.guarded].toLowerCase()),
        /** Of each lift the newest record, where it was done after the one that percentages stand on. */
        newer: newer.get(person.id) ?? [],
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
