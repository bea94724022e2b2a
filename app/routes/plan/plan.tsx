import { useDeferredValue, useMemo, useState } from "react";
import { Link, redirect } from "react-router";
import { z } from "zod";
import { dateOf, daysOf, lastDate, leadSlot } from "../../../core/plan/block";
import { pack, unpack } from "../../forms/json";
import { MOST_CURSOR } from "../../forms/primitives/cursor";
import { dateField } from "../../forms/primitives/date";
import { idFrom, idOrNone } from "../../forms/primitives/id";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite, type Principal } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { RecipeForm } from "../../ui/recipe-form";
import { useAddress } from "../../ui/use-address";
import { removeAnswer } from "../../workflows/lab/send-answer.server";
import { movePlan, redoEdit, undoEdit } from "../../workflows/plan/edit-plan.server";
import { copyPlan, shelvePlan, splitAthlete } from "../../workflows/plan/new-plan.server";
import { publishPlan } from "../../workflows/plan/publish-plan.server";
import { readPlan } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plan";
import { BoardMargin } from "./board/board-margin";
import { BoardView } from "./board/board-view";
import { type Picked, pickedIn } from "./board/picked";
import { ChecksView } from "./checks-view";
import { DayView } from "./day-view";
import { NumbersView } from "./numbers-view";
import { Actions, useNewer } from "./plan-actions";
import { History } from "./plan-changes";
import { PlanEdits, usePlanEdits } from "./plan-edits";
import { useRecipeKeeping } from "./recipe-keeping";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.name ?? "Plan"} · Sprezza` }];
}

export async function loader({ request, context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const other = new URL(request.url).searchParams.get("against");
  const result = await readPlan(principal, params.planId, idOrNone(other));
  if (!result.ok) throw notThere(result);
  return {
    name: result.value.block.name,
    page: pack(result.value),
    mayEdit: mayWrite(principal, "/plan/:planId"),
  };
}

/** The edit on which a form was drawn up; a form without it counts as made before all of them. */
const Base = z.coerce.number().int().min(0).max(MOST_CURSOR).catch(0);
const Move = z.object({ roomId: z.uuid(), rounding: z.enum(["nearest", "down"]) });
const Copy = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(80),
  startDate: dateField("A date, for example 2026-04-13."),
  groupId: z.union([z.literal(""), z.uuid()]),
});

const wrong = (error: z.ZodError) => ({
  ok: false as const,
  message: error.issues[0]?.message ?? "Some of it cannot be.",
});

/** Each form of the page by its intent. */
async function take(principal: Principal, planId: string, intent: string, form: FormData) {
  const fields = Object.fromEntries(form);
  switch (intent) {
    case "undo":
      return undoEdit(principal, planId);
    case "redo":
      return redoEdit(principal, planId);
    case "publish":
      return publishPlan(principal, { planId, base: Base.parse(fields.base) });
    case "move": {
      const parsed = Move.safeParse(fields);
      return parsed.success ? movePlan(principal, { planId, ...parsed.data }) : wrong(parsed.error);
    }
    case "split":
      return splitAthlete(principal, {
        planId,
        athleteId: idFrom(fields.athleteId),
        base: Base.parse(fields.base),
      });
    case "copy": {
      const parsed = Copy.safeParse(fields);
      if (!parsed.success) return wrong(parsed.error);
      const made = await copyPlan(principal, { planId, ...parsed.data });
      if (made.ok) throw redirect(`/plan/${made.value.id}`);
      return made;
    }
    case "away": {
      const done = await shelvePlan(principal, { planId, away: true });
      if (done.ok) throw redirect("/plan");
      return done;
    }
    case "drop-answer":
      return removeAnswer(principal, idFrom(fields.answerId));
    default:
      throw new Response("This form is not one of this page's.", { status: 400 });
  }
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await readForm(request);
  const intent = String(form.get("intent") ?? "");
  return take(principalOf(context), params.planId, intent, form);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** What is looked at stands in the address; only another school to check against is loaded. */
export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  const against = (url: URL) => url.searchParams.get("against");
  const samePage = args.currentUrl.pathname === args.nextUrl.pathname;
  const looked = samePage && args.currentUrl.search !== args.nextUrl.search;
  if (looked && args.formMethod === undefined) {
    return against(args.currentUrl) !== against(args.nextUrl);
  }
  return revalidateUnlessFailed(args);
}

const VIEWS = [
  ["board", "Board"],
  ["numbers", "Numbers"],
  ["day", "Days to time"],
  ["checks", "Checks"],
] as const;

/** Another plan is another page: no edit that waits, and no draft, goes over to it. */
export default function Plan(props: Route.ComponentProps) {
  return <OnePlan key={props.params.planId} {...props} />;
}

function OnePlan({ loaderData, actionData }: Route.ComponentProps) {
  const loaded = useMemo(() => unpack(loaderData.page), [loaderData.page]);
  const edits = usePlanEdits(loaded.plan.id, loaded.plan.version, loaded.block);
  const data = useMemo(() => ({ ...loaded, block: edits.block }), [loaded, edits.block]);
  const { mayEdit } = loaderData;
  const { plan } = data;
  const address = useAddress();
  const view = VIEWS.find(([id]) => id === address.get("view"))?.[0] ?? "board";
  const lead = leadSlot(data.block)?.id;
  const [inHand, pick] = useState<Picked>();
  const asked = data.block.slots[address.get("slot")] ? address.get("slot") : lead;
  const picked = useMemo(() => pickedIn(data.block, inHand, asked), [data.block, inHand, asked]);
  const slotId = (view === "board" && picked.kind === "cell" ? picked.slotId : asked) ?? "";
  const [who, choose] = useState("");
  const athlete = data.athletes.find((one) => one.id === who) ?? data.athletes[0];
  const slot = data.block.slots[slotId];
  const again = (to: string) => {
    pick({ kind: "cell", slotId: to, week: data.block.slots[to]?.fromWeek ?? 1 });
    if (view !== "board") address.set("slot", to);
  };
  const recipe = useRecipeKeeping(edits.edit, slotId, plan.version, again);
  // Typing comes first: the numbers follow as soon as there is time for them.
  const draft = useDeferredValue(recipe.draft);
  const block = useMemo(
    () =>
      slot && draft
        ? { ...data.block, slots: { ...data.block.slots, [slotId]: { ...slot, recipe: draft } } }
        : data.block,
    [data.block, slot, slotId, draft],
  );
  // What is in hand is marked at once; the margin that speaks of it follows.
  const inMargin = useDeferredValue(useMemo(() => ({ picked, recipe }), [picked, recipe]));
  useNewer(data);
  const result = actionData as { ok: boolean; message?: string } | undefined;
  const first = daysOf(block)[0];
  return (
    <PlanEdits value={edits.edit}>
      <Page
        title={`${block.name}, ${plan.squadName}`}
        facts={`${data.athletes.length} athletes · ${first ? dateOf(block, 1, first) : block.startDate} to ${lastDate(block)} · ${plan.roomName}`}
        actions={<Actions data={data} mayEdit={mayEdit} busy={edits.busy} />}
        margin={
          view === "board" ? (
            <BoardMargin
              data={data}
              block={block}
              picked={inMargin.picked}
              pick={pick}
              recipe={inMargin.recipe}
              athlete={athlete}
              choose={choose}
              mayEdit={mayEdit}
            />
          ) : slot && view === "numbers" ? (
            <RecipeForm
              key={`${slotId}/${recipe.filledAt}/${recipe.givenBack ? "again" : ""}`}
              recipe={recipe.givenBack ?? slot.recipe}
              mayEdit={mayEdit}
              result={recipe.result}
              onTyping={recipe.onTyping}
              onDraft={recipe.onDraft}
              onKeep={recipe.onKeep}
            />
          ) : (
            <History data={data} />
          )
        }
      >
        <nav
          aria-label="Views of the plan"
          className="no-print -mx-4 mb-2 flex gap-x-4 overflow-x-auto border-b border-rule px-4"
        >
          {VIEWS.map(([id, name]) => (
            <Link
              key={id}
              to={`?view=${id}${slotId ? `&slot=${slotId}` : ""}`}
              preventScrollReset
              aria-current={id === view ? "page" : undefined}
              className={`whitespace-nowrap border-b-2 py-2 ${id === view ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`}
            >
              {name}
              {id === "checks" && data.open > 0 ? ` (${data.open})` : ""}
            </Link>
          ))}
        </nav>
        {result && !result.ok ? (
          <Notice kind="problem" title={result.message ?? "That could not be done."} />
        ) : null}
        {edits.problem ? <Notice kind="problem" title={edits.problem} /> : null}
        {view === "board" ? (
          <BoardView
            data={data}
            block={block}
            picked={picked}
            pick={pick}
            recipe={recipe}
            athlete={athlete}
            mayEdit={mayEdit}
          />
        ) : null}
        {view === "numbers" ? (
          <NumbersView
            data={data}
            block={block}
            slotId={slotId}
            drafted={draft !== undefined}
            address={address}
            mayEdit={mayEdit}
          />
        ) : null}
        {view === "day" ? <DayView data={data} address={address} mayEdit={mayEdit} /> : null}
        {view === "checks" ? <ChecksView data={data} address={address} mayEdit={mayEdit} /> : null}
      </Page>
    </PlanEdits>
  );
}
