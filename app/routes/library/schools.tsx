import { useState } from "react";
import { Link } from "react-router";
import { BOX_STYLES } from "../../../core/boxsquat/styles";
import {
  BOX_PLACE_NAMES,
  BOX_PLACES,
  BREATHING,
  BREATHING_NAMES,
  boxStyleWords,
  ENDING_NAMES,
  ENDINGS,
  RESISTANCE_USE,
  RESISTANCE_USE_NAMES,
  type School,
  SPEED_WORK,
  SPEED_WORK_NAMES,
  secondDay,
} from "../../../core/checks/school";
import { TEMPLATE_NAMES, TEMPLATES } from "../../../core/plan/block";
import { BASIS_KINDS, BASIS_NAMES } from "../../../core/recipe/basis";
import { formObject } from "../../forms/athlete";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { SchoolForm } from "../../forms/school";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { SchoolDifferences } from "../../ui/school-differences";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import { keepSchool, readSchools } from "../../workflows/library/plan-library.server";
import { chooseSchool } from "../../workflows/lifters/team-school.server";
import type { Route } from "./+types/schools";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Schools · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    schools: await readSchools(principal),
    mayEdit: mayWrite(principal, "/library/schools"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const fields = formObject(await readForm(request));
  if (fields.intent === "usual") {
    const chosen = await chooseSchool(principalOf(context), idFrom(fields.schoolId));
    return { intent: "usual", ...chosen };
  }
  const parsed = SchoolForm.safeParse(fields.intent === "new" ? { ...fields, id: "" } : fields);
  if (!parsed.success) {
    return { intent: "school", ok: false as const, problems: fieldProblems(parsed.error) };
  }
  return { intent: "school", ...(await keepSchool(principalOf(context), parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof keepOnFilter>[0]) {
  return keepOnFilter(args) && revalidateUnlessFailed(args);
}

/** The schools of practice: what each assumes, where two differ, and a second day by one of them. */
export default function Schools({ loaderData, actionData }: Route.ComponentProps) {
  const { schools, mayEdit } = loaderData;
  const address = useAddress();
  const chosen = schools.find((one) => one.id === address.get("school")) ?? schools[0];
  const other = schools.find((one) => one.id === address.get("against"));
  const result = resultOf(actionData, "school");
  return (
    <Page
      title="Library"
      facts="Schools of practice: rules that check a plan, each with what it takes for granted."
      margin={
        chosen && mayEdit ? (
          <SchoolEditor key={chosen.id} id={chosen.id} school={chosen.school} result={result} />
        ) : undefined
      }
    >
      <LibraryTabs />
      <ul>
        {schools.map((one) => (
          <li
            key={one.id}
            className={`border-b border-faint py-1 ${one === chosen ? "bg-wash" : ""}`}
          >
            <Link
              to={`?school=${one.id}`}
              replace
              preventScrollReset
              aria-current={one === chosen ? "true" : undefined}
              className="font-bold hover:underline"
            >
              {one.school.name}
            </Link>{" "}
            {one.usual ? <b className="text-primary">new plans start here </b> : null}
            <span className="text-muted">
              {one.school.assumes} Loads by {BASIS_NAMES[one.school.loadBy]}; on the box{" "}
              {boxStyleWords(one.school)}.
            </span>
          </li>
        ))}
      </ul>
      {chosen ? (
        <div className="mt-5 grid gap-x-8 gap-y-5 lg:grid-cols-[1.3fr_1fr]">
          <section aria-labelledby="against">
            {mayEdit && !chosen.usual ? (
              <Form method="post" className="mb-3">
                <input type="hidden" name="schoolId" value={chosen.id} />
                <button type="submit" name="intent" value="usual" className="btn">
                  Start new plans with {chosen.school.name}
                </button>
              </Form>
            ) : null}
            <h2 id="against">{chosen.school.name} against another</h2>
            <div className="w-64">
              <PageSelect
                label="Against"
                value={other?.id ?? ""}
                onChange={(event) => address.set("against", event.target.value)}
              >
                <option value="">choose</option>
                {schools
                  .filter((one) => one.id !== chosen.id)
                  .map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.school.name}
                    </option>
                  ))}
              </PageSelect>
            </div>
            {other ? <SchoolDifferences a={chosen.school} b={other.school} /> : null}
          </section>
          <SecondDayChooser school={chosen.school} address={address} />
        </div>
      ) : null}
    </Page>
  );
}

