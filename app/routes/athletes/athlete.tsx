import { MAX_KIND_NAMES } from "../../../core/maxes/records";
import { formatKg, formatMass } from "../../../core/units/mass";
import { ChooseMaxForm, NewRecordForm } from "../../forms/maxes";
import { fieldProblems } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { Figure, Figures } from "../../ui/working";
import { readAthlete } from "../../workflows/athletes/read-athletes.server";
import { chooseMax, saveRecord } from "../../workflows/athletes/save-max.server";
import type { Route } from "./+types/athlete";
import { ChooseForm, RecordForm } from "./max-forms";
import { ProfilePicture } from "./profile-picture";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.person.name ?? "Athlete"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readAthlete(principal, params.athleteId);
  if (!result.ok) throw notThere(result);
  return { ...result.value, mayEdit: mayWrite(principal, "/athletes/:athleteId") };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = Object.fromEntries(await request.formData());
  const { athleteId } = params;
  if (form.intent === "record") {
    const parsed = NewRecordForm.safeParse(form);
    if (!parsed.success) {
      return { ok: false as const, intent: "record", problems: fieldProblems(parsed.error) };
    }
    const { confirmed, ...record } = parsed.data;
    const result = await saveRecord(principal, {
      athleteId,
      ...record,
      confirmed: confirmed === "yes",
    });
    return result.ok
      ? { ok: true as const, intent: "record" }
      : { ok: false as const, intent: "record", code: result.code, message: result.message };
  }
  const parsed = ChooseMaxForm.safeParse(form);
  if (!parsed.success) {
    return { ok: false as const, intent: "choose", problems: fieldProblems(parsed.error) };
  }
  const result = await chooseMax(principal, { athleteId, ...parsed.data });
  return result.ok
    ? { ok: true as const, intent: "choose" }
    : { ok: false as const, intent: "choose", code: result.code, message: result.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

export default function Athlete({ loaderData, actionData }: Route.ComponentProps) {
  const { person, lifts, today } = loaderData;
  const known = lifts.filter((lift) => lift.records.length > 0);
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
          <RecordForm
            lifts={lifts}
            today={today}
            result={
              actionData && (!("intent" in actionData) || actionData.intent === "record")
                ? actionData
                : undefined
            }
          />
        )
      }
    >
      {person.instruction ? (
        <Notice kind="warning" title={person.instruction}>
          An instruction that every card and rack shows.
        </Notice>
      ) : null}
      {person.trainingYears !== undefined && person.trainingYears < 1 ? (
        <Notice kind="warning" title="Under a year of barbell training">
          A max is not trustworthy yet: percentages are information only. Ramp in small steps until
          the bar must be pushed hard but is still fast.
        </Notice>
      ) : null}
      {known.length === 0 ? (
        <p className="border-y border-rule py-6">
          No record yet. Enter one in the margin; percentages need a stated max.
        </p>
      ) : null}
      <Figures label="Lifts">
        {known.map((lift) => (
          <section key={lift.id} aria-labelledby={`lift-${lift.id}`} className="mb-6">
            <h2 id={`lift-${lift.id}`} className="border-b border-rule pb-1">
              {lift.name}
            </h2>
            <div className="grid gap-x-8 gap-y-3 py-2 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
              <div>
                <p className="text-muted">Working max</p>
                {lift.max ? (
                  <p className="text-3xl font-bold">
                    <Figure
                      id={`max/${lift.id}`}
                      working={lift.max.working}
                      label={`Working max ${formatKg(lift.max.kg)}`}
                    >
                      {formatKg(lift.max.kg, person.unit ?? "kg", 1)}
                    </Figure>
                  </p>
                ) : (
                  <p>Not chosen. Percentages of this lift are refused until a record is.</p>
                )}
                {lift.max?.stale ? (
                  <p className="font-medium text-secondary">
                    {lift.max.ageDays} days old: stale after 56. Test, or go by speed.
                  </p>
                ) : null}
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
                        <td className="whitespace-nowrap">{record.date}</td>
                        <td className="whitespace-nowrap">{formatMass(record.load)}</td>
                        <td>
                          {MAX_KIND_NAMES[record.kind]}
                          {record.note ? (
                            <span className="block text-sm text-muted">{record.note}</span>
                          ) : null}
                        </td>
                        <td className="text-right">
                          <ChooseForm
                            mayEdit={loaderData.mayEdit}
                            variantId={lift.id}
                            record={record}
                            chosen={lift.chosen}
                            problem={
                              actionData &&
                              "problems" in actionData &&
                              actionData.intent === "choose"
                                ? actionData.problems?.factor
                                : undefined
                            }
                          />
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <div>
                <p className="text-muted">Load–velocity profile</p>
                {lift.profile ? (
                  <ProfilePicture profile={lift.profile} />
                ) : (
                  <p>
                    No profile test of this lift. Wanted speeds come from the recipe until then.
                  </p>
                )}
              </div>
            </div>
            <p className="text-sm text-muted">{lift.caution}</p>
          </section>
        ))}
      </Figures>
    </Page>
  );
}
