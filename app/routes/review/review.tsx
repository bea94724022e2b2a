import { Link } from "react-router";
import { z } from "zod";
import { EYE_WORDS } from "../../../core/liverules/eye";
import { median } from "../../../core/numeric/statistics";
import { SECTION_NAMES } from "../../../core/plan/block";
import type { LifterReview } from "../../../core/review/session-review";
import { type SetSum, STANDING_WORDS } from "../../../core/review/set-working";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { formatVelocity } from "../../../core/units/velocity";
import { keyField } from "../../forms/primitives/key";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { FetchedFigure, workingOf } from "../../ui/fetched-figure";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { SpeedStrip, scaleOf, stripWords } from "../../ui/speed-strip";
import { useUnit } from "../../ui/unit";
import { Figures } from "../../ui/working";
import { keepHeavy } from "../../workflows/review/keep-heavy.server";
import { readReview } from "../../workflows/review/read-review.server";
import type { Route } from "./+types/review";
import { SetStave } from "./set-stave";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Review, ${loaderData?.session.date ?? ""} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const result = await readReview(principalOf(context), params.sessionId);
  if (!result.ok) throw notThere(result);
  return { ...result.value, mayKeep: mayWrite(principalOf(context), "/review/:sessionId") };
}

const KeepForm = z.object({
  intent: z.literal("record"),
  slotId: keyField(60),
  athleteId: z.uuid(),
  wasAll: z.literal("yes").optional(),
});

