import { workingMax } from "../../../core/maxes/records";
import {
  currentChoices,
  listVariants,
  newestProfiles,
  recordsOf,
} from "../../../db/queries/maxes.server";
import {
  athleteById,
  listAthletes,
  listRooms,
  listSquads,
} from "../../../db/queries/squads.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { trainingYears } from "../plan/prescribe-plan.server";

/** The squads with what a coach compares. */
export function readAthletes(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const squads = await listSquads(tx);
    const rooms = await listRooms(tx);
    const people = await listAthletes(tx);
    const variants = await listVariants(tx);
    const choices = await currentChoices(tx, {});
    const profiles = await newestProfiles(tx, {});
    return {
      variants: variants.map(({ id, name }) => ({ id, name })),
      squads: squads.map((squad) => {
        const room = rooms.find((one) => one.id === squad.roomId);
        const today = localDate(room?.zone ?? "UTC");
        return {
          id: squad.id,
          name: squad.name,
          sport: squad.sport,
          roomName: room?.name ?? "",
          athletes: people
            .filter((person) => person.squadId === squad.id)
            .map((person) => ({
              id: person.id,
              name: person.name,
              birthYear: person.birthYear,
              trainingYears: trainingYears(person.trainingSince, today),
              instruction: person.instruction,
              maxes: variants.flatMap((variant) => {
                const choice = choices.find(
                  (one) => one.athleteId === person.id && one.variantId === variant.id,
                );
                if (!choice) return [];
                const max = workingMax({ liftName: variant.name, ...choice, today });
                return [
                  {
                    variantId: variant.id,
                    kg: max.kg,
                    ageDays: max.ageDays,
                    stale: max.stale,
                    working: max.working,
                  },
                ];
              }),
              profileOn: profiles.find((one) => one.athleteId === person.id)?.testedOn,
            })),
        };
      }),
    };
  });
}

export function readAthlete(principal: Principal, athleteId: string) {
  return inTeam(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return failed("no-athlete", "This athlete is not in your team. Open the list.");
    const squads = await listSquads(tx);
    const squad = squads.find((one) => one.id === person.squadId);
    const room = (await listRooms(tx)).find((one) => one.id === squad?.roomId);
    const today = localDate(room?.zone ?? "UTC");
    const variants = await listVariants(tx);
    const records = await recordsOf(tx, athleteId);
    const choices = await currentChoices(tx, { athleteId });
    const profiles = await newestProfiles(tx, { athleteId });
    return done({
      person: {
        id: person.id,
        name: person.name,
        birthYear: person.birthYear,
        trainingYears: trainingYears(person.trainingSince, today),
        unit: person.unit,
        instruction: person.instruction,
        squadName: squad?.name ?? "",
        sport: squad?.sport ?? "",
        roomName: room?.name ?? "",
      },
      today,
      lifts: variants.map((variant) => {
        const choice = choices.find((one) => one.variantId === variant.id);
        const profile = profiles.find((one) => one.variantId === variant.id);
        return {
          id: variant.id,
          name: variant.name,
          caution: variant.caution,
          max: choice && workingMax({ liftName: variant.name, ...choice, today }),
          chosen: choice && {
            recordId: choice.record.id,
            by: choice.chosenBy,
            factor: choice.factor,
          },
          records: records
            .filter((record) => record.variantId === variant.id)
            .map(({ id, load, date, kind, note, enteredBy }) => ({
              id,
              load,
              date,
              kind,
              note,
              enteredBy,
            })),
          profile: profile && {
            testedOn: profile.testedOn,
            line: profile.line,
            points: profile.points,
            source: profile.source,
          },
        };
      }),
    });
  });
}
