import { Link, useLocation, useNavigate } from "react-router";
import type { z } from "zod";
import { formatKg, formatMass } from "../../../core/units/mass";
import {
  BodyMassForm,
  CompetitionForm,
  DayNoteForm,
  EraseForm,
  FactsForm,
  formObject,
  LimitForm,
  ReadinessForm,
  ResultForm,
  SetupForm,
  SingleForm,
} from "../../forms/athlete";
import { ChooseMaxForm, NewRecordForm } from "../../forms/maxes";
import { idFrom } from "../../forms/primitives/id";
import { type FieldProblems, fieldProblems } from "../../forms/recipe";
import { ReviewCallForm } from "../../forms/review-call";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import type { Outcome } from "../../platform/outcome";
import { mayWrite, type Principal } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { BenchAnswers } from "../../ui/bench-answers";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { keepOnFilter } from "../../ui/use-address";
import { useKeys } from "../../ui/use-keys";
import { Figure, Figures } from "../../ui/working";
import { archive, erase } from "../../workflows/athletes/leave.server";
import { readAthlete } from "../../workflows/athletes/read-athlete.server";
import {
  dropCompetition,
  saveBodyMass,
  saveCompetition,
  saveDayNote,
  saveFacts,
  saveSetup,
} from "../../workflows/athletes/save-facts.server";
import {
  endLimit,
  readReads,
  saveLimit,
  showReasons,
} from "../../workflows/athletes/save-limits.server";
import { chooseMax, saveRecord } from "../../workflows/athletes/save-max.server";
import {
  confirmSingle,
  decideReadiness,
  saveResult,
} from "../../workflows/athletes/save-tests.server";
import { removeAnswer } from "../../workflows/lab/send-answer.server";
import { decideCall, takeBack } from "../../workflows/review/decide-call.server";
import type { Route } from "./+types/athlete";
import { Agreed } from "./agreed";
import { BoxSection, ContrastSection } from "./box-contrast-section";
import { FactsSection } from "./facts-section";
import { CallsMargin } from "./glance/calls-margin";
import { InForceStrip } from "./glance/in-force";
import { LiftLine } from "./glance/lift-line";
import { liftPart, OpensPart, useOpenPart } from "./glance/opens";
import { Panels } from "./glance/panels";
import { UpNext } from "./glance/up-next";
import { HistorySection } from "./history-section";
import { Leaving } from "./leaving";
import { LiftSection } from "./lift-section";
import { LimitsSection, type Reasons } from "./limits-section";
import { RecordForm, RepMaxForm } from "./max-forms";
import { TestsSection } from "./tests-section";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.person.name ?? "Athlete"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readAthlete(principal, params.athleteId);
  if (!result.ok) throw notThere(result);
  const reads = await readReads(principal, params.athleteId);
  return {
    ...result.value,
    mayEdit: mayWrite(principal, "/athletes/:athleteId"),
    /** For the owner: who has read the reasons of limits. */
    reads: reads.ok ? reads.value : undefined,
  };
}

/** One form of the page: its shape, and the workflow that takes it. */
function form<Schema extends z.ZodType>(
  schema: Schema,
  run: (
    principal: Principal,
    athleteId: string,
    input: z.output<Schema>,
  ) => Promise<Outcome<unknown>>,
) {
  return async (principal: Principal, athleteId: string, fields: Record<string, string>) => {
    const parsed = schema.safeParse(fields);
    if (!parsed.success) return { ok: false as const, problems: fieldProblems(parsed.error) };
    return run(principal, athleteId, parsed.data);
  };
}

const FORMS: Record<
  string,
  (
    principal: Principal,
    athleteId: string,
    fields: Record<string, string>,
  ) => Promise<Outcome<unknown> | { ok: false; problems: FieldProblems }>
