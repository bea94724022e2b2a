import { useEffect, useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Form, Link, redirect, useRevalidator } from "react-router";
import { z } from "zod";
import { blockLoads, changedLoads } from "../../../core/session/blocknumbers";
import { progressions, tonnageKg } from "../../../core/session/tonnage";
import { formatKg, massKg } from "../../../core/units/mass";
import {
  dateOf,
  daysOf,
  lastDate,
  leadSlot,
  overrideKey,
  type Slot,
} from "../../../core/wave/block";
import { pack, unpack } from "../../forms/json";
import { MassField } from "../../forms/maxes";
import { fieldProblems, recipeFromForm } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite, type Principal } from "../../platform/rights";
import { BenchAnswers } from "../../ui/bench-answers";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { RecipeForm, type RecipeResult } from "../../ui/recipe-form";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { useFirstRows } from "../../ui/use-first-rows";
import { removeAnswer } from "../../workflows/lab/send-answer.server";
import {
  editPlan,
  movePlan,
  overrideLoad,
  redoEdit,
  undoEdit,
} from "../../workflows/plan/edit-plan.server";
import { copyPlan, shelvePlan, splitAthlete } from "../../workflows/plan/new-plan.server";
import { publishPlan } from "../../workflows/plan/publish-plan.server";
import { type PlanPage, readPlan } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plan";
import { ChecksView } from "./checks-view";
import { DayView } from "./day-view";
import { Numbers, SHOW_NAMES, SHOWS, weeksShown } from "./numbers";
import { PlanEdits, usePlanEdits } from "./plan-edits";
import { SetupMargin } from "./setup-block";
import { SetupView } from "./setup-view";
import { SlotPicker } from "./slot-picker";
import { WeeksView } from "./weeks-view";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.name ?? "Plan"} · Sprezza` }];
}

export async function loader({ request, context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const other = new URL(request.url).searchParams.get("against") ?? undefined;
  const result = await readPlan(principal, params.planId, other);
  if (!result.ok) throw notThere(result);
  return {
    name: result.value.block.name,
    page: pack(result.value),
    mayEdit: mayWrite(principal, "/plan/:planId"),
  };
}

/** The edit on which a form was drawn up; a form without it counts as made before all of them. */
const Base = z.coerce.number().int().min(0).catch(0);
const At = z.object({
  athleteId: z.uuid(),
  slotId: z.string().min(1).max(60),
  setKey: z.string().min(1).max(120),
  week: z.coerce.number().int().min(1),
  base: Base,
});
const Override = At.extend({ load: MassField });
const Move = z.object({ roomId: z.uuid(), rounding: z.enum(["nearest", "down"]) });
const Copy = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(80),
  startDate: z.iso.date("A date, for example 2026-04-13."),
  squadId: z.union([z.literal(""), z.uuid()]),
});

const wrong = (error: z.ZodError) => ({
  ok: false as const,
  message: error.issues[0]?.message ?? "Some of it cannot be.",
});

/** Each form of the page by its intent. */
async function take(principal: Principal, planId: string, intent: string, form: FormData) {
  const fields = Object.fromEntries(form);
  switch (intent) {
    case "recipe": {
      const parsed = recipeFromForm(form);
      if (!parsed.success) {
        return {
          ok: false as const,
          message: "Nothing was saved: some fields need another look.",
          problems: fieldProblems(parsed.error),
        };
      }
      const slotId = String(fields.slotId ?? "");
      const result = await editPlan(principal, {
        planId,
        base: Base.parse(fields.base),
        edit: {
          words: `Recipe changed: ${parsed.data.name}`,
          sets: [
            { path: ["slots", slotId, "recipe"], value: JSON.parse(JSON.stringify(parsed.data)) },
          ],
        },
      });
      return result.ok ? { ok: true as const, seq: result.value.seq } : result;
    }
    case "undo":
      return undoEdit(principal, planId);
    case "redo":
      return redoEdit(principal, planId);
    case "publish":
      return publishPlan(principal, { planId, base: Base.parse(fields.base) });
    case "override": {
      const parsed = Override.safeParse(fields);
      if (!parsed.success) return wrong(parsed.error);
      const { load, ...at } = parsed.data;
      return overrideLoad(principal, { planId, ...at, loadKg: massKg(load) });
    }
    case "lift": {
      const parsed = At.safeParse(fields);
      if (!parsed.success) return wrong(parsed.error);
      const { athleteId, slotId, setKey, base } = parsed.data;
      return editPlan(principal, {
        planId,
        base,
        edit: {
          words: "Own load taken off",
          sets: [{ path: ["overrides", overrideKey(athleteId, slotId, setKey)] }],
        },
      });
    }
    case "move": {
      const parsed = Move.safeParse(fields);
      return parsed.success ? movePlan(principal, { planId, ...parsed.data }) : wrong(parsed.error);
    }
    case "split":
      return splitAthlete(principal, {
        planId,
        athleteId: String(fields.athleteId ?? ""),
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
      return removeAnswer(principal, String(fields.answerId ?? ""));
    default:
      throw new Response("This form is not one of this page's.", { status: 400 });
  }
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await request.formData();
  const intent = String(form.get("intent") ?? "");
  return { intent, ...(await take(principalOf(context), params.planId, intent, form)) };
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
  ["numbers", "Numbers"],
  ["day", "Days to time"],
  ["weeks", "Week by week"],
  ["checks", "Checks"],
  ["setup", "Days and slots"],
] as const;

export default function Plan({ loaderData, actionData }: Route.ComponentProps) {
  const loaded = useMemo(() => unpack(loaderData.page), [loaderData.page]);
  const edits = usePlanEdits(loaded.plan.id, loaded.plan.version, loaded.block);
  const data = useMemo(() => ({ ...loaded, block: edits.block }), [loaded, edits.block]);
  const { mayEdit } = loaderData;
  const { plan, published } = data;
  const address = useAddress();
  const view = VIEWS.find(([id]) => id === address.get("view"))?.[0] ?? "numbers";
  const slotId = data.block.slots[address.get("slot")]
    ? address.get("slot")
    : (leadSlot(data.block)?.id ?? "");
  const slot = data.block.slots[slotId];
  const [draft, setDraft] = useState<{
    slotId: string;
    recipe: NonNullable<typeof slot>["recipe"];
  }>();
  const block = useMemo(() => {
    const drafted = draft && data.block.slots[draft.slotId];
    return drafted && draft
      ? {
          ...data.block,
          slots: { ...data.block.slots, [draft.slotId]: { ...drafted, recipe: draft.recipe } },
        }
      : data.block;
  }, [data.block, draft]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was saved is no draft any more
  useEffect(() => setDraft(undefined), [plan.version, slotId]);
  useNewer(data);
  const result = actionData as
    | { intent?: string; ok: boolean; message?: string; problems?: Record<string, string> }
    | undefined;
  const recipeResult =
    result && (result.intent === "recipe" || result.intent === undefined)
      ? (result as RecipeResult)
      : undefined;
  const first = daysOf(block)[0];
  const show = SHOWS.find((one) => one === address.get("show")) ?? "loads";
  const shown = weeksShown(slot?.recipe, show);
  const firstWeek = firstShown(Number(address.get("from")), block.weeks, shown);
  return (
    <PlanEdits value={edits.edit}>
      <Page
        title={`${block.name}, ${plan.squadName}`}
        facts={`${data.athletes.length} athletes · ${first ? dateOf(block, 1, first) : block.startDate} to ${lastDate(block)} · ${plan.roomName}`}
        actions={<Actions data={data} mayEdit={mayEdit} busy={edits.busy} />}
        margin={
          slot && view === "numbers" ? (
            <RecipeForm
              key={`${slotId}/${plan.version}`}
              recipe={slot.recipe}
              hidden={{ slotId, base: plan.version }}
              mayEdit={mayEdit}
              result={recipeResult}
              onDraft={(recipe) => setDraft(recipe && { slotId, recipe })}
            />
          ) : view === "setup" ? (
            <SetupMargin data={data} mayEdit={mayEdit} />
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
        {result && !result.ok && result.intent !== "recipe" && result.intent !== undefined ? (
          <Notice kind="problem" title={result.message ?? "That could not be done."} />
        ) : null}
        {edits.problem ? <Notice kind="problem" title={edits.problem} /> : null}
        {view === "numbers" ? (
          <>
            <SlotPicker data={data} block={block} slotId={slotId} />
            {draft ? (
              <p role="status" className="my-1 font-medium text-secondary">
                As typed, not saved yet.
              </p>
            ) : null}
            {slot ? (
              <>
                <div className="no-print mb-1 flex flex-wrap items-center gap-x-6">
                  <WeekPager
                    firstWeek={firstWeek}
                    weeks={block.weeks}
                    shown={shown}
                    set={address.set}
                  />
                  <label className="flex items-center gap-2 text-muted">
                    Cells show
                    <select
                      className="rounded border border-control bg-base-100 px-1 py-0.5 text-base-content pointer-coarse:min-h-11"
                      value={show}
                      onChange={(event) =>
                        address.set(
                          "show",
                          event.target.value === "loads" ? "" : event.target.value,
                        )
                      }
                    >
                      {SHOWS.map((one) => (
                        <option key={one} value={one}>
                          {SHOW_NAMES[one]}
                        </option>
                      ))}
                    </select>
                  </label>
                </div>
                <Numbers
                  data={data}
                  block={block}
                  slotId={slotId}
                  firstWeek={firstWeek}
                  show={show}
                  mayEdit={mayEdit}
                />
                <AccessorySteps slot={slot} />
              </>
            ) : (
              <Empty
                action={
                  mayEdit ? (
                    <Link className="btn btn-primary" to="?view=setup">
                      Put a slot on a day
                    </Link>
                  ) : undefined
                }
              >
                No slot yet. A slot is a lift or an exercise on a day, with its recipe.
              </Empty>
            )}
            <Changed data={data} published={published} />
            <BenchAnswers answers={data.answers} mayEdit={mayEdit} />
            <p className="mt-3 text-sm text-muted">
              Loads for {data.gearName}, in {plan.roomName}; each rack's own bar and plates count
              when the session starts. An underlined load is a coach's own. Select a figure for its
              working.{" "}
              {data.lifts.find(
                (one) => slot?.work.kind === "lift" && one.id === slot.work.variantId,
              )?.caution ?? ""}
            </p>
          </>
        ) : null}
        {view === "day" ? <DayView data={data} address={address} mayEdit={mayEdit} /> : null}
        {view === "weeks" ? <WeeksView data={data} /> : null}
        {view === "checks" ? <ChecksView data={data} address={address} mayEdit={mayEdit} /> : null}
        {view === "setup" ? <SetupView data={data} mayEdit={mayEdit} /> : null}
      </Page>
    </PlanEdits>
  );
}

function firstShown(asked: number, weeks: number, shown: number): number {
  const last = Math.max(1, weeks - shown + 1);
  return Number.isInteger(asked) && asked >= 1 ? Math.min(asked, last) : 1;
}

function WeekPager({
  firstWeek,
  weeks,
  shown,
  set,
}: {
  firstWeek: number;
  weeks: number;
  shown: number;
  set: (name: string, value: string) => void;
}) {
  if (weeks <= shown) return null;
  const to = (week: number) => set("from", week <= 1 ? "" : String(week));
  return (
    <p className="no-print flex items-baseline gap-3 text-muted">
      <button
        type="button"
        className="underline disabled:no-underline disabled:opacity-60"
        disabled={firstWeek <= 1}
        onClick={() => to(firstWeek - shown)}
      >
        Earlier weeks
      </button>
      <span>
        weeks {firstWeek} to {Math.min(weeks, firstWeek + shown - 1)} of {weeks}
      </span>
      <button
        type="button"
        className="underline disabled:no-underline disabled:opacity-60"
        disabled={firstWeek + shown > weeks}
        onClick={() => to(firstWeek + shown)}
      >
        Later weeks
      </button>
    </p>
  );
}

/** What each next step of an accessory adds, one thing changed at a time. */
function AccessorySteps({ slot }: { slot: Slot }) {
  const unit = useUnit();
  const { recipe, work } = slot;
  const [step] = recipe.steps;
  if (work.kind !== "exercise" || recipe.basis !== "fixed" || recipe.start <= 0 || !step)
    return null;
  const line = { sets: step.sets, reps: step.reps, loadKg: recipe.start, hands: work.hands };
  return (
    <section aria-label="What a step adds" className="mt-3">
      <p>
        {step.sets} × {step.reps} × {formatKg(recipe.start, unit)}
        {work.hands === 2 ? " a hand, both counted" : ""} ={" "}
        <b>{formatKg(tonnageKg(line), unit, 0)}</b>
        {progressions(line, { reps: 3, loadKg: 2.5, sets: 1 }).map((one) => (
          <span key={one.name} className="text-muted">
            {" "}
            · {one.name} +{formatKg(one.deltaKg, unit, 0)}
          </span>
        ))}
      </p>
    </section>
  );
}

function Actions({
  data,
  mayEdit,
  busy,
}: {
  data: PlanPage;
  mayEdit: boolean;
  /** Edits are on their way: what stands on all of them waits. */
  busy: boolean;
}) {
  const { plan, published } = data;
  const stale = published === undefined || published.seq !== plan.version;
  return (
    <>
      <span className="self-center text-muted">
        {published ? `published ${published.number}, ${published.on}` : "never published"}
      </span>
      {mayEdit ? (
        <Form method="post" className="flex gap-2" preventScrollReset>
          <input type="hidden" name="base" value={plan.version} />
          <button
            type="submit"
            name="intent"
            value="undo"
            className="btn"
            title="Ctrl Z"
            disabled={busy}
          >
            Undo
          </button>
          <button
            type="submit"
            name="intent"
            value="redo"
            className="btn"
            title="Ctrl Shift Z"
            disabled={busy}
          >
            Redo
          </button>
          <button
            type="submit"
            name="intent"
            value="publish"
            disabled={busy}
            className={`btn ${stale ? "btn-primary" : ""}`}
          >
            Publish
          </button>
        </Form>
      ) : null}
      <Link className="btn" to={`/plan/${plan.id}/print`}>
        Print
      </Link>
      {mayEdit ? <UndoKeys /> : null}
    </>
  );
}

/** Ctrl Z and Ctrl Shift Z outside of fields. */
function UndoKeys() {
  const press = (name: string) => () => {
    const button = document.querySelector<HTMLButtonElement>(`button[name=intent][value=${name}]`);
    button?.click();
  };
  useHotkeys("mod+z", press("undo"), { preventDefault: true });
  useHotkeys("mod+shift+z", press("redo"), { preventDefault: true });
  return null;
}

/** What changed for whom since athletes last got it. */
function Changed({ data, published }: { data: PlanPage; published: PlanPage["published"] }) {
  const athletes = data.athletes.length;
  const ready = useFirstRows(athletes) === athletes;
  const changes = useMemo(
    () =>
      published && ready
        ? changedLoads(
            published.loads,
            blockLoads({ block: data.block, athletes: data.athletes, room: data.room }),
          )
        : [],
    [data, published, ready],
  );
  if (!published) return null;
  return (
    <section aria-labelledby="since-published" className="mt-4">
      <h2 id="since-published">Since version {published.number}</h2>
      {!ready ? (
        <p className="text-muted">Being compared for {athletes} athletes.</p>
      ) : changes.length === 0 ? (
        <p className="text-muted">Nothing changed: athletes see these loads.</p>
      ) : (
        <ul className="grid gap-x-8 sm:grid-cols-2 lg:grid-cols-3">
          {changes.map((one) => (
            <li key={one.athleteId} className="flex justify-between border-b border-faint">
              <span>
                {data.athletes.find((athlete) => athlete.id === one.athleteId)?.name ??
                  "no longer in it"}
              </span>
              <span className="text-muted">
                {[
                  one.changed ? `${one.changed} changed` : "",
                  one.added ? `${one.added} new` : "",
                  one.gone ? `${one.gone} gone` : "",
                ]
                  .filter(Boolean)
                  .join(", ")}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function History({ data }: { data: PlanPage }) {
  return (
    <section aria-labelledby="edits">
      <h2 id="edits">Edits</h2>
      {data.edits.length === 0 ? <p className="text-muted">None yet.</p> : null}
      <ol>
        {data.edits.map((one) => (
          <li key={one.seq} className="border-b border-faint py-1">
            {one.words}
            <span className="block text-sm text-muted">
              {one.by}, {one.at.slice(0, 10)} {one.at.slice(11, 16)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

const ASK_EVERY_MS = 4000;

/** Asks whether somebody else edited the plan, and takes their change in. */
function useNewer(data: PlanPage) {
  const revalidator = useRevalidator();
  const { id, version } = data.plan;
  const { revalidate, state } = revalidator;
  useEffect(() => {
    const timer = setInterval(async () => {
      if (document.hidden || state !== "idle") return;
      const response = await fetch(`/api/plan/${id}?after=${version}`).catch(() => undefined);
      if (!response?.ok) return;
      const found = (await response.json()) as { seq: number };
      if (found.seq > version) void revalidate();
    }, ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, [id, version, revalidate, state]);
}