export async function action({ request, context, params }: Route.ActionArgs) {
  const parsed = KeepForm.safeParse(Object.fromEntries(await readForm(request)));
  if (!parsed.success) throw new Response("This form is not one of this page's.", { status: 400 });
  const { slotId, athleteId, wasAll } = parsed.data;
  return keepHeavy(principalOf(context), {
    sessionId: params.sessionId,
    slotId,
    athleteId,
    wasAll: wasAll === "yes",
  });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

const DECISION = { take: "taken", change: "changed", decline: "declined" };

export default function Review({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { session, review, decided, conflicts, setAside } = loaderData;
  const name = (id: string) =>
    review.lifters.find((one) => one.athleteId === id)?.name ?? "Somebody";
  const setNumber = (id: string, key: string) =>
    review.lifters
      .filter((one) => one.athleteId === id)
      .flatMap((one) => one.sets)
      .find((set) => set.key === key)?.number;
  return (
    <Page
      title={session.title}
      facts={`${session.date} · ${session.roomName} · ${session.planVersion > 0 ? `plan version ${session.planVersion}` : "plan not published"} ${session.metrics.map((metric) => ` · ${metric}`).join("")}`}
      actions={
        <>
          <a className="btn no-print" href={`/review/${session.id}/out/sets.csv`} download>
            As CSV
          </a>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print
          </button>
          {session.status === "running" ? (
            <Link className="btn no-print" to={`/floor/${session.id}`}>
              Still running: open the floor
            </Link>
          ) : (
            <Link className="btn no-print" to={`/plan/${session.planId}`}>
              Open the plan
            </Link>
          )}
        </>
      }
      margin={
        <>
          <h2>Calls, {decided.length} decided</h2>
          {review.callsWaiting > 0 ? (
            <p className="text-muted">{review.callsWaiting} were left open.</p>
          ) : null}
          {decided.length === 0 ? <p className="text-muted">No decision was asked for.</p> : null}
          <ul
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a list that scrolls is reached by keyboard
            tabIndex={0}
            className="max-h-[40vh] overflow-auto lg:max-h-[60vh]"
          >
            {decided.map((one) => (
              <li key={one.athleteId + one.setKey} className="border-b border-faint py-1.5">
                <b>{name(one.athleteId)}</b>, set {setNumber(one.athleteId, one.setKey)}:{" "}
                {one.call.replaceAll("-", " ")}, {DECISION[one.decision]}
                {one.decision !== "decline" && one.toKg !== undefined
                  ? ` to ${formatKg(one.toKg, unit, 1)}`
                  : ""}
                {one.decision !== "decline" && one.addS !== undefined ? ` (+${one.addS} s)` : ""}
                {one.reason ? <span className="block text-sm text-muted">{one.reason}</span> : null}
              </li>
            ))}
          </ul>
        </>
      }
    >
      <dl className="flex flex-wrap gap-x-10 gap-y-2 border-b border-rule pb-3">
        <Total label="Sets done" value={`${review.setsDone} of ${review.setsPlanned}`} />
        <Total label="On or over speed" value={`${review.onSpeed} of ${review.judged}`} />
        <Total label="Cut" value={String(review.cut)} />
      </dl>
      {conflicts > 0 ? (
        <Notice kind="warning" title={`${conflicts} entries disagreed.`}>
          The same set came from two tablets, or was corrected twice. The first one counts here.
        </Notice>
      ) : null}
      {setAside.count > 0 ? (
        <Notice kind="warning" title={`${setAside.count} entries were set aside.`}>
          {setAside.reason}
        </Notice>
      ) : null}
      {actionData && "message" in actionData ? (
        <Notice kind="problem" title={actionData.message} />
      ) : null}
      <HeavySets heavy={loaderData.heavy} mayKeep={loaderData.mayKeep} />
      {review.slots.map((slot) => (
        <section key={slot.slotId} aria-labelledby={`slot-${slot.slotId}`} className="mt-4">
          <h2 id={`slot-${slot.slotId}`}>
            {slot.name}{" "}
            {review.slots.length > 1 ? (
              <span className="text-base font-normal text-muted">
                {SECTION_NAMES[slot.section]}
              </span>
            ) : null}
          </h2>
          {slot.kind === "lift" ? (
            <LiftTable slot={slot} sessionId={session.id} />
          ) : slot.kind === "exercise" ? (
            <ExerciseTable slot={slot} />
          ) : (
            <PairingTable slot={slot} />
          )}
        </section>
      ))}
    </Page>
  );
}

/** Best sets of heavy slots: each becomes a record on the coach's word, and on nothing else. */
function HeavySets({
  heavy,
  mayKeep,
}: Pick<Route.ComponentProps["loaderData"], "heavy" | "mayKeep">) {
  const unit = useUnit();
  if (heavy.length === 0) return null;
  return (
    <section aria-labelledby="heavy" className="mt-4">
      <h2 id="heavy">Heavy sets</h2>
      <ul className="border-t border-rule">
        {heavy.map((one) => (
          <li
            key={`${one.slotId}/${one.athleteId}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-faint py-1.5"
          >
            <span className="font-bold">{one.name}</span>
            <span>
              {one.liftName}: {formatKg(one.loadKg, unit, 1)} × {one.reps}
              {one.kind === "rep-max-estimate"
                ? `, an estimate of ${formatKg(one.recordKg, unit, 1)} for a single`
                : ""}
            </span>
            {one.kept ? (
              <span className="text-muted">is a record</span>
            ) : mayKeep ? (
              <Form method="post" className="ml-auto flex flex-wrap items-center gap-3">
                <input type="hidden" name="slotId" value={one.slotId} />
                <input type="hidden" name="athleteId" value={one.athleteId} />
                {one.singleMps === undefined ? null : (
                  <label className="flex min-h-11 items-center gap-2">
                    <input
                      type="checkbox"
                      name="wasAll"
                      value="yes"
                      className="checkbox border-control"
                    />
                    it was all there was: {formatVelocity(one.singleMps)} m/s joins the own
                    threshold
                  </label>
                )}
                <button type="submit" name="intent" value="record" className="btn btn-sm">
                  Make it {one.name.split(" ")[0]}'s record
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

type Slot<K> = Extract<Route.ComponentProps["loaderData"]["review"]["slots"][number], { kind: K }>;

/** A lift: sets, reps, tonnage, the speed of every set on one scale, rests and stops. */
function LiftTable({ slot, sessionId }: { slot: Slot<"lift">; sessionId: string }) {
  const unit = useUnit();
  const all = slot.lifters.flatMap((one) => one.sets);
  const { low, high } = scaleOf(
    all.flatMap((set) => [
      ...set.reps.map((rep) => rep.velocityMps),
      ...(set.target ? [set.target.lowMps, set.target.highMps] : []),
    ]),
  );
  const mostKg = Math.max(1, ...all.map((set) => set.loadKg ?? 0));
  return (
    <Figures label={`Done against planned, ${slot.name}`} className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Sets
            </th>
            <th scope="col" className="!text-right">
              Reps
            </th>
            <th scope="col" className="!text-right">
              Tonnage
            </th>
            <th scope="col">
              Speed, set by set, {formatVelocity(low)} to {formatVelocity(high)} m/s
            </th>
            <th scope="col">
              Rests to scale, asked {slot.rest.leastS} to {slot.rest.mostS} s
            </th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {slot.lifters.map((one) => {
            const { slotId, athleteId } = one;
            return (
              <tr key={one.athleteId}>
                <th scope="row" className="!text-base-content">
                  <Link className="hover:underline" to={`/athletes/${one.athleteId}`}>
                    {one.name}
                  </Link>
                </th>
                <td className="text-right whitespace-nowrap">
                  {one.setsDone} of {one.setsPlanned}
                </td>
                <td className="text-right whitespace-nowrap">
                  {one.repsDone} of {one.repsPlanned}
                </td>
                <td className="text-right whitespace-nowrap">
                  <FetchedFigure
                    id={`tonnage/${slotId}/${athleteId}`}
                    from={workingOf(sessionId, { kind: "tonnage", slotId, athleteId })}
                    label={`${one.name}, tonnage ${formatKg(one.tonnageKg, unit, 1)}`}
                  >
                    {plainNumber(massIn(kgToGrains(one.tonnageKg), unit), 1)}
                  </FetchedFigure>
                </td>
                <td>
                  <div className="flex flex-wrap gap-x-3 gap-y-0.5">
                    {one.sets.map((set) => (
                      <SetStrip
                        key={set.key}
                        set={set}
                        of={one}
                        sessionId={sessionId}
                        scale={{ lowMps: low, highMps: high }}
                      />
                    ))}
                  </div>
                </td>
                <td>
                  <SetStave sets={one.sets} rest={slot.rest} mostKg={mostKg} />
                  <RestWords sets={one.sets} smallestStopS={slot.smallestStopS} />
                </td>
                <td className="text-sm text-muted">
                  {one.cutSets.map((cut) => (
                    <span key={cut.number} className="block">
                      Set {cut.number} cut: {cut.cause}
                    </span>
                  ))}
                  {one.otherClass.map((words) => (
                    <span key={words} className="block">
                      {words}
                    </span>
                  ))}
                  {one.faults.length > 0 ? `Faults: ${one.faults.join(", ")}` : ""}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Figures>
  );
}

/** Rests and stops in figures. */
function RestWords({
  sets,
  smallestStopS,
}: {
  sets: readonly SetSum[];
  smallestStopS: number | undefined;
}) {
  const rests = sets.slice(1).flatMap((set) => set.rest?.seconds ?? []);
  const stops = sets.flatMap((set) => set.box.pausesS);
  const middle = median(rests);
  const stop = median(stops);
  const bounces = smallestStopS === undefined ? 0 : stops.filter((s) => s < smallestStopS).length;
  return (
    <span className="block text-sm text-muted">
      {middle === undefined ? "rests not measured" : `rest ${formatClock(middle)} in the middle`}
      {stop === undefined
        ? ""
        : `, stop ${plainNumber(stop, 2)} s${smallestStopS === undefined ? "" : `, ${bounces} of ${stops.length} under ${plainNumber(smallestStopS, 2)}`}`}
    </span>
  );
}

const COUNT_NAMES = { reps: "Reps", metres: "Metres", contacts: "Contacts" } as const;

/** An exercise without a bar. */
function ExerciseTable({ slot }: { slot: Slot<"exercise"> }) {
  const unit = useUnit();
  return (
    <div className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Sets
            </th>
            <th scope="col" className="!text-right">
              {COUNT_NAMES[slot.counts]}
            </th>
            <th scope="col" className="!text-right">
              Tonnage
            </th>
            <th scope="col" className="!text-right">
              Best
            </th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {slot.athletes.map((one) => (
            <tr key={one.athleteId}>
              <th scope="row" className="!text-base-content">
                <Link className="hover:underline" to={`/athletes/${one.athleteId}`}>
                  {one.name}
                </Link>
              </th>
              <td className="text-right">
                {one.setsDone} of {one.setsPlanned}
              </td>
              <td className="text-right">{one.repsDone}</td>
              <td className="text-right">
                {one.tonnageKg === undefined ? "" : formatKg(one.tonnageKg, unit, 1)}
              </td>
              <td className="text-right">
                {one.best === undefined ? "" : `${plainNumber(one.best, 2)} ${slot.unit}`}
              </td>
              <td className="text-sm text-muted">
                {one.sideGap ? `${one.sideGap.side} is ${one.sideGap.by} behind` : ""}
                {one.rung ? `${one.rung.name}: ${one.rung.passed ? "passed" : "not yet"}` : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A pairing: rounds done, and the best of what was written down. */
function PairingTable({ slot }: { slot: Slot<"pairing"> }) {
  return (
    <div className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Rounds
            </th>
            <th scope="col">Outputs</th>
          </tr>
        </thead>
        <tbody>
          {slot.athletes.map((one) => (
            <tr key={one.athleteId}>
              <th scope="row" className="!text-base-content">
                <Link className="hover:underline" to={`/athletes/${one.athleteId}`}>
                  {one.name}
                </Link>
              </th>
              <td className="text-right">
                {one.roundsDone} of {one.rounds}
              </td>
              <td>
                {one.best.map((best) => (
                  <span key={best.item} className="block">
                    {best.item} {plainNumber(best.value, 2)} {best.unit}
                    <span className="text-muted">
                      {" "}
                      by round{" "}
                      {one.outputs
                        .filter((output) => output.item === best.item)
                        .map((output) => plainNumber(output.value, 2))
                        .join(", ")}
                    </span>
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Total({ label, value }: { label: string; value: string }) {
  return (
    <div>
      <dt className="text-muted">{label}</dt>
      <dd className="text-2xl font-bold">{value}</dd>
    </div>
  );
}

function SetStrip({
  set,
  of,
  sessionId,
  scale,
}: {
  set: SetSum;
  of: Pick<LifterReview, "name" | "slotId" | "athleteId">;
  sessionId: string;
  scale: { lowMps: number; highMps: number };
}) {
  const { number, reps, bestMps: best, standing, target } = set;
  const { name, slotId, athleteId } = of;
  return (
    // A day has hundreds: what is out of sight is not laid out.
    <div className="w-[86px] [content-visibility:auto] [contain-intrinsic-size:86px_44px]">
      <SpeedStrip
        reps={reps}
        target={target}
        height={20}
        width={86}
        scale={scale}
        label={`${name}, set ${number}. ${stripWords(reps, target)}`}
      />
      <FetchedFigure
        id={`set/${slotId}/${athleteId}/${set.key}`}
        from={workingOf(sessionId, { kind: "set", slotId, athleteId, setKey: set.key })}
        label={`${name}, set ${number}, best ${best === undefined ? "not measured" : formatVelocity(best)}, ${STANDING_WORDS[standing]}`}
        className="text-sm"
      >
        {best !== undefined ? formatVelocity(best) : set.eye ? EYE_WORDS[set.eye] : "–"}
        {standing === "under" ? (
          <span className="text-accent [[aria-pressed=true]_&]:text-inherit"> ▾under</span>
        ) : null}
        {standing === "over" ? <span> ▴over</span> : null}
      </FetchedFigure>
    </div>
  );
}
