import type { ReactNode } from "react";
import { Link, redirect } from "react-router";
import { formObject } from "../../forms/athlete";
import { FirstHourForm } from "../../forms/first-hour";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { chooseSchool } from "../../workflows/lifters/team-school.server";
import { leaveFirstHour, putAside, readFirstHour } from "../../workflows/start/first-hour.server";
import type { Route } from "./+types/first-hour";

export function meta() {
  return [{ title: "First hour · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  return readFirstHour(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = FirstHourForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, message: "Choose first, then keep the choice." };
  const { data } = parsed;
  if (data.intent === "school") return chooseSchool(principal, data.schoolId);
  if (data.intent === "leave") {
    await leaveFirstHour(principal);
    throw redirect("/floor");
  }
  return putAside(principal, data.step, data.intent === "aside");
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

type Data = Route.ComponentProps["loaderData"];
type Step = Data["steps"][number]["step"];

interface Words {
  title: string;
  why: string;
  /** Ways in, the usual one first. */
  ways: ReadonlyArray<{ to: string; words: string }>;
  /** What setting it aside is called. */
  aside: string;
}

const WORDS = (roomId: string | undefined): Record<Step, Words> => ({
  school: {
    title: "School",
    why: "Whose rules check your plans: rests, losses, box styles, days between heavy work. Each plan may follow another.",
    ways: [{ to: "/library/schools", words: "Read what each assumes" }],
    aside: "Choose per plan",
  },
  room: {
    title: "Room",
    why: "A usual room stands drawn up: four racks, one bar, plates, boxes. Loads are made from it, so put right what yours lacks or has more.",
    ways: [{ to: roomId ? `/gear/${roomId}` : "/gear", words: "Correct the room" }],
    aside: "It is right as drawn",
  },
  squads: {
    title: "Squads",
    why: "Who trains together, in which room. A squad is also made by naming it in the list of athletes.",
    ways: [
      { to: "/athletes/squads", words: "Make squads" },
      { to: "/athletes/add", words: "With the athletes" },
    ],
    aside: "Only single clients",
  },
  athletes: {
    title: "Athletes",
    why: "Paste names, or a whole sheet with squads, birth years and body masses.",
    ways: [{ to: "/athletes/add", words: "Paste a list" }],
    aside: "Later",
  },
  maxes: {
    title: "Maxes",
    why: "Percentages hang on a stated max. Paste a testing day; one button makes its records the working maxes.",
    ways: [{ to: "/athletes/testing-day", words: "Paste maxes" }],
    aside: "Start without: find the weights",
  },
  plan: {
    title: "Plan",
    why: "A block for a squad: take a recipe from the library, or paste your own table of sets and percentages. Published, it stands on the floor.",
    ways: [
      { to: "/plan", words: "Make a block" },
      { to: "/library/own-table", words: "Paste your own table" },
    ],
    aside: "Later",
  },
  tablets: {
    title: "Tablets",
    why: "One fixed at each rack shows who is up and takes the sets. A phone or this screen can do it too.",
    ways: [{ to: "/tablets", words: "Pair a tablet" }],
    aside: "Without tablets",
  },
});

/** From a new team to its first session: what is left, and the way into each. */
export default function FirstHour({ loaderData, actionData }: Route.ComponentProps) {
  const { steps, schools, schoolId, roomId, over } = loaderData;
  const left = steps.filter((one) => !one.done && !one.aside);
  const words = WORDS(roomId);
  const next = left[0]?.step;
  return (
    <Page
      title="First hour"
      facts={
        over || left.length === 0
          ? "Everything stands."
          : `${left.length} of ${steps.length} left before the first session.`
      }
      actions={
        <Form method="post">
          <button type="submit" name="intent" value="leave" className="btn">
            {left.length === 0 ? "To the floor" : "Put this page away"}
          </button>
        </Form>
      }
      margin={<Also />}
    >
      {actionData && !actionData.ok ? <Notice kind="problem" title={actionData.message} /> : null}
      <ol>
        {steps.map((state, i) => (
          <Row
            key={state.step}
            number={i + 1}
            state={state}
            words={words[state.step]}
            next={state.step === next}
          >
            {state.step === "school" ? <School schools={schools} schoolId={schoolId} /> : null}
          </Row>
        ))}
      </ol>
      {left.length === 0 ? (
        <p className="py-3">
          <Link className="btn btn-primary" to="/floor">
            To the floor: start the first session
          </Link>
        </p>
      ) : null}
    </Page>
  );
}

function Row({
  number,
  state,
  words,
  next,
  children,
}: {
  number: number;
  state: Data["steps"][number];
  words: Words;
  next: boolean;
  children: ReactNode;
}) {
  const closed = state.done || state.aside;
  const mark = state.done ? "done" : state.aside ? "set aside" : next ? "next" : "left";
  return (
    <li
      className="grid grid-cols-[2rem_1fr] gap-x-2 border-b border-rule py-2 sm:grid-cols-[2rem_7rem_minmax(0,1fr)_auto]"
      data-step={state.step}
      data-state={mark}
    >
      <span className="text-lg text-muted">{number}</span>
      <div>
        <h2 className={closed ? "font-normal" : ""}>{words.title}</h2>
        <p className={`text-sm ${next ? "font-bold text-primary" : "text-muted"}`}>{mark}</p>
      </div>
      <div className="max-sm:col-start-2">
        <p className={closed ? "text-muted" : "max-w-prose"}>{closed ? null : words.why}</p>
        <p className={closed ? "" : "text-muted"}>{state.words}</p>
        {children}
      </div>
      <div className="flex flex-wrap items-start justify-end gap-1 max-sm:col-start-2 max-sm:justify-start">
        {words.ways.map((way, i) => (
          <Link
            key={way.to}
            to={way.to}
            className={`btn btn-sm ${next && i === 0 && state.step !== "school" ? "btn-primary" : ""}`}
          >
            {way.words}
          </Link>
        ))}
        {state.done ? null : (
          <Form method="post">
            <input type="hidden" name="step" value={state.step} />
            <button
              type="submit"
              name="intent"
              value={state.aside ? "take-up" : "aside"}
              className="btn btn-sm"
            >
              {state.aside ? "Take it up" : words.aside}
            </button>
          </Form>
        )}
      </div>
    </li>
  );
}

function School({ schools, schoolId }: { schools: Data["schools"]; schoolId: string | null }) {
  return (
    <Form method="post" aria-label="School" className="mt-1 flex flex-wrap items-end gap-2">
      <span className="w-64">
        <Select label="New plans start with" name="schoolId" defaultValue={schoolId ?? ""}>
          {schoolId === null ? <option value="">choose …</option> : null}
          {schools.map((one) => (
            <option key={one.id} value={one.id} title={one.assumes}>
              {one.name}
            </option>
          ))}
        </Select>
      </span>
      <button type="submit" name="intent" value="school" className="btn btn-sm !h-9">
        {schoolId === null ? "Take this school" : "Change"}
      </button>
    </Form>
  );
}

function Also() {
  return (
    <div className="grid gap-3 text-sm">
      <section>
        <h2>Besides</h2>
        <ul>
          <li className="border-b border-faint py-1">
            <Link className="underline" to="/people">
              People
            </Link>
            <span className="block text-muted">
              coaches, assistants, and athletes with their own card
            </span>
          </li>
          <li className="border-b border-faint py-1">
            <Link className="underline" to="/data/earlier">
              Earlier sessions
            </Link>
            <span className="block text-muted">your own sheets, as history marked imported</span>
          </li>
          <li className="border-b border-faint py-1">
            <Link className="underline" to="/library/lifts">
              Lifts
            </Link>
            <span className="block text-muted">twelve to begin with, each with its caution</span>
          </li>
        </ul>
      </section>
      <p className="text-muted">
        Before the first barbell session: spotters, safeties and collars as the lift's caution says;
        who is under 18, back from an injury or pregnant gets a limit on their page first. Local
        rules and licensed practitioners come first.
      </p>
    </div>
  );
}