const DAY_WORDS = {
  "speed-wave": "a speed wave",
  "volume-wave": "a volume wave",
  none: "no second day",
} as const;

function SecondDayChooser({
  school,
  address,
}: {
  school: School;
  address: ReturnType<typeof useAddress>;
}) {
  const yes = (name: string) => address.get(name) === "yes";
  const years = Number(address.get("years") || "3");
  const rose = address.get("rose");
  const found = secondDay(school, {
    sportNeedsSpeed: !address.get("sport") || yes("sport"),
    trainingYears: Number.isFinite(years) ? years : undefined,
    speedRose: rose === "" ? undefined : rose === "yes",
    heavyDays: Number(address.get("heavy") || "1"),
    inSeason: yes("season"),
  });
  const choice = (label: string, name: string, options: Array<[string, string]>) => (
    <PageSelect
      label={label}
      inline
      value={address.get(name)}
      onChange={(e) => address.set(name, e.target.value)}
    >
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </PageSelect>
  );
  return (
    <section aria-labelledby="second-day" className="grid content-start gap-2">
      <h2 id="second-day">A second day?</h2>
      {choice("The sport", "sport", [
        ["yes", "asks for speed"],
        ["no", "does not"],
      ])}
      {choice("Now", "season", [
        ["", "not in season"],
        ["yes", "in season"],
      ])}
      {choice("Last wave", "rose", [
        ["", "speed not known"],
        ["yes", "speed rose"],
        ["no", "did not rise"],
      ])}
      <Field
        label="Training, years"
        inline
        inputMode="decimal"
        defaultValue={address.get("years") || "3"}
        onChange={(event) => address.set("years", event.target.value)}
      />
      <Field
        label="Heavy days"
        inline
        inputMode="numeric"
        defaultValue={address.get("heavy") || "1"}
        onChange={(event) => address.set("heavy", event.target.value)}
      />
      <p className="text-lg font-bold">{DAY_WORDS[found.proposed]}</p>
      <ul>
        {found.reasons.map((one) => (
          <li key={one.text}>
            <span className="text-muted">for {DAY_WORDS[one.for]}: </span>
            {one.text}
          </li>
        ))}
      </ul>
      <p className="text-sm text-muted">A proposal with its reasons; you choose.</p>
    </section>
  );
}

