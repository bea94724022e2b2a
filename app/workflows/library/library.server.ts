import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { PROCESSING_VERSION } from "../../../core/velocity/stream";
import {
  copyLibrary,
  type ExerciseRow,
  listExercises,
  putAway,
  saveExercise,
} from "../../../db/queries/library.server";
import { listVariants, saveVariant } from "../../../db/queries/maxes.server";
import type { ExerciseForm, VariantForm } from "../../forms/library";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/** An exercise as its page shows it: every field of its record. */
export interface ExerciseOnPage extends Omit<ExerciseRow, "teamId" | "changedAt" | "putAwayAt"> {
  away: boolean;
  easier: Array<{ id: string; name: string }>;
  harder: Array<{ id: string; name: string }>;
}

export function readExercises(principal: Principal): Promise<ExerciseOnPage[]> {
  return inTeam(principal, async (tx) => {
    const { rows, steps } = await listExercises(tx);
    const named = (ids: string[]) =>
      ids.flatMap((id) => {
        const found = rows.find((row) => row.id === id);
        return found ? [{ id, name: found.name }] : [];
      });
    return rows.map(({ teamId: _, changedAt: __, putAwayAt, ...row }) => ({
      ...row,
      away: putAwayAt !== null,
      easier: named(
        steps.filter((step) => step.exerciseId === row.id).map((step) => step.easierId),
      ),
      harder: named(
        steps.filter((step) => step.easierId === row.id).map((step) => step.exerciseId),
      ),
    }));
  });
}

/** Fills an empty library with the shipped exercises and tests. */
export function fillLibrary(principal: Principal): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    if ((await listExercises(tx)).rows.length > 0) {
      return failed("not-empty", "This library holds exercises already. Nothing was added.");
    }
    await copyLibrary(tx, uuidv7);
    return done(null);
  });
}

/** Adds an exercise or changes one. A name stands once; easier versions never run in a circle. */
export function keepExercise(
  principal: Principal,
  input: z.output<typeof ExerciseForm>,
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const { rows, steps } = await listExercises(tx);
    const id = input.id || uuidv7();
    if (input.id && !rows.some((row) => row.id === id)) {
      return failed("no-exercise", "This exercise is not in your library any more.");
    }
    const same = rows.find((row) => row.name.toLowerCase() === input.name.toLowerCase());
    if (same && same.id !== id) {
      return failed(
        "same-name",
        `${same.name} is there already. Change that one, or use another name.`,
      );
    }
    const reaches = (from: string, seen = new Set<string>()): boolean => {
      if (from === id) return true;
      if (seen.has(from)) return false;
      seen.add(from);
      return steps.some((step) => step.exerciseId === from && reaches(step.easierId, seen));
    };
    const circle = input.easier.find((easier) => reaches(easier));
    if (circle) {
      const name = rows.find((row) => row.id === circle)?.name ?? "That exercise";
      return failed("circle", `${name} is a harder version of this one: it cannot be easier too.`);
    }
    const { id: _, easier, ...record } = input;
    await saveExercise(
      tx,
      { id, ...record, changedBy: principal.name, changedAt: now() },
      easier.filter((one) => rows.some((row) => row.id === one)),
    );
    return done({ id });
  });
}

/** Puts an exercise away, or back: nothing that was done with it is lost. */
export function shelveExercise(
  principal: Principal,
  id: string,
  away: boolean,
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await putAway(tx, id, away ? now() : null);
    return done(null);
  });
}

export function readLifts(principal: Principal) {
  return inTeam(principal, async (tx) =>
    (await listVariants(tx)).map(({ teamId: _, ...variant }) => variant),
  );
}

export function keepVariant(
  principal: Principal,
  input: z.output<typeof VariantForm>,
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const variants = await listVariants(tx);
    const id = input.id || uuidv7();
    if (input.id && !variants.some((one) => one.id === id)) {
      return failed("no-lift", "This lift is not in your library any more.");
    }
    const same = variants.find((one) => one.name.toLowerCase() === input.name.toLowerCase());
    if (same && same.id !== id) return failed("same-name", `${same.name} is there already.`);
    for (
      let at = input.baseKind === "own" ? null : input.baseId;
      at;
      at = variants.find((one) => one.id === at && one.baseKind !== "own")?.baseId ?? null
    ) {
      if (at === id) {
        return failed("circle", "The base of this lift leads back to it. Choose another base.");
      }
    }
    if (input.baseId && !variants.some((one) => one.id === input.baseId)) {
      return failed("no-base", "The base is not in your library any more.");
    }
    const { ratio, thresholdMps, baseKind, baseId, ...variant } = input;
    await saveVariant(tx, {
      ...variant,
      id,
      baseKind,
      baseId: baseKind === "own" ? null : baseId,
      ratio: baseKind === "ratio" ? (ratio ?? null) : null,
      thresholdMps: thresholdMps ?? null,
      thresholdProcessing: thresholdMps === undefined ? null : PROCESSING_VERSION,
    });
    return done({ id });
  });
}