> = {
  facts: form(FactsForm, saveFacts),
  mass: form(BodyMassForm, saveBodyMass),
  competition: form(CompetitionForm, saveCompetition),
  "drop-competition": (principal, athleteId, { id }) =>
    dropCompetition(principal, athleteId, idFrom(id)),
  limit: form(LimitForm, saveLimit),
  "end-limit": (principal, athleteId, { limitId }) =>
    endLimit(principal, athleteId, idFrom(limitId)),
  reasons: (principal, athleteId) => showReasons(principal, athleteId),
  archive: (principal, athleteId) => archive(principal, athleteId, true),
  "bring-back": (principal, athleteId) => archive(principal, athleteId, false),
  erase: form(EraseForm, (principal, athleteId, { typed }) => erase(principal, athleteId, typed)),
  "drop-answer": (principal, _athleteId, { answerId }) => removeAnswer(principal, idFrom(answerId)),
  note: form(DayNoteForm, saveDayNote),
  setup: form(SetupForm, saveSetup),
  single: form(SingleForm, confirmSingle),
  result: form(ResultForm, saveResult),
  readiness: form(ReadinessForm, decideReadiness),
  record: form(NewRecordForm, (principal, athleteId, { confirmed, ...record }) =>
    saveRecord(principal, { athleteId, ...record, confirmed: confirmed === "yes" }),
  ),
  "record-in-use": form(NewRecordForm, (principal, athleteId, { confirmed, ...record }) =>
    saveRecord(principal, { athleteId, ...record, confirmed: confirmed === "yes", use: true }),
  ),
  decide: form(ReviewCallForm, (principal, _athleteId, input) =>
    input.intent === "decide" ? decideCall(principal, input) : takeBack(principal, input.callId),
  ),
  "take-back": form(ReviewCallForm, (principal, _athleteId, input) =>
    input.intent === "take-back" ? takeBack(principal, input.callId) : decideCall(principal, input),
  ),
  choose: form(ChooseMaxForm, (principal, athleteId, input) =>
    chooseMax(principal, { athleteId, ...input }),
  ),
};

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  const intent = fields.intent ?? "";
  const take = Object.hasOwn(FORMS, intent) ? FORMS[intent] : undefined;
  if (!take) throw new Response("This page does not know that form.", { status: 400 });
  return { intent, ...(await take(principal, params.athleteId, fields)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = keepOnFilter;

export default function Athlete({ loaderData, actionData }: Route.ComponentProps) {
  const { person, lifts, today, beside } = loaderData;
  const resultFor = (intent: string) => resultOf(actionData, intent);
  const shown = resultFor("reasons");
  const reasons = shown?.ok && "value" in shown ? (shown.value as Reasons[]) : undefined;
  const open = useOpenPart();
  const { search } = useLocation();
  const asked = new URLSearchParams(search);
  const recording = asked.get("form") === "record";
  asked.delete("form");
  const withoutForm = asked.toString();
  asked.set("form", "record");
  const withForm = asked.toString();
  const navigate = useNavigate();
  const to = (id: string | undefined) => (id ? `/athletes/${id}${search}` : undefined);
  const go = (id: string | undefined) => {
    const path = to(id);
    if (path) void navigate(path);
  };
  useKeys({ "[": () => go(beside.before), "]": () => go(beside.after) }, true);
  const [newestMass] = loaderData.masses;
  return (
    <Page
      title={person.name}
      facts={[
        person.squadName,
        person.sport,
        person.roomName,
        person.trainingYears === undefined
          ? "training age not set"
          : `trains ${person.trainingYears} y`,
        newestMass ? `${formatMass(newestMass.mass)}, ${newestMass.date}` : "",
      ]
        .filter(Boolean)
        .join(" · ")}
      actions={
        <>
          {beside.at > 0 ? (
            <nav aria-label="In the squad" className="flex items-center gap-1 text-muted">
              <Beside to={to(beside.before)} label="The one before, [">
                ‹
              </Beside>
              {beside.at} of {beside.of}
              <Beside to={to(beside.after)} label="The one after, ]">
                ›
              </Beside>
            </nav>
          ) : null}
          <Link className="btn" to={`/athletes/${person.id}/box`}>
            On the box
          </Link>
          <Link className="btn" to={`/review/trends?athlete=${person.id}`}>
            Trends
          </Link>
          {loaderData.mayEdit ? (
            <Link
              className="btn"
              replace
              preventScrollReset
              to={{ search: recording ? withoutForm : withForm }}
            >
              {recording ? "Done with records" : "Add a record"}
            </Link>
          ) : null}
        </>
      }
      margin={
        loaderData.mayEdit ? (
          recording ? (
            <>
              <RecordForm
                lifts={lifts}
                today={today}
                result={resultFor("record-in-use") ?? resultFor("record")}
              />
              <RepMaxForm lifts={lifts} today={today} />
            </>
          ) : (
            <CallsMargin data={loaderData} result={resultFor("decide")} />
          )
        ) : undefined
      }
    >
      <Figures label="Athlete">
        <InForceStrip data={loaderData} />
        {open === "limits" ? (
          <>
            <LimitsSection data={loaderData} reasons={reasons} resultFor={resultFor} />
            {person.trainingYears !== undefined && person.trainingYears < 1 ? (
              <Notice kind="warning" title="Under a year of barbell training">
                A max is not trustworthy yet: percentages are information only. Ramp in small steps
                until the bar must be pushed hard but is still fast.
              </Notice>
            ) : null}
          </>
        ) : null}
        {person.erased ? (
          <Notice kind="note" title="This person was erased">
            Names, notes and reasons are gone for good. What was lifted and tested stays, under
            nobody's name.
          </Notice>
        ) : person.archived ? (
          <Notice kind="note" title="Archived: on no list and in no new session">
            Everything is kept. At the foot of this page the athlete is brought back.
          </Notice>
        ) : (
          <UpNext days={loaderData.upNext} />
        )}
        <Lifts data={loaderData} open={open} resultFor={resultFor} />
        <Panels data={loaderData} />
        {open === "box" ? <BoxSection athleteId={person.id} box={loaderData.box} /> : null}
        {open === "contrast" ? (
          <ContrastSection athleteId={person.id} contrast={loaderData.contrast} />
        ) : null}
        {open === "tests" ? <TestsSection data={loaderData} resultFor={resultFor} /> : null}
        <Agreed data={loaderData} />
        <BenchAnswers answers={loaderData.answers} mayEdit={loaderData.mayEdit} />
        <div className="flex flex-wrap gap-x-6 py-2">
          <h2>
            <OpensPart part="facts">Facts and competitions</OpensPart>
          </h2>
          <h2>
            <OpensPart part="history">History</OpensPart>
          </h2>
          {loaderData.mayEdit ? (
            <h2>
              <OpensPart part="leaving">Leaving</OpensPart>
            </h2>
          ) : null}
        </div>
        {open === "facts" ? <FactsSection data={loaderData} resultFor={resultFor} /> : null}
        {open === "history" ? <HistorySection data={loaderData} /> : null}
        {(open === "leaving" || person.archived) && loaderData.mayEdit ? (
          <Leaving data={loaderData} resultFor={resultFor} />
        ) : null}
      </Figures>
    </Page>
  );
}

function Beside({
  to,
  label,
  children,
}: {
  to: string | undefined;
  label: string;
  children: string;
}) {
  const className = "inline-grid size-8 place-items-center text-[1.2rem] pointer-coarse:size-11";
  return to ? (
    <Link to={to} aria-label={label} title={label} className={className}>
      {children}
    </Link>
  ) : (
    <span aria-hidden="true" className={`${className} opacity-40`}>
      {children}
    </span>
  );
}

/** The main lifts, a line each; the open one has its records, profile and set-up under it. */
function Lifts({
  data,
  open,
  resultFor,
}: {
  data: Route.ComponentProps["loaderData"];
  open: string;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const unit = useUnit();
  const { lifts, person } = data;
  const known = lifts.filter(
    (lift) => lift.records.length > 0 || lift.tests.length > 0 || open === liftPart(lift.id),
  );
  const others = lifts.filter((lift) => !known.includes(lift));
  return (
    <section aria-labelledby="lifts-title" className="border-b border-rule py-2">
      <div className="grid gap-x-4 text-sm text-muted lg:grid-cols-[12.5rem_1fr_1fr_11.5rem]">
        <div className="flex gap-2">
          <h2 id="lifts-title" className="!text-sm">
            Main lifts
          </h2>
          <span>working max, {unit}</span>
        </div>
        <span className="hidden lg:block">Speed at one load, own days alone</span>
        <span className="hidden lg:block">Own line, m/s over {unit}</span>
        <span className="hidden lg:block">Faults by %: ○ clean ✕ seen</span>
      </div>
      {known.length === 0 ? (
        <p className="py-4">
          No record yet: percentages need a stated max.{" "}
          {data.mayEdit ? (
            <Link className="btn btn-primary" replace preventScrollReset to="?form=record">
              Enter the first
            </Link>
          ) : null}
        </p>
      ) : null}
      {known.map((lift) => (
        <div key={lift.id} className="border-t border-faint first-of-type:border-t-0">
          <LiftLine lift={lift} athleteId={person.id} young={(person.trainingYears ?? 9) < 1} />
          {open === liftPart(lift.id) ? (
            <LiftSection lift={lift} data={data} resultFor={resultFor} />
          ) : null}
        </div>
      ))}
      {others.length > 0 ? (
        <p className="pt-1 text-sm text-muted">
          Without own records:{" "}
          {others.map((lift, i) => (
            <span key={lift.id}>
              {i > 0 ? " · " : ""}
              {lift.name}{" "}
              {"max" in lift.resolved ? (
                <Figure id={`max/${lift.id}`} working={lift.resolved.max.working}>
                  {formatKg(lift.resolved.max.kg, unit, 1)}
                </Figure>
              ) : lift.resolved.reason === "no-ratio" ? (
                "(ratio not set)"
              ) : (
                "(no record)"
              )}
            </span>
          ))}
        </p>
      ) : null}
    </section>
  );
}
