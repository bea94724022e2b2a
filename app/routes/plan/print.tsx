import { Link } from "react-router";
import {
  dateOf,
  daysOf,
  ownInSlot,
  SECTION_NAMES,
  slotsOf,
  slotWeek,
} from "../../../core/plan/block";
import { elsewhereWords, slotCells, variantIn } from "../../../core/plan/block-loads";
import { dayStave } from "../../../core/plan/day-time";
import { atLift, type Lifter } from "../../../core/prescribe/lifter";
import { methodWords } from "../../../core/prescribe/method";
import { ownWords } from "../../../core/prescribe/own-words";
import { FREE } from "../../../core/prescribe/rigging";
import { describeBasis } from "../../../core/recipe/basis";
import { kgToGrains, type MassUnit, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { idFrom } from "../../forms/primitives/id";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { useAddress } from "../../ui/use-address";
import { endFeed, listFeeds, makeFeed } from "../../workflows/plan/export-plan.server";
import { planPairingNumbers } from "../../workflows/plan/pairing-numbers.server";
import { type PlanPage, readPlan } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/print";
import { itemsWords, pairingsIn, pairingsS } from "./day-pairing";
import { slotName } from "./slot-picker";

export function meta() {
  return [{ title: "Print · Sprezza" }];
}

export async function loader({ request, context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const found = await readPlan(principal, params.planId);
  if (!found.ok) throw notThere(found);
  const asked = new URL(request.url).searchParams;
  const pairings = await planPairingNumbers(principal, {
    planId: params.planId,
    dayId: asked.get("day"),
    week: weekFrom(asked.get("week"), found.value.block.weeks),
  });
  return {
    data: found.value,
    pairingNumbers: pairings.ok ? pairings.value : {},
    feeds: await listFeeds(principal, params.planId),
    mayEdit: mayWrite(principal, "/plan/:planId/print"),
  };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await readForm(request);
  const principal = principalOf(context);
  if (form.get("intent") === "revoke") {
    return { ...(await endFeed(principal, idFrom(form.get("id")))), address: undefined };
  }
  const made = await makeFeed(principal, params.planId);
  return made.ok ? { ok: true as const, address: made.value.address } : made;
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** A week of the block from an address; the first where it names none. */
const weekFrom = (text: string | null, weeks: number): number =>
  Math.min(weeks, Math.max(1, Math.trunc(Number(text)) || 1));

/** The wall sheet of a day and the athletes' cards, as they leave the printer. */
export default function Print({ loaderData, actionData }: Route.ComponentProps) {
  const { data, feeds, mayEdit, pairingNumbers } = loaderData;
  const { block } = data;
  const address = useAddress();
  const days = daysOf(block);
  const week = weekFrom(address.get("week"), block.weeks);
  const day = days.find((one) => one.id === address.get("day")) ?? days[0];
  const what = address.get("what") === "cards" ? "cards" : "wall";
  const result = actionData as { ok: boolean; address?: string; message?: string } | undefined;
  return (
    <Page
      title={<span className="no-print">Print: {block.name}</span>}
      actions={
        <>
          <button type="button" className="btn btn-primary no-print" onClick={() => window.print()}>
            Print
          </button>
          <Link className="btn no-print" to={`/plan/${data.plan.id}`}>
            Back to the plan
          </Link>
        </>
      }
      margin={
        <div className="no-print grid gap-5">
          <section className="grid gap-2" aria-label="What to print">
            <Select
              label="What"
              inline
              value={what}
              onChange={(e) => address.set("what", e.target.value === "wall" ? "" : e.target.value)}
            >
              <option value="wall">wall sheet of a day</option>
              <option value="cards">a card for each athlete</option>
            </Select>
            <Select
              label="Week"
              inline
              value={String(week)}
              onChange={(e) => address.set("week", e.target.value)}
            >
              {Array.from({ length: block.weeks }, (_, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
                <option key={i} value={i + 1}>
                  week {i + 1}
                </option>
              ))}
            </Select>
            <Select
              label="Day"
              inline
              value={day?.id ?? ""}
              onChange={(e) => address.set("day", e.target.value)}
            >
              {days.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </Select>
            <p className="text-sm text-muted">A4 and letter; no reasons of limits are printed.</p>
          </section>
          {mayEdit ? (
            <section className="grid gap-2" aria-label="Calendar to follow">
              <h2>Calendar to follow</h2>
              <p className="text-sm text-muted">
                Dates only, nobody's name; whoever has the address can read it.
              </p>
              {result?.address ? (
                <p className="break-all" role="status">
                  {result.address} <span className="text-muted">(shown once)</span>
                </p>
              ) : null}
              <Form method="post">
                <button type="submit" name="intent" value="feed" className="btn">
                  Make an address
                </button>
              </Form>
              <ul>
                {feeds.map((one) => (
                  <li key={one.id} className="flex gap-3 border-b border-faint py-1">
                    <span className="grow">
                      {one.on}, {one.by}
                      {one.revoked ? ", revoked" : ""}
                    </span>
                    {one.revoked ? null : (
                      <Form method="post">
                        <input type="hidden" name="id" value={one.id} />
                        <button type="submit" name="intent" value="revoke" className="underline">
                          Revoke
                        </button>
                      </Form>
                    )}
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
        </div>
      }
    >
      {day ? (
        what === "wall" ? (
          <WallSheet data={data} dayId={day.id} week={week} pairingNumbers={pairingNumbers} />
        ) : (
          <Cards data={data} dayId={day.id} week={week} pairingNumbers={pairingNumbers} />
        )
      ) : (
        <p>No day yet.</p>
      )}
    </Page>
  );
}

/** @param unitOf in which an athlete's own lines are written */
function daySlots(
  data: PlanPage,
  dayId: string,
  week: number,
  unitOf: (athlete: Lifter) => MassUnit,
) {
  const { block, athletes, room } = data;
  return slotsOf(block, dayId).flatMap((slot) => {
    const wave = slotWeek(block, slot, week, room.settings);
    if (!wave || wave.sets.length === 0) return [];
    const name = slotName(data, block, slot, week);
    const [cell] = slotCells({
      block,
      slotId: slot.id,
      weeks: [week],
      athletes,
      room,
      liftName: name,
    });
    const how = methodWords(slot.recipe, wave, slot.box, data.stopS);
    const own = ownInSlot(block, slot.id);
    const hung = athletes.map((athlete, i) => [
      ...ownWords({
        rigging: cell?.riggings[i] ?? FREE,
        loadsKg: (cell?.byAthlete[i] ?? []).map((run) => run.loadKg),
        facts: atLift(athlete, variantIn(slot, wave) ?? ""),
        basis: slot.recipe.basis,
        unit: unitOf(athlete),
        addRestS: own.rests.get(athlete.id) ?? 0,
        floorMps: own.floors.get(athlete.id),
      }),
      ...elsewhereWords(cell?.byAthlete[i] ?? [], unitOf(athlete)),
    ]);
    return [{ slot, wave, name, how, hung, byAthlete: cell?.byAthlete ?? [] }];
  });
}

interface Sheet {
  data: PlanPage;
  dayId: string;
  week: number;
  /** By pairing, then by athlete: the load of each item in words. */
  pairingNumbers: Record<string, Record<string, string[]>>;
}

function WallSheet({ data, dayId, week, pairingNumbers }: Sheet) {
  const { block, athletes } = data;
  const day = block.days[dayId];
  if (!day) return null;
  const slots = daySlots(data, dayId, week, () => data.room.unit);
  const stave = dayStave(block, dayId, week, data.room.settings);
  const pairings = pairingsIn(data, block, dayId, week);
  return (
    <article aria-label="Wall sheet">
      <h2 className="text-2xl">
        {block.name}, {data.plan.squadName}: {day.name}, week {week}
      </h2>
      <p>
        {dateOf(block, week, day)}
        {day.startAt ? ` at ${day.startAt}` : ""} · {data.plan.roomName} · about{" "}
        {formatClock(stave.lengthS + pairingsS(pairings))} for one lifter
      </p>
      {pairings.map(({ id, own, complex }) => (
        <section key={id} className="mt-4 break-inside-avoid" aria-label={complex.name}>
          <h3 className="text-lg font-bold">
            {complex.name}
            <span className="font-normal text-muted">
              {" "}
              pairing · {complex.rounds} rounds, {formatClock(complex.restS)} between
            </span>
          </h3>
          <p>{itemsWords(complex, own, data.room.unit)}</p>
          <ul className="grid grid-cols-2 gap-x-8 md:grid-cols-3">
            {athletes.map((athlete) => (
              <li key={athlete.id} className="flex justify-between gap-3 border-b border-faint">
                <span>{athlete.name}</span>
                <b className="text-right">{(pairingNumbers[id]?.[athlete.id] ?? []).join(" · ")}</b>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {slots.map(({ slot, wave, name, how, hung, byAthlete }) => (
        <section key={slot.id} className="mt-4 break-inside-avoid" aria-label={name}>
          <h3 className="text-lg font-bold">
            {name}
            <span className="font-normal text-muted">
              {" "}
              {SECTION_NAMES[slot.section].toLowerCase()}
              {" · "}
              {wave.sets.length} sets of{" "}
              {[
                ...new Set(
                  wave.sets.map((set) => (set.repsTo ? `${set.reps} to ${set.repsTo}` : set.reps)),
                ),
              ].join("/")}
              {slot.recipe.counts === "metres" ? " m" : ""} @{" "}
              {[...new Set(wave.sets.map((set) => describeBasis(set.basis, data.room.unit)))].join(
                ", ",
              )}{" "}
              · {restText(slot.recipe.rest)}
              {slot.recipe.cycle.length > 0 ? ` · ${slot.recipe.cycle.join(", ")} in turn` : ""}
            </span>
          </h3>
          {how.length > 0 ? <p>{how.join(" · ")}</p> : null}
          {slot.work.kind === "lift" ? (
            <ul className="grid grid-cols-2 gap-x-8 md:grid-cols-3">
              {athletes.map((athlete, i) => (
                <li
                  key={athlete.id}
                  className="flex flex-wrap justify-between gap-x-3 border-b border-faint"
                >
                  <span>{athlete.name}</span>
                  <b className="whitespace-nowrap">
                    {runsText(byAthlete[i] ?? [], data.room.unit)}
                  </b>
                  {[...reasonsOf(byAthlete[i] ?? []), ...(hung[i] ?? [])].map((line) => (
                    <span key={line} className="basis-full text-sm">
                      {line}
                    </span>
                  ))}
                </li>
              ))}
            </ul>
          ) : null}
        </section>
      ))}
      <p className="mt-4 text-sm">
        Spotters, safeties just below the bar's lowest point, collars. Pain, dizziness or a new
        injury: stop and tell a coach.
      </p>
    </article>
  );
}

function runsText(
  runs: ReadonlyArray<{ count: number; loadKg: number | undefined; reason: string | undefined }>,
  unit: "kg" | "lb",
): string {
  const known = runs.some((run) => run.loadKg !== undefined);
  const words = runs.map((run) =>
    run.loadKg === undefined ? "–" : plainNumber(massIn(kgToGrains(run.loadKg), unit), 1),
  );
  return `${words.join(" · ")}${known ? ` ${unit}` : ""}`;
}

/** Why a load is missing, in the words of the plan and the rack, each once. */
const reasonsOf = (runs: ReadonlyArray<{ reason: string | undefined }>): string[] => [
  ...new Set(runs.flatMap((run) => run.reason ?? [])),
];

function restText({ leastS, mostS }: { leastS: number; mostS: number }): string {
  return leastS === mostS ? `rest ${leastS} s` : `rest ${leastS} to ${mostS} s`;
}

function Cards({ data, dayId, week, pairingNumbers }: Sheet) {
  const { block, athletes } = data;
  const day = block.days[dayId];
  if (!day) return null;
  const slots = daySlots(data, dayId, week, (athlete) => athlete.unit);
  const pairings = pairingsIn(data, block, dayId, week);
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 print:grid-cols-2">
      {athletes.map((athlete, i) => (
        <article
          key={athlete.id}
          aria-label={athlete.name}
          className="break-inside-avoid border border-rule p-3"
        >
          <h2>
            {athlete.name}
            <span className="font-normal text-muted">
              {" "}
              {day.name}, week {week}, {dateOf(block, week, day)}
              {day.startAt ? ` at ${day.startAt}` : ""}
            </span>
          </h2>
          {athlete.instructions.map((text) => (
            <p key={text} className="font-bold">
              {text}
            </p>
          ))}
          <ul>
            {slots.map(({ slot, wave, name, how, hung, byAthlete }) => (
              <li key={slot.id} className="border-b border-faint py-0.5">
                <b>{name}</b> {wave.sets.length} × {wave.sets[0]?.reps}
                {wave.sets[0]?.repsTo ? ` to ${wave.sets[0].repsTo}` : ""}
                {slot.recipe.counts === "metres" ? " m" : ""}
                <span className="block">
                  {runsText(byAthlete[i] ?? [], athlete.unit)}
                  <span className="text-muted"> · {restText(slot.recipe.rest)}</span>
                </span>
                {[...how, ...reasonsOf(byAthlete[i] ?? []), ...(hung[i] ?? [])].map((line) => (
                  <span key={line} className="block text-sm">
                    {line}
                  </span>
                ))}
              </li>
            ))}
            {pairings.map(({ id, complex }) => (
              <li key={id} className="border-b border-faint py-0.5">
                <b>{complex.name}</b> {complex.rounds} rounds
                <span className="block">
                  {complex.items
                    .map((item, at) => {
                      const words = pairingNumbers[id]?.[athlete.id]?.[at];
                      return `${item.name} × ${item.reps}${words ? `, ${words}` : ""}`;
                    })
                    .join(" · ")}
                  <span className="text-muted"> · {formatClock(complex.restS)} between rounds</span>
                </span>
              </li>
            ))}
          </ul>
        </article>
      ))}
    </div>
  );
}
