import { signedMps } from "../../../core/review/equal-load";
import { plainNumber } from "../../../core/units/mass";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { Field } from "../../ui/field";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { type PaysPage, readPays } from "../../workflows/review/read-pays.server";
import type { Route } from "./+types/pays";
import { ReviewNav } from "./review-nav";

export function meta() {
  return [{ title: "What pays · Sprezza" }];
}

const number = (text: string | null, low: number, high: number): number | undefined => {
  const value = Number((text ?? "").replace(",", "."));
  return text && value >= low && value <= high ? value : undefined;
};

export function loader({ context, url }: Route.LoaderArgs) {
  const get = (name: string) => url.searchParams.get(name);
  const effectMps = number(get("effect"), 0.001, 1);
  const weeks = number(get("weeks"), 1, 104);
  const sessionsAWeek = number(get("days"), 0.25, 7);
  const sets = number(get("sets"), 1, 60);
  return readPays(principalOf(context), {
    groupId: idFrom(get("group")),
    variantId: idFrom(get("lift")),
    trial: {
      ...(effectMps === undefined ? {} : { effectMps }),
      ...(weeks === undefined ? {} : { weeks }),
      ...(sessionsAWeek === undefined ? {} : { sessionsAWeek }),
      ...(sets === undefined ? {} : { sets: Math.floor(sets) }),
    },
  });
}

type Page_ = Extract<PaysPage, { lifts: unknown }>;

/** Does it pay here? What happened under each way, why that is no experiment, and what one would need. */
export default function Pays({ loaderData }: Route.ComponentProps) {
  const address = useAddress();
  if (loaderData.group === undefined)
    return (
      <Page title="What pays">
        <ReviewNav />
        <Empty>No squad yet.</Empty>
      </Page>
    );
  const page = loaderData;
  return (
    <Page
      title={`What pays, ${page.group.name}`}
      facts="What happened under each way of training; no experiment."
      actions={
        <button type="button" className="btn no-print" onClick={() => window.print()}>
          Print
        </button>
      }
    >
      <ReviewNav />
      <div className="no-print mb-3 flex flex-wrap gap-4">
        <div className="w-56">
          <PageSelect
            label="Squad"
            value={page.group.id}
            onChange={(event) => address.setAll({ group: event.target.value, lift: "" })}
          >
            {page.groups.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        {page.lifts.length > 0 ? (
          <div className="w-72">
            <PageSelect
              label="Lift"
              value={page.liftId}
              onChange={(event) => address.set("lift", event.target.value)}
            >
              {page.lifts.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </PageSelect>
          </div>
        ) : null}
      </div>
      <Notice kind="warning" title="This is no experiment.">
        Nobody was put to a way by lot. Season, age, other training and which athletes did which
        wave differ too; a difference here is a question to ask, not an answer.
      </Notice>
      {page.questions.map((question) => (
        <Ways key={question.id} question={question} />
      ))}
      <Trial page={page} />
    </Page>
  );
}

function Ways({ question }: { question: Page_["questions"][number] }) {
  const { sums, apart } = question;
  return (
    <section aria-labelledby={`ways-${question.id}`} className="mt-4">
      <h2 id={`ways-${question.id}`}>{question.name}</h2>
      {sums.length < 2 ? (
        <p className="text-muted">
          {sums.length === 0
            ? "No wave of this lift yet."
            : `Only ${sums[0]?.way} so far: nothing to set beside it.`}
        </p>
      ) : null}
      {sums.length > 0 ? (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Way</th>
                <th scope="col" className="!text-right">
                  Waves, athletes
                </th>
                <th scope="col">Change of speed at equal load a wave</th>
                <th scope="col" className="!text-right">
                  Fade
                </th>
                <th scope="col" className="!text-right">
                  Sets cut
                </th>
              </tr>
            </thead>
            <tbody>
              {sums.map((sum) => (
                <tr key={sum.way}>
                  <th scope="row" className="!text-base-content">
                    {sum.way}
                  </th>
                  <td className="text-right">
                    {sum.waves}, {sum.athletes}
                  </td>
                  <td>
                    {sum.change
                      ? `${signedMps(sum.change.estimate)} m/s (90 % ${signedMps(sum.change.low)} to ${signedMps(sum.change.high)})`
                      : "too few"}
                  </td>
                  <td className="text-right">
                    {sum.fadePercent === undefined ? "" : `${plainNumber(sum.fadePercent, 1)} %`}
                  </td>
                  <td className="text-right">
                    {sum.cutPercent === undefined ? "" : `${plainNumber(sum.cutPercent, 1)} %`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      {apart && "estimate" in apart && apart.estimate !== undefined ? (
        <p className="mt-1">
          {apart.of} less {apart.against}: <b>{signedMps(apart.estimate)} m/s</b>{" "}
          <span className="text-muted">
            (90 % {signedMps(apart.low ?? 0)} to {signedMps(apart.high ?? 0)}):{" "}
            {(apart.low ?? 0) > 0 || (apart.high ?? 0) < 0
              ? "apart beyond noise, by what cause is not told"
              : "not told apart"}
          </span>
        </p>
      ) : null}
    </section>
  );
}

/** What it would take to make it an experiment. */
function Trial({ page }: { page: Page_ }) {
  const { trial, needs } = page;
  return (
    <section aria-labelledby="trial" className="mt-6">
      <h2 id="trial">What would make it an experiment</h2>
      <p className="text-muted">
        Two ways, athletes put to them by lot, the same tests. Day to day this squad differs by{" "}
        {page.daySdMps === undefined
          ? "an unknown amount; 0.05 m/s is taken"
          : `${page.daySdMps.toFixed(3)} m/s`}
        .
      </p>
      <form method="get" className="no-print mt-2 flex flex-wrap items-end gap-3">
        <input type="hidden" name="group" value={page.group?.id ?? ""} />
        <input type="hidden" name="lift" value={page.liftId} />
        <div className="w-40">
          <Field
            label="Difference, m/s a wave"
            name="effect"
            inputMode="decimal"
            defaultValue={String(trial.effectMps)}
          />
        </div>
        <div className="w-24">
          <Field
            label="Weeks"
            name="weeks"
            inputMode="numeric"
            defaultValue={String(trial.weeks)}
          />
        </div>
        <div className="w-32">
          <Field
            label="Days a week"
            name="days"
            inputMode="decimal"
            defaultValue={String(trial.sessionsAWeek)}
          />
        </div>
        <div className="w-32">
          <Field
            label="Sets a day"
            name="sets"
            inputMode="numeric"
            defaultValue={String(trial.sets)}
          />
        </div>
        <button type="submit" className="btn">
          Work it out
        </button>
      </form>
      <Figures label="The trial">
        {needs.ok ? (
          <p className="mt-2 text-lg">
            {needs.athletesEach === undefined ? (
              "More than 500 athletes each: too small a difference for so few days."
            ) : (
              <>
                <Figure id="trial/needs" working={needs.working}>
                  {needs.athletesEach} athletes
                </Figure>{" "}
                each way for {trial.weeks} weeks find it in {Math.round(100 * needs.power)} % of
                trials
                {page.group && needs.athletesEach * 2 > page.group.athletes
                  ? `; the squad has ${page.group.athletes}`
                  : ""}
                .
              </>
            )}
          </p>
        ) : (
          <p className="mt-2 text-accent">
            {needs.reason === "too-short"
              ? "At least three days, with a set each."
              : "A difference other than nothing, and weeks, days and sets."}
          </p>
        )}
      </Figures>
    </section>
  );
}
