import { Link } from "react-router";
import {
  BASELINE_TRIALS,
  DEFAULT_GAPS_MIN,
  daysNeeded,
  type GapAnalysis,
  gapVerdictWords,
  gapWords,
} from "../../../core/contrast/gap-test";
import { plainNumber } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { GAP_TRIALS, GapDaySchema, gapsFrom } from "../../forms/gap";
import { readJson } from "../../forms/json";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Field } from "../../ui/field";
import { GapPicture } from "../../ui/gap-picture";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { readGap, saveGapDay } from "../../workflows/lab/gap.server";
import type { Route } from "./+types/gap";
import { GapProtocol } from "./gap-protocol";

export function meta() {
  return [{ title: "Gap test · Sprezza" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const worthwhile = Number((asked.get("worth") ?? "").replace(",", "."));
  return readGap(principalOf(context), {
    athleteId: idFrom(asked.get("athlete")),
    trial: asked.get("trial") ?? "jump",
    worthwhile: worthwhile > 0 ? worthwhile : undefined,
  });
}

export async function action({ request, context }: Route.ActionArgs) {
  const { day = "" } = formObject(await readForm(request));
  const sent = readJson(day);
  if (!sent.ok)
    return { ok: false as const, message: "This day could not be read. Load the page again." };
  const parsed = GapDaySchema.safeParse(sent.raw);
  if (!parsed.success)
    return {
      ok: false as const,
      message: parsed.error.issues[0]?.message ?? "Some of it cannot be.",
    };
  const saved = await saveGapDay(principalOf(context), parsed.data);
  return saved.ok
    ? { ok: true as const, message: `Kept for ${saved.value.date}.` }
    : { ok: false as const, message: saved.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

/** The gap test: the protocol with its clock, and what the days say of the athlete's own gap. */
export default function Gap({ loaderData, actionData }: Route.ComponentProps) {
  const { athletes, athlete, days, worthwhile, squadWorthwhile, firsts, squad } = loaderData;
  const address = useAddress();
  const trial = GAP_TRIALS.find((one) => one.id === address.get("trial")) ?? GAP_TRIALS[0];
  const gapText = address.get("gaps") || DEFAULT_GAPS_MIN.join(" ");
  const gaps = gapsFrom(gapText);
  const own = squad.find((one) => one.id === athlete?.id);
  const unit = trial?.unit ?? "";
  return (
    <Page
      title="Gap test"
      facts="How long after a heavy set this athlete is better than before it, if at all."
      actions={
        <Link className="btn" to="/lab">
          All of the Lab
        </Link>
      }
      margin={
        <section aria-labelledby="squad-gaps">
          <h2 id="squad-gaps">Everybody, {trial?.name.toLowerCase()}</h2>
          {squad.length === 0 ? <p className="text-muted">Nobody has a day yet.</p> : null}
          <ul>
            {squad.map((one) => (
              <li key={one.id} className="border-b border-faint py-1">
                <Link
                  className="underline"
                  to={`?athlete=${one.id}&trial=${trial?.id ?? ""}`}
                  preventScrollReset
                >
                  {one.name}
                </Link>{" "}
                <span className="text-muted">
                  {one.days} {one.days === 1 ? "day" : "days"} ·
                </span>{" "}
                {one.analysis ? gapVerdictWords(one.analysis, unit) : "no smallest change set"}
              </li>
            ))}
          </ul>
        </section>
      }
    >
      <div className="grid max-w-5xl gap-3 sm:grid-cols-4">
        <PageSelect
          label="Athlete"
          value={athlete?.id ?? ""}
          onChange={(e) => address.set("athlete", e.target.value)}
        >
          <option value="">nobody: only run it</option>
          {athletes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </PageSelect>
        <PageSelect
          label="Trial"
          value={trial?.id}
          onChange={(e) => address.set("trial", e.target.value)}
        >
          {GAP_TRIALS.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}, {one.unit}
            </option>
          ))}
        </PageSelect>
        <Field
          key={`gaps/${trial?.id}`}
          label="Gaps, min"
          defaultValue={gapText}
          onChange={(e) => address.set("gaps", e.target.value)}
          problem={gaps ? undefined : "Rising minutes, for example 0.25 2 4 6."}
        />
        <Field
          key={`worth/${trial?.id}`}
          label={`Smallest change that counts, ${unit}`}
          defaultValue={address.get("worth")}
          placeholder={squadWorthwhile === undefined ? "not set" : plainNumber(squadWorthwhile, 2)}
          onChange={(e) => address.set("worth", e.target.value)}
          hint={
            squadWorthwhile === undefined
              ? `Set it, or test three athletes (${firsts} so far).`
              : `0.2 × the spread of ${firsts} athletes`
          }
        />
      </div>
      {actionData?.message ? (
        <Notice kind={actionData.ok ? "note" : "problem"} title={actionData.message} />
      ) : null}
      <GapProtocol
        key={`${athlete?.id ?? ""}/${trial?.id ?? ""}/${days.length}`}
        athleteId={athlete?.id}
        trial={trial?.id ?? ""}
        unit={unit}
        gaps={gaps ?? [...DEFAULT_GAPS_MIN]}
        baselines={BASELINE_TRIALS}
      />
      {athlete ? (
        <section aria-labelledby="own-gap" className="mt-5">
          <h2 id="own-gap">
            {athlete.name}, {days.length} {days.length === 1 ? "day" : "days"}
          </h2>
          {days.length === 0 ? (
            <p className="text-muted">
              No day yet. Run the protocol above; two days or more answer.
            </p>
          ) : null}
          {worthwhile === undefined && days.length > 0 ? (
            <Notice
              kind="warning"
              title="No smallest change is set, so nothing can be judged. Type one above."
            />
          ) : null}
          {own?.analysis ? (
            <Answer analysis={own.analysis} unit={unit} worthwhile={worthwhile ?? 0} />
          ) : null}
          <ul className="mt-2 text-muted">
            {days.map((day) => (
              <li key={day.date}>
                <Day of={day.date} />: baseline{" "}
                {day.baseline.map((one) => plainNumber(one, 2)).join(", ")} {unit}; {day.heavySet};{" "}
                {day.trials.length} trials
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </Page>
  );
}

function Answer({
  analysis,
  unit,
  worthwhile,
}: {
  analysis: GapAnalysis;
  unit: string;
  worthwhile: number;
}) {
  if (!analysis.ok) {
    return (
      <p className="text-secondary">
        {analysis.reason === "few-days"
          ? `${analysis.moreDays} more day${analysis.moreDays === 1 ? "" : "s"} needed: a single day cannot tell a good day from a gap.`
          : "Two baseline trials and one after a gap are needed on each day."}
      </p>
    );
  }
  const most = Math.max(
    worthwhile,
    ...analysis.changes.map((one) => Math.abs(one.change) + one.error),
  );
  return (
    <Figures label="The athlete's own gap" className="overflow-x-auto">
      <p className="my-1 text-[1.15rem] font-bold">
        <Figure id="gap/verdict" working={analysis.working}>
          {gapVerdictWords(analysis, unit)}
        </Figure>
      </p>
      <p className="text-muted">
        {Math.round(100 * analysis.verdict.chance)} % that the best gap gives more than{" "}
        {plainNumber(worthwhile, 2)} {unit}. Spread of the baseline{" "}
        {plainNumber(analysis.spread, 2)} {unit}: an athlete this even needs about{" "}
        {daysNeeded(analysis.spread, worthwhile)} days. Chances of this kind are disputed (Sainani
        2018).
      </p>
      <GapPicture analysis={analysis} unit={unit} most={most} />
      <table className="ledger mt-2 max-w-3xl">
        <thead>
          <tr>
            <th scope="col">Gap</th>
            <th scope="col" className="!text-right">
              Change, {unit}
            </th>
            <th scope="col" className="!text-right">
              ±
            </th>
            <th scope="col" className="!text-right">
              Counts, chance
            </th>
            <th scope="col" className="!text-right">
              Is the best, chance
            </th>
            <th scope="col" className="!text-right">
              Days
            </th>
          </tr>
        </thead>
        <tbody>
          {analysis.changes.map((one) => (
            <tr key={one.gapMin}>
              <th scope="row">{gapWords(one.gapMin)}</th>
              <td className="text-right">{plainNumber(one.change, 2)}</td>
              <td className="text-right">{plainNumber(one.error, 2)}</td>
              <td className="text-right">{Math.round(100 * one.chance)} %</td>
              <td className="text-right">{Math.round(100 * one.bestChance)} %</td>
              <td className="text-right">{one.days}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Figures>
  );
}
