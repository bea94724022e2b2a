import { Link } from "react-router";
import { MAX_KIND_NAMES, STALE_AFTER_DAYS } from "../../../core/maxes/records";
import { NOT_COMPARABLE } from "../../../core/profile/compare";
import { formatKg, formatMass, type MassUnit, plainNumber } from "../../../core/units/mass";
import { Adder, type FormResult } from "../../ui/adder";
import { Day } from "../../ui/dates";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { MassInput } from "../../ui/mass-input";
import { ProfileChart } from "../../ui/profile-chart";
import { ProfileFigures } from "../../ui/profile-figures";
import { useUnit } from "../../ui/unit";
import { Figure } from "../../ui/working";
import { ChooseForm } from "./max-forms";
import type { AthletePage, LiftOnPage } from "./page-data";
import { ReadinessPanel } from "./readiness-panel";

/** One lift of an athlete: max with its chain, records, set-up; profile, and today's form. */
export function LiftSection({
  lift,
  data,
  resultFor,
}: {
  lift: LiftOnPage;
  data: AthletePage;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const { person, mayEdit, today } = data;
  const unit = useUnit();
  const { profile } = lift;
  const choose = resultFor("choose");
  return (
    <section aria-labelledby={`lift-${lift.id}`} className="mb-6">
      <h3 id={`lift-${lift.id}`} className="sr-only">
        {lift.name}
      </h3>
      {lift.refused.length > 0 ? (
        <p className="text-secondary">
          Refused by default: {[...new Set(lift.refused.map((one) => one.name))].join(", ")}.
        </p>
      ) : null}
      <div className="grid gap-x-8 gap-y-3 py-2 xl:grid-cols-2">
        <div>
          <WorkingMaxFigure lift={lift} unit={unit} young={(person.trainingYears ?? 9) < 1} />
          <div className="overflow-x-auto">
            <table className="ledger mt-2">
              <thead>
                <tr>
                  <th scope="col">Date</th>
                  <th scope="col">Record</th>
                  <th scope="col">Kind</th>
                  <th scope="col">
                    <span className="sr-only">Working max from it</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {lift.records.map((record) => (
                  <tr key={record.id}>
                    <td className="whitespace-nowrap">
                      <Day of={record.date} />
                    </td>
                    <td className="whitespace-nowrap">{formatMass(record.load)}</td>
                    <td>
                      {MAX_KIND_NAMES[record.kind]}
                      {record.note ? (
                        <span className="block text-sm text-muted">{record.note}</span>
                      ) : null}
                    </td>
                    <td className="text-right">
                      <ChooseForm
                        mayEdit={mayEdit}
                        variantId={lift.id}
                        record={record}
                        chosen={lift.chosen}
                        problem={choose?.problems?.factor}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <SetupPart lift={lift} mayEdit={mayEdit} result={resultFor("setup")} />
          {profile?.result.ok ? (
            <>
              <Against lift={lift} />
              {mayEdit ? (
                <ReadinessPanel
                  key={profile.id}
                  lift={lift}
                  unit={unit}
                  result={resultFor("readiness")}
                />
              ) : null}
              {mayEdit ? (
                <Adder title="Confirm a maximal single" open={resultFor("single")?.ok === false}>
                  <Form method="post" className="flex flex-wrap items-end gap-2" noValidate>
                    <input type="hidden" name="variantId" value={lift.id} />
                    <span className="w-28">
                      <MassInput
                        label="Load"
                        name="load"
                        problem={resultFor("single")?.problems?.load}
                      />
                    </span>
                    <span className="w-28">
                      <Field
                        label="MCV, m/s"
                        name="velocity"
                        placeholder="0.15"
                        problem={
                          resultFor("single")?.problems?.velocity ?? resultFor("single")?.message
                        }
                      />
                    </span>
                    <Field label="Date" name="date" type="date" defaultValue={today} max={today} />
                    <button type="submit" name="intent" value="single" className="btn">
                      Confirm as maximal
                    </button>
                  </Form>
                  <p className="text-sm text-muted">
                    Only a single that could not have been heavier. It moves the threshold towards
                    this athlete's own.
                  </p>
                </Adder>
              ) : null}
            </>
          ) : null}
        </div>
        <div>
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <p className="text-muted">
              {profile ? (
                <>
                  Load–velocity profile of{" "}
                  <Link className="underline" to={`/athletes/${person.id}/profiles/${profile.id}`}>
                    <Day of={profile.date} />
                  </Link>
                  , {profile.metric}, {profile.source}
                </>
              ) : (
                "Load–velocity profile"
              )}
            </p>
            <Link className="underline" to={`/lab/profile?athlete=${person.id}&variant=${lift.id}`}>
              Test
            </Link>
          </div>
          {profile?.result.ok ? (
            <>
              <ProfileChart
                title={`${lift.name}, ${profile.date}`}
                reps={profile.reps}
                result={profile.result}
                thresholdMps={profile.threshold?.mps}
                height={220}
                drawnPx={454}
              />
              <ProfileFigures
                id={`profile/${lift.id}`}
                result={profile.result}
                threshold={profile.threshold}
                power={profile.power}
                band={lift.band}
              />
            </>
          ) : profile && !profile.result.ok ? (
            <ProfileFigures
              id={`profile/${lift.id}`}
              result={profile.result}
              threshold={undefined}
              power={undefined}
            />
          ) : (
            <p>No profile test of this lift. Wanted speeds come from the recipe until then.</p>
          )}
        </div>
      </div>
      <p className="text-sm text-muted">{lift.caution}</p>
    </section>
  );
}

function WorkingMaxFigure({
  lift,
  unit,
  young,
}: {
  lift: LiftOnPage;
  unit: MassUnit;
  young: boolean;
}) {
  const { resolved } = lift;
  if (!("max" in resolved)) {
    return (
      <p>
        Working max not chosen. Percentages of this lift are refused until{" "}
        {resolved.reason === "no-ratio"
          ? `${resolved.at} has a ratio to its base, set in the library or learnt from records`
          : resolved.reason === "circle"
            ? `the lifts' bases no longer run in a circle at ${resolved.at}`
            : "a record is"}
        .
      </p>
    );
  }
  const { max, viaBase } = resolved;
  return (
    <>
      <p className="text-muted">Working max{viaBase ? ", from its base" : ""}</p>
      <p className={`text-3xl font-bold ${young ? "text-muted" : ""}`}>
        <Figure
          id={`max/${lift.id}`}
          working={max.working}
          label={`Working max ${formatKg(max.kg, unit, 1)}`}
        >
          {formatKg(max.kg, unit, 1)}
        </Figure>
      </p>
      {young ? <p className="text-secondary">Information only under a year of training.</p> : null}
      {max.stale ? (
        <p className="font-medium text-secondary">
          {max.ageDays} days old: stale after {STALE_AFTER_DAYS}. Test, or go by speed.
        </p>
      ) : null}
      {lift.learnt ? (
        <p className="text-sm text-muted">
          Own ratio to the base {plainNumber(lift.learnt.ratio, 3)}, from {lift.learnt.n} pairs of
          records.
        </p>
      ) : null}
      {lift.bestKg !== undefined ? (
        <p className="text-sm text-muted">Lifetime best {formatKg(lift.bestKg, unit, 1)}</p>
      ) : null}
    </>
  );
}

/** The newest test against the one before, and against the squad. */
function Against({ lift }: { lift: LiftOnPage }) {
  const { compared, weaker } = lift;
  return (
    <>
      {compared ? (
        compared.result.ok ? (
          <p className="mt-2">
            <span className="text-muted">Since {compared.with}: </span>
            <Figure id={`compare/${lift.id}`} working={compared.result.working}>
              {compared.result.words}
            </Figure>
          </p>
        ) : (
          <p className="mt-2 text-muted">{NOT_COMPARABLE[compared.result.reason]}</p>
        )
      ) : null}
      {weaker && weaker.side !== "neither" ? (
        <p>
          Against the squad ({weaker.n} profiles) the {weaker.side} side is the weaker one: L0{" "}
          {weaker.forceSd.toFixed(1)} SD, V0 {weaker.speedSd.toFixed(1)} SD from the mean.
        </p>
      ) : null}
    </>
  );
}

/** Heights kept for an athlete at a lift. */
const HEIGHTS = [
  { label: "Start height, cm", name: "startHeightCm" },
  { label: "Bar at the bottom, m", name: "bottomM" },
  { label: "Bar at lockout, m", name: "lockoutM" },
  { label: "Trial seat on the box, cm", name: "boxSeatCm" },
  { label: "Crease over the knee on it, cm", name: "boxCreaseCm" },
] as const;

function SetupPart({
  lift,
  mayEdit,
  result,
}: {
  lift: LiftOnPage;
  mayEdit: boolean;
  result: FormResult | undefined;
}) {
  const { setup } = lift;
  const parts = setup
    ? [
        ["hooks", setup.hook],
        ["safeties", setup.safety],
        ["grip", setup.grip],
        ["stance", setup.stance],
        ["start", setup.startHeightCm === null ? "" : `${setup.startHeightCm} cm`],
        [
          "bar",
          setup.bottomM === null || setup.lockoutM === null
            ? ""
            : `${setup.bottomM} to ${setup.lockoutM} m`,
        ],
        [
          "trial seat",
          setup.boxSeatCm === null || setup.boxCreaseCm === null
            ? ""
            : `${setup.boxSeatCm} cm, crease ${setup.boxCreaseCm < 0 ? "" : "+"}${setup.boxCreaseCm} cm`,
        ],
        ["note", setup.note],
      ].filter(([, value]) => value !== "")
    : [];
  return (
    <>
      <p className="mt-2">
        <span className="text-muted">Set-up: </span>
        {parts.length === 0
          ? "none kept"
          : parts.map(([name, value]) => `${name} ${value}`).join(" · ")}
      </p>
      {mayEdit ? (
        <Adder title="Change the set-up" open={result?.ok === false}>
          <Form
            method="post"
            aria-label={`Set-up of ${lift.name}`}
            className="grid grid-cols-2 gap-2 sm:grid-cols-3"
            noValidate
          >
            <input type="hidden" name="variantId" value={lift.id} />
            <Field label="Hooks" name="hook" defaultValue={setup?.hook} />
            <Field label="Safeties" name="safety" defaultValue={setup?.safety} />
            <Field label="Grip" name="grip" defaultValue={setup?.grip} />
            <Field label="Stance" name="stance" defaultValue={setup?.stance} />
            {HEIGHTS.map(({ label, name }) => (
              <Field
                key={name}
                label={label}
                name={name}
                inputMode="decimal"
                defaultValue={setup?.[name] ?? ""}
                problem={result?.problems?.[name]}
              />
            ))}
            <Field label="Note" name="note" defaultValue={setup?.note} />
            <button type="submit" name="intent" value="setup" className="btn">
              Keep the set-up
            </button>
          </Form>
          <p className="text-sm text-muted">
            Safeties just below the bar's lowest point; bench: below the arched chest, above the
            neck.
          </p>
        </Adder>
      ) : null}
    </>
  );
}
