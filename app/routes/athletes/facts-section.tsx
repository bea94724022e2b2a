import { GOAL_NAMES, GOALS, SEASON_PHASE_NAMES, SEASON_PHASES } from "../../../core/maxes/season";
import { formatMass } from "../../../core/units/mass";
import { Adder, type FormResult } from "../../ui/adder";
import { Dated, Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { MassInput } from "../../ui/mass-input";
import { Notice } from "../../ui/page";
import type { AthletePage } from "./page-data";

/** Facts of a person: as a list, and as a form for those who may change them. */
export function FactsSection({
  data,
  resultFor,
}: {
  data: AthletePage;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const { person, masses, mayEdit, today, competitions, mark } = data;
  const [newest] = masses;
  const none = <span className="text-muted">not set</span>;
  return (
    <section id="facts" aria-labelledby="facts-title" className="mb-6 scroll-mt-24">
      <h2 id="facts-title" className="border-b border-rule pb-1">
        Facts
      </h2>
      {mark ? (
        <Notice kind={mark.refused ? "warning" : "note"} title={mark.words}>
          {mark.refused
            ? "No testing in the fortnight after a competition."
            : "Near a competition the factor on the working max is the coach's; none is assumed."}
        </Notice>
      ) : null}
      <dl className="grid grid-cols-[repeat(auto-fill,minmax(18rem,1fr))] gap-x-6 py-2">
        {(
          [
            ["Goal", person.goal ? GOAL_NAMES[person.goal] : none],
            ["Sport", person.sport],
            ["Squad", person.squadName],
            ["Usual room", person.roomName],
            ["Season phase", person.seasonPhase ? SEASON_PHASE_NAMES[person.seasonPhase] : none],
            ["Birth year", person.birthYear ?? none],
            ["Stature", person.statureCm ? `${person.statureCm} cm` : none],
            [
              "Training age",
              person.trainingYears === undefined ? none : `${person.trainingYears} years`,
            ],
            ["Body mass", newest ? `${formatMass(newest.mass)}, ${newest.date}` : none],
          ] as const
        ).map(([name, value]) => (
          <div key={name} className="flex gap-2 border-b border-faint py-1">
            <dt className="w-28 shrink-0 text-muted">{name}</dt>
            <dd>{typeof value === "string" ? <Dated>{value}</Dated> : value}</dd>
          </div>
        ))}
      </dl>
      <div className="grid gap-x-8 md:grid-cols-2">
        <div>
          {masses.length > 1 ? (
            <p className="text-sm text-muted">
              Earlier:{" "}
              <Dated>
                {masses
                  .slice(1, 5)
                  .map((one) => `${formatMass(one.mass)} (${one.date})`)
                  .join(", ")}
              </Dated>
            </p>
          ) : null}
        </div>
        <div>
          <p className="text-sm text-muted">
            Competitions:{" "}
            <Dated>
              {competitions.length === 0
                ? "none entered"
                : competitions.map((one) => `${one.name} ${one.date}`).join(", ")}
            </Dated>
          </p>
        </div>
      </div>
      {mayEdit ? (
        <div className="flex flex-wrap gap-x-6">
          <FactsForm data={data} result={resultFor("facts")} />
          <Adder title="Add body mass" open={resultFor("mass")?.ok === false}>
            <Form method="post" className="flex flex-wrap items-end gap-2" noValidate>
              <MassInput
                label="Body mass"
                name="mass"
                placeholder="81.4"
                problem={resultFor("mass")?.problems?.mass ?? resultFor("mass")?.message}
              />
              <Field label="Date" name="date" type="date" defaultValue={today} max={today} />
              <button type="submit" name="intent" value="mass" className="btn">
                Keep
              </button>
            </Form>
          </Adder>
          <Adder title="Competitions" open={resultFor("competition")?.ok === false}>
            <Form method="post" className="flex flex-wrap items-end gap-2" noValidate>
              <Field
                label="Competition"
                name="name"
                problem={resultFor("competition")?.problems?.name}
              />
              <Field label="Date" name="date" type="date" defaultValue={today} />
              <button type="submit" name="intent" value="competition" className="btn">
                Add for this athlete
              </button>
            </Form>
            <ul className="mt-2">
              {competitions
                .filter((one) => one.own)
                .map((one) => (
                  <li key={one.id} className="flex items-center gap-3">
                    {one.name}, <Day of={one.date} />
                    <Form method="post">
                      <input type="hidden" name="id" value={one.id} />
                      <button
                        type="submit"
                        name="intent"
                        value="drop-competition"
                        className="underline"
                      >
                        Remove
                      </button>
                    </Form>
                  </li>
                ))}
            </ul>
          </Adder>
        </div>
      ) : null}
    </section>
  );
}

function FactsForm({ data, result }: { data: AthletePage; result: FormResult | undefined }) {
  const { person, squads, rooms } = data;
  const problems = result?.problems ?? {};
  return (
    <Adder title="Change the facts" open={result?.ok === false}>
      <Form
        method="post"
        aria-label="Facts"
        className="grid max-w-3xl gap-2 sm:grid-cols-3"
        noValidate
      >
        <Field label="Name" name="name" defaultValue={person.name} problem={problems.name} />
        <Select label="Squad" name="squadId" defaultValue={person.squadId ?? ""}>
          <option value="">none: trains alone</option>
          {squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select label="Goal" name="goal" defaultValue={person.goal ?? ""}>
          <option value="">not set</option>
          {GOALS.map((goal) => (
            <option key={goal} value={goal}>
              {GOAL_NAMES[goal]}
            </option>
          ))}
        </Select>
        <Select label="Season phase" name="seasonPhase" defaultValue={person.seasonPhase ?? ""}>
          <option value="">not set</option>
          {SEASON_PHASES.map((phase) => (
            <option key={phase} value={phase}>
              {SEASON_PHASE_NAMES[phase]}
            </option>
          ))}
        </Select>
        <Field
          label="Sport"
          name="sport"
          defaultValue={person.ownSport ?? ""}
          placeholder={person.sport}
        />
        <Select
          label="Usual room"
          name="roomId"
          defaultValue={person.roomId ?? ""}
          problem={problems.roomId}
        >
          <option value="">the squad's</option>
          {rooms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Field
          label="Birth year"
          name="birthYear"
          inputMode="numeric"
          defaultValue={person.birthYear ?? ""}
          problem={problems.birthYear}
        />
        <Field
          label="Stature, cm"
          name="statureCm"
          inputMode="decimal"
          defaultValue={person.statureCm ?? ""}
          problem={problems.statureCm}
        />
        <Field
          label="Barbell training since"
          name="trainingSince"
          type="date"
          defaultValue={person.trainingSince ?? ""}
          problem={problems.trainingSince ?? result?.message}
        />
        <Select label="Reads loads in" name="unit" defaultValue={person.unit ?? ""}>
          <option value="">the team's unit</option>
          <option value="kg">kg</option>
          <option value="lb">lb</option>
        </Select>
        <Select
          label="Follows the school"
          name="schoolId"
          defaultValue={person.schoolId ?? ""}
          problem={problems.schoolId}
        >
          <option value="">the plan's</option>
          {data.schools.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        {squads.length > 1 ? (
          <fieldset className="col-span-full flex flex-wrap gap-x-4">
            <legend className="text-muted">Also trains with</legend>
            {squads.map((one) => (
              <label key={one.id} className="flex min-h-8 items-center gap-2">
                <input
                  type="checkbox"
                  name="alsoIn"
                  value={one.id}
                  defaultChecked={person.alsoIn.includes(one.id)}
                  className="checkbox checkbox-sm"
                />
                {one.name}
              </label>
            ))}
          </fieldset>
        ) : null}
        <div className="self-end">
          <button type="submit" name="intent" value="facts" className="btn btn-primary">
            Keep the facts
          </button>
        </div>
      </Form>
    </Adder>
  );
}