function SchoolEditor({
  id,
  school,
  result,
}: {
  id: string;
  school: School;
  result: ReturnType<typeof resultOf>;
}) {
  const problems = result?.problems ?? {};
  const number = (label: string, name: string, value: number | undefined) => (
    <Field
      inline
      label={label}
      name={name}
      inputMode="decimal"
      placeholder="none"
      defaultValue={value}
      problem={problems[name]}
    />
  );
  const choice = (
    label: string,
    name: string,
    value: string,
    options: ReadonlyArray<readonly [string, string]>,
  ) => (
    <Select inline label={label} name={name} defaultValue={value}>
      {options.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </Select>
  );
  return (
    <Form method="post" aria-label="School" className="grid gap-1.5" noValidate>
      <input type="hidden" name="id" value={id} />
      <Field label="Name" name="name" defaultValue={school.name} problem={problems.name} />
      <Field
        label="Takes for granted"
        name="assumes"
        defaultValue={school.assumes}
        problem={problems.assumes}
      />
      {choice(
        "Loads by",
        "loadBy",
        school.loadBy,
        BASIS_KINDS.map((one) => [one, BASIS_NAMES[one]] as const),
      )}
      {number("Speed rest from, s", "restLeast", school.rest.leastS)}
      {number("to, s", "restMost", school.rest.mostS)}
      {number("Speed reps, most", "speedReps", school.speedReps)}
      {number("Power reps, most", "powerReps", school.powerReps)}
      {number("Power rest, s", "powerRestS", school.powerRestS)}
      {choice(
        "Order",
        "order",
        school.order,
        TEMPLATES.map((one) => [one, TEMPLATE_NAMES[one]] as const),
      )}
      {choice(
        "Speed work",
        "speedWork",
        school.speedWork,
        SPEED_WORK.map((one) => [one, SPEED_WORK_NAMES[one]] as const),
      )}
      {choice("Percent counts", "convention", school.convention, [
        ["bar", "bar only"],
        ["lockout", "lockout total"],
        ["mean", "mean over the range"],
      ])}
      {choice("Rep totals", "totals", school.totals ? "yes" : "no", [
        ["yes", "held to the totals"],
        ["no", "not counted"],
      ])}
      {number("Reuse after, waves", "reuseGapWaves", school.reuseGapWaves)}
      {number("Deload after, weeks", "deloadAfterWeeks", school.deloadAfterWeeks)}
      {number("Heavy to speed, h", "heavySpeedHours", school.heavySpeedHours)}
      {number("Very strong from, ×", "strongFrom", school.strongFrom)}
      {number("heavy every, weeks", "strongEveryWeeks", school.strongEveryWeeks)}
      {number("Heavy days a week", "heavyDays", school.heavyDays)}
      {number("Hard sets from", "hardLeast", school.hardSets.least)}
      {number("to", "hardMost", school.hardSets.most)}
      {number("Loss, speed, %", "lossSpeed", school.loss.speed)}
      {number("Loss, power, %", "lossPower", school.loss.power)}
      {number("Loss, strength, %", "lossStrength", school.loss.strength)}
      {number("Loss, growth, %", "lossGrowth", school.loss.growth)}
      {choice(
        "Bands, chains",
        "resistance",
        school.resistance,
        RESISTANCE_USE.map((one) => [one, RESISTANCE_USE_NAMES[one]] as const),
      )}
      {choice(
        "A set ends by",
        "ending",
        school.ending,
        ENDINGS.map((one) => [one, ENDING_NAMES[one]] as const),
      )}
      {choice(
        "Box, beginners",
        "box",
        school.box,
        BOX_PLACES.map((one) => [one, BOX_PLACE_NAMES[one]] as const),
      )}
      <StylesField chosen={school.boxStyles} problem={problems.boxStyles} />
      {choice("Relax and fire", "relaxAndFire", school.relaxAndFire ? "yes" : "no", YES_NO)}
      {choice("Rocking, as a drill", "rockingDrill", school.rockingDrill ? "yes" : "no", YES_NO)}
      {choice(
        "Breath at the bottom",
        "breathing",
        school.breathing,
        BREATHING.map((one) => [one, BREATHING_NAMES[one]] as const),
      )}
      {number("Bands, chains from, %", "shareLeast", school.resistanceShare.leastPercent)}
      {number("to, %", "shareMost", school.resistanceShare.mostPercent)}
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          Kept. Plans of this school are checked by it.
        </p>
      ) : null}
      <button type="submit" name="intent" value="keep" className="btn btn-primary">
        Keep the rules
      </button>
      <button type="submit" name="intent" value="new" className="btn">
        Keep as another school
      </button>
    </Form>
  );
}

const YES_NO = [
  ["no", "off"],
  ["yes", "allowed"],
] as const;

/** The styles that a school teaches on the box; the first that is ticked is its own. */
function StylesField({
  chosen,
  problem,
}: {
  chosen: readonly string[];
  problem: string | undefined;
}) {
  const [styles, setStyles] = useState(chosen);
  return (
    <fieldset>
      <legend className="text-muted">Styles on the box, its own first</legend>
      <input type="hidden" name="boxStyles" value={styles.join(",")} />
      {BOX_STYLES.filter((one) => !one.rocks).map((one) => (
        <label key={one.id} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm border-control"
            checked={styles.includes(one.id)}
            onChange={(event) =>
              setStyles(
                event.target.checked
                  ? [...styles, one.id]
                  : styles.filter((style) => style !== one.id),
              )
            }
          />
          {one.name}
          {styles[0] === one.id ? <span className="text-muted"> its own</span> : null}
        </label>
      ))}
      {problem ? <p className="font-medium text-accent">{problem}</p> : null}
    </fieldset>
  );
}
