import { Link } from "react-router";
import type { z } from "zod";
import { formatKg, formatMass } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
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
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import type { Outcome } from "../../platform/outcome";
import { mayWrite, type Principal } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { resultOf } from "../../ui/adder";
import { BenchAnswers } from "../../ui/bench-answers";
import { Dated, Day } from "../../ui/dates";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
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
import type { Route } from "./+types/athlete";
import { Agreed } from "./agreed";
import { BoxSection, ContrastSection } from "./box-contrast-section";
import { FactsSection } from "./facts-section";
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

export const shouldRevalidate = revalidateUnlessFailed;

const ANCHORS = [
  ["facts", "Facts"],
  ["limits", "Limits"],
  ["lifts", "Maxes and profiles"],
  ["box", "Box card"],
  ["contrast", "Contrast"],
  ["tests", "Tests"],
  ["history", "History"],
] as const;

export default function Athlete({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { person, lifts, today, mark } = loaderData;
  const resultFor = (intent: string) => resultOf(actionData, intent);
  const shown = resultFor("reasons");
  const reasons = shown?.ok && "value" in shown ? (shown.value as Reasons[]) : undefined;
  const known = lifts.filter((lift) => lift.records.length > 0 || lift.tests.length > 0);
  const others = lifts.filter((lift) => !known.includes(lift));
  return (
    <Page
      title={person.name}
      facts={`${person.squadName} · ${person.sport} · ${person.roomName} · ${
        person.trainingYears === undefined
          ? "training age not set"
          : `training for ${person.trainingYears} years`
      }`}
      margin={
        loaderData.mayEdit && (
          <>
            <RecordForm lifts={lifts} today={today} result={resultFor("record")} />
            <RepMaxForm lifts={lifts} today={today} />
          </>
        )
      }
    >
      <nav
        aria-label="On this page"
        className="no-print sticky top-11 z-10 -mx-4 mb-3 flex gap-x-4 overflow-x-auto border-b border-rule bg-base-100 px-4"
      >
        {ANCHORS.map(([id, name]) => (
          <a key={id} href={`#${id}`} className="whitespace-nowrap py-2 hover:underline">
            {name}
          </a>
        ))}
        <Link
          to={`/athletes/${person.id}/box`}
          className="ml-auto whitespace-nowrap py-2 hover:underline"
        >
          On the box
        </Link>
      </nav>
      <Figures label="Athlete">
        {person.trainingYears !== undefined && person.trainingYears < 1 ? (
          <Notice kind="warning" title="Under a year of barbell training">
            A max is not trustworthy yet: percentages are information only. Ramp in small steps
            until the bar must be pushed hard but is still fast.
          </Notice>
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
        ) : null}
        <Agreed data={loaderData} />
        <FactsSection data={loaderData} resultFor={resultFor} />
        <LimitsSection data={loaderData} reasons={reasons} resultFor={resultFor} />
        <section id="lifts" aria-labelledby="lifts-title" className="scroll-mt-24">
          <h2 id="lifts-title" className="border-b border-rule pb-1">
            Maxes and profiles
          </h2>
          {mark?.refused ? <Notice kind="warning" title={mark.words} /> : null}
          {known.length === 0 ? (
            <p className="py-4">
              No record yet. Enter one in the margin; percentages need a stated max.
            </p>
          ) : null}
          {known.map((lift) => (
            <LiftSection key={lift.id} lift={lift} data={loaderData} resultFor={resultFor} />
          ))}
          {others.length > 0 ? (
            <p className="mb-6 text-muted">
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
        <BoxSection athleteId={person.id} box={loaderData.box} />
        <ContrastSection athleteId={person.id} contrast={loaderData.contrast} />
        <TestsSection data={loaderData} resultFor={resultFor} />
        <History data={loaderData} />
        {loaderData.mayEdit ? <Leaving data={loaderData} resultFor={resultFor} /> : null}
      </Figures>
    </Page>
  );
}

function History({ data }: { data: Route.ComponentProps["loaderData"] }) {
  const unit = useUnit();
  const tests = data.lifts.flatMap((lift) =>
    lift.tests.map((test) => ({ ...test, liftName: lift.name })),
  );
  return (
    <section id="history" aria-labelledby="history-title" className="mb-6 scroll-mt-24">
      <h2 id="history-title" className="border-b border-rule pb-1">
        History
      </h2>
      <div className="grid gap-x-8 md:grid-cols-2">
        <div>
          <h3 className="pt-2 font-bold">Profile tests</h3>
          <ul>
            {tests.map((test) => (
              <li key={test.id} className="border-b border-faint py-1">
                <Link className="underline" to={`/athletes/${data.person.id}/profiles/${test.id}`}>
                  <Day of={test.date} />
                </Link>{" "}
                {test.liftName}
                <span className="text-muted">
                  {" "}
                  {test.metric}
                  {test.oneRmKg === undefined ? "" : `, 1RM ${formatKg(test.oneRmKg, unit, 1)}`}
                </span>
              </li>
            ))}
          </ul>
          {data.decisions.length > 0 ? (
            <>
              <h3 className="pt-2 font-bold">Calls on the day</h3>
              <ul>
                {data.decisions.map((one) => (
                  <li key={one.id} className="border-b border-faint py-1">
                    <Day of={one.date} />: {formatKg(one.plannedKg, unit, 1)} planned,{" "}
                    {formatKg(one.proposedKg, unit, 1)} proposed, {formatKg(one.decidedKg, unit, 1)}{" "}
                    decided ({one.decision}
                    {one.reason ? `: ${one.reason}` : ""}), {one.by}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
        <div>
          <h3 className="pt-2 font-bold">Sessions of the squad</h3>
          <ul>
            {data.sessions.map((session) => (
              <li key={session.id} className="border-b border-faint py-1">
                <Link
                  className="underline"
                  to={
                    session.status === "running" ? `/floor/${session.id}` : `/review/${session.id}`
                  }
                >
                  <Day of={session.date} />
                </Link>{" "}
                {session.title}
              </li>
            ))}
          </ul>
          {data.earlier.length > 0 ? (
            <>
              <h3 className="pt-2 font-bold">Before Sprezza, imported</h3>
              <ul aria-label="Before Sprezza">
                {data.earlier.map((one) => (
                  <li key={one.id} className="border-b border-faint py-1">
                    <Day of={one.date} /> {one.lift}
                    <span className="text-muted">
                      {" "}
                      {one.sets} × {one.reps} @ {formatMass(one.load)}
                      {one.velocityMps === null ? "" : `, ${formatVelocity(one.velocityMps)}`}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {data.masses.length > 0 ? (
            <p className="pt-2 text-sm text-muted">
              Body mass:{" "}
              <Dated>
                {data.masses.map((one) => `${formatMass(one.mass)} ${one.date}`).join(", ")}
              </Dated>
            </p>
          ) : null}
        </div>
      </div>
      <BenchAnswers answers={data.answers} mayEdit={data.mayEdit} />
    </section>
  );
}
