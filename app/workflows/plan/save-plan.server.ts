import { uuidv7 } from "uuidv7";
import { describeRefusal, loadBar } from "../../../core/barload/load";
import { expandRecipe, type Recipe } from "../../../core/wave/recipe";
import { racksOf } from "../../../db/queries/gear.server";
import { liftOverride, planById, saveRecipe, setOverride } from "../../../db/queries/plans.server";
import { athleteById } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

export function saveRecipeEdit(
  principal: Principal,
  input: { planId: string; version: number; recipe: Recipe },
): Promise<Outcome<{ version: number }>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    if (!row) return failed("no-plan", "This plan is not there. Open the plan list.");
    const saved = await saveRecipe(tx, {
      ...input,
      name: input.recipe.name,
      by: principal.name,
      at: now(),
    });
    return saved
      ? done({ version: input.version + 1 })
      : failed(
          "newer",
          `${row.plan.updatedBy} saved this recipe after you opened it. Yours is still in the form: compare, then save again.`,
        );
  });
}

export function overrideLoad(
  principal: Principal,
  input: { planId: string; athleteId: string; setKey: string; loadKg: number },
): Promise<Outcome<{ totalKg: number }>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    const athlete = await athleteById(tx, input.athleteId);
    if (!row || !athlete) return failed("no-plan", "This plan or athlete is not there any more.");
    const known = expandRecipe(row.plan.recipe).some((week) =>
      week.sets.some((set) => set.key === input.setKey),
    );
    if (!known)
      return failed("no-set", "The recipe has no such set any more. Load the page again.");
    const rack = (await racksOf(tx, row.plan.roomId))[0];
    if (!rack) return failed("no-rack", `${row.roomName} has no rack with a bar yet.`);
    const loading = loadBar(rack.gear, input.loadKg, row.plan.rounding);
    if (!loading.ok) return failed("not-loadable", describeRefusal(loading));
    await setOverride(tx, {
      id: uuidv7(),
      planId: input.planId,
      athleteId: input.athleteId,
      setKey: input.setKey,
      loadKg: input.loadKg,
      setBy: principal.name,
      setAt: now(),
    });
    return done({ totalKg: loading.totalKg });
  });
}

export function removeOverride(
  principal: Principal,
  at: { planId: string; athleteId: string; setKey: string },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await liftOverride(tx, at);
    return done(null);
  });
}
