import { Link } from "react-router";
import { z } from "zod";
import { massKg } from "../../../core/units/mass";
import { MassField } from "../../forms/maxes";
import { fieldProblems, recipeFromForm } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { BenchAnswers } from "../../ui/bench-answers";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { removeAnswer } from "../../workflows/lab/send-answer.server";
import { readPlan } from "../../workflows/plan/read-plan.server";
import {
  overrideLoad,
  removeOverride,
  saveRecipeEdit,
} from "../../workflows/plan/save-plan.server";
import type { Route } from "./+types/plan";
import { Numbers } from "./numbers";
import { RecipeForm } from "./recipe-form";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.plan.name ?? "Plan"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readPlan(principal, params.planId);
  if (!result.ok) throw notThere(result);
  return { ...result.value, mayEdit: mayWrite(principal, "/plan/:planId") };
}

const OverrideForm = z.object({
  athleteId: z.uuid(),
  setKey: z.string().min(1).max(80),
  load: MassField,
});
const LiftForm = OverrideForm.omit({ load: true });

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = await request.formData();
  const intent = form.get("intent");
  const { planId } = params;
  if (intent === "recipe") {
    const parsed = recipeFromForm(form);
    if (!parsed.success) {
      return {
        ok: false as const,
        intent: "recipe",
        message: "Nothing was saved: some fields need another look.",
        problems: fieldProblems(parsed.error),
      };
    }
    const version = Number(form.get("version"));
    const result = await saveRecipeEdit(principal, { planId, version, recipe: parsed.data });
    return result.ok
      ? { ok: true as const, intent: "recipe", version: result.value.version }
      : { ok: false as const, intent: "recipe", message: result.message };
  }
  if (intent === "override") {
    const parsed = OverrideForm.safeParse(Object.fromEntries(form));
    if (!parsed.success) {
      return {
        ok: false as const,
        intent: "override",
        message: parsed.error.issues[0]?.message ?? "That is not a load.",
      };
    }
    const { load, ...at } = parsed.data;
    const result = await overrideLoad(principal, { planId, ...at, loadKg: massKg(load) });
    return result.ok
      ? { ok: true as const, intent: "override" }
      : { ok: false as const, intent: "override", message: result.message };
  }
  if (intent === "drop-answer") {
    await removeAnswer(principal, String(form.get("answerId") ?? ""));
    return { ok: true as const, intent: "drop-answer" };
  }
  const parsed = LiftForm.safeParse(Object.fromEntries(form));
  if (intent !== "lift" || !parsed.success) {
    throw new Response("This form is not one of this page's.", { status: 400 });
  }
  await removeOverride(principal, { planId, ...parsed.data });
  return { ok: true as const, intent: "lift" };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

export default function Plan({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, roomName, gearName, warnings, athletes, weeks, updatedBy } = loaderData;
  const first = weeks[0];
  const last = weeks[weeks.length - 1];
  const stale = athletes.filter((athlete) => athlete.stale);
  const without = athletes.filter((athlete) => athlete.maxKg === undefined);
  const novices = athletes.filter(
    (athlete) => athlete.trainingYears !== undefined && athlete.trainingYears < 1,
  );
  return (
    <Page
      title={`${plan.name}, ${plan.squadName}`}
      facts={`${athletes.length} athletes · ${first?.date} to ${last?.date} · ${roomName} · ${plan.variant.name}`}
      actions={
        <span className="self-center text-muted">
          version {plan.version}, {updatedBy}
        </span>
      }
      margin={
        <RecipeForm
          key={plan.version}
          recipe={plan.recipe}
          version={plan.version}
          mayEdit={loaderData.mayEdit}
          result={
            actionData && "intent" in actionData && actionData.intent === "recipe"
              ? actionData
              : actionData && !("intent" in actionData)
                ? actionData
                : undefined
          }
        />
      }
    >
      {actionData &&
      "intent" in actionData &&
      actionData.intent === "override" &&
      !actionData.ok ? (
        <Notice kind="problem" title={actionData.message ?? ""} />
      ) : null}
      <Numbers plan={plan} weeks={weeks} athletes={athletes} mayEdit={loaderData.mayEdit} />
      <section aria-label="To look at" className="mt-4 grid gap-x-8 md:grid-cols-2">
        {warnings.map((warning) => (
          <Notice key={warning.code + warning.text} kind="warning" title={warning.text}>
            From: {warning.school}
          </Notice>
        ))}
        {without.length > 0 ? (
          <Notice kind="problem" title={`No working max: ${names(without)}.`}>
            Choose a record on their page; until then their sets have no load.
          </Notice>
        ) : null}
        {stale.map((athlete) => (
          <Notice
            key={athlete.id}
            kind="warning"
            title={`${athlete.name}'s max is ${athlete.ageDays} days old.`}
          >
            Stale after 56. Test in week 1, or go by speed.{" "}
            <Link className="underline" to={`/athletes/${athlete.id}`}>
              Open
            </Link>
          </Notice>
        ))}
        {novices.map((athlete) => (
          <Notice
            key={athlete.id}
            kind="warning"
            title={`${athlete.name} trains for ${athlete.trainingYears} years.`}
          >
            Percentages shown grey: information only. Ramp by speed.
          </Notice>
        ))}
      </section>
      <BenchAnswers answers={loaderData.answers} mayEdit={loaderData.mayEdit} />
      <p className="mt-3 text-sm text-muted">
        Loads for {gearName}, in {roomName}; each rack's own bar and plates count when the session
        starts. An underlined load is a coach's own. Select a figure for its working.{" "}
        {plan.variant.caution}
      </p>
    </Page>
  );
}

function names(list: Array<{ name: string }>): string {
  return list.map((one) => one.name).join(", ");
}
