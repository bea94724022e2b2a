import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { massKg } from "../../../core/units/mass";
import { listVariants } from "../../../db/queries/maxes.server";
import { newestMasses } from "../../../db/queries/person.server";
import {
  addBatch,
  addProfiles,
  batches,
  keepMapping,
  mappings,
  type NewProfile,
} from "../../../db/queries/profiles.server";
import { listAthletes, readTeam } from "../../../db/queries/squads.server";
import type { ImportForm } from "../../forms/import";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces, teamDay } from "../lifters/today.server";

/** What a file's names are matched with, and the mappings kept from earlier files. */
export function startImport(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const dayOf = await teamDay(tx);
    const { rooms } = await readPlaces(tx);
    const people = await listAthletes(tx);
    const newest = await newestMasses(
      tx,
      people.map((one) => one.id),
    );
    const masses = new Map(newest.map((one) => [one.athleteId, massKg(one.mass)]));
    return {
      owner: principal.kind === "person" && principal.role === "owner",
      today: localDate(rooms[0]?.zone ?? "UTC"),
      unit: (await readTeam(tx))?.unit ?? ("kg" as const),
      athletes: people.map(({ id, name }) => ({
        id,
        name,
        bodyMassKg: masses.get(id),
      })),
      variants: (await listVariants(tx)).map(({ id, name, start, systemMass }) => ({
        id,
        name,
        start,
        systemMass,
      })),
      mappings: (await mappings(tx)).map(({ header, mapping }) => ({ header, mapping })),
      batches: (await batches(tx)).map((one) => ({
        id: one.id,
        kind: one.kind,
        fileName: one.fileName,
        tests: one.tests,
        reps: one.reps,
        by: one.enteredBy,
        on: dayOf(one.enteredAt),
      })),
    };
  });
}

/** Takes a whole file in one transaction, or nothing of it. */
export function takeImport(
  principal: Principal,
  input: z.output<typeof ImportForm>,
): Promise<Outcome<{ tests: number; reps: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const people = await listAthletes(tx);
    const variants = await listVariants(tx);
    const places = await readPlaces(tx);
    const entered = { enteredBy: principal.name, enteredAt: now() };
    const wanted = input.tests.map((test) => {
      const person = people.find((one) => one.id === test.athleteId);
      const variant = variants.find((one) => one.id === test.variantId);
      if (!person || !variant) {
        throw new Refused("An athlete or a lift of this file is not in your team any more.");
      }
      const words = `${person.name}, ${variant.name}, ${test.date}`;
      if (test.date > places.todayOf(person))
        throw new Refused(`${words}: this date is still to come.`);
      const row: NewProfile = {
        id: uuidv7(),
        athleteId: person.id,
        variantId: variant.id,
        date: test.date,
        metric: input.metric,
        source: "imported",
        processing: input.processing,
        addedKg: test.addedKg,
        note: `From ${input.fileName}`,
        ...entered,
        reps: test.reps.map((rep) => ({ id: uuidv7(), ...rep })),
      };
      return { words, row };
    });
    const kept = await addProfiles(
      tx,
      wanted.map((test) => test.row),
    );
    const known = wanted.find((test) => !kept.has(test.row.id));
    if (known) {
      throw new Refused(
        `${known.words}: the very same test is kept already. Nothing was imported.`,
      );
    }
    const reps = input.tests.reduce((sum, test) => sum + test.reps.length, 0);
    if (input.header && input.mapping) {
      await keepMapping(tx, {
        id: uuidv7(),
        header: input.header,
        mapping: input.mapping,
        ...entered,
      });
    }
    const { kind, fileName } = input;
    await addBatch(tx, {
      id: uuidv7(),
      kind,
      fileName,
      tests: input.tests.length,
      reps,
      ...entered,
    });
    return done({ tests: input.tests.length, reps });
  }).catch((error: unknown) => {
    if (error instanceof Refused) return failed("refused", error.message);
    throw error;
  });
}

/** Thrown inside the transaction, so that it is rolled back whole. */
class Refused extends Error {}
