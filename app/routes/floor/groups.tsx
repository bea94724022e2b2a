import { useMemo, useState } from "react";
import { Link, redirect } from "react-router";
import type { RackGroup } from "../../../core/racks/problem";
import { simulatedSlot } from "../../../core/racks/propose";
import { type SimulatedSlot, simulateDay } from "../../../core/racks/simulate-day";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { Form } from "../../ui/form";
import { Notice, Page } from "../../ui/page";
import { proposeDay } from "../../workflows/floor/propose-groups.server";
import type { Route } from "./+types/groups";
import { AskedDays, daysIn } from "./asked-days";
import { DayClock, LookAt } from "./day-clock";
import { LiftGroups } from "./lift-groups";
import { type DayWhatIf, Partners, WhatIfDay } from "./what-if";

export function meta() {
  return [{ title: "Groups · Sprezza" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const asked = new URL(request.url).searchParams;
  // What is grouped is ticked on the floor page.
  if (!asked.has("day")) throw redirect("/floor");
  const parsed = AskedDays.safeParse({
    days: daysIn({ getAll: (name) => asked.getAll(name) }),
    present: asked.getAll("present"),
  });
  if (!parsed.success)
    throw new Response("Nothing of a day is ticked. Tick it on the floor page.", { status: 404 });
  const result = await proposeDay(principal, parsed.data);
  if (!result.ok) throw notThere(result);
  return {
    ...result.value,
    /** Sent again as it came, with the groups. */
    asked: ["day", "slot", "present", "ladder"].flatMap((name) =>
      asked.getAll(name).map((value) => ({ name, value })),
    ),
    mayStart: mayWrite(principal, "/floor"),
  };
}

/** Who lifts with whom before the day begins: proposed, by hand, and the hour that comes of it. */
export default function Groups({ loaderData }: Route.ComponentProps) {
  const { title, roomName, people, stations, slots, asked, mayStart } = loaderData;
  const lifts = slots.flatMap((one) => (one.kind === "lift" ? [one.lift] : []));
  const [whatIf, setWhatIf] = useState<DayWhatIf>({
    racksOut: [],
    pairs: [],
    needSpotter: [],
    turnS: loaderData.times.turnS,
    sizeOf: {},
    restOf: {},
  });
  const times = useMemo(
    () => ({ ...loaderData.times, turnS: whatIf.turnS }),
    [loaderData.times, whatIf.turnS],
  );
  const [groups, setGroups] = useState<Record<string, RackGroup[]>>(() =>
    Object.fromEntries(lifts.map((lift) => [lift.slotId, lift.byLoad])),
  );
  const [shown, setShown] = useState(lifts[0]?.slotId);
  const simulated = useMemo(
    (): SimulatedSlot[] =>
      slots.map((one) => {
        if (one.kind === "other") return one.slot;
        const { lift } = one;
        const rest = whatIf.restOf[lift.slotId] ?? lift.rest;
        return simulatedSlot(lift.problem, groups[lift.slotId] ?? [], { ...lift, rest });
      }),
    [slots, groups, whatIf.restOf],
  );
  const day = useMemo(() => simulateDay(simulated, times), [simulated, times]);
  return (
    <Page
      title="Groups"
      facts={`${title} · ${roomName} · ${people.length} here`}
      actions={
        mayStart ? (
          <Form method="post" action="/floor">
            {asked.map((one) => (
              <input key={`${one.name} ${one.value}`} type="hidden" {...one} />
            ))}
            <input type="hidden" name="groups" value={JSON.stringify(groups)} />
            <button type="submit" className="btn btn-primary">
              Start with these groups
            </button>
          </Form>
        ) : null
      }
      margin={
        <>
          <WhatIfDay lifts={lifts} whatIf={whatIf} change={setWhatIf} />
          <Partners people={people} whatIf={whatIf} change={setWhatIf} />
          <LookAt day={day} slots={simulated} stations={stations} people={people} />
        </>
      }
    >
      <p className="text-muted">
        <Link className="underline" to="/floor">
          Back to the floor
        </Link>{" "}
        changes who is here and what is run. Drag a lifter, or move one by the arrow keys.
      </p>
      {lifts.length === 0 ? (
        <Notice kind="note" title="Nothing of this day is lifted at a rack." />
      ) : null}
      {lifts.length > 1 ? (
        <nav aria-label="Lifts of the day" className="mt-3 flex flex-wrap gap-2">
          {lifts.map((lift) => (
            <button
              key={lift.slotId}
              type="button"
              aria-current={lift.slotId === shown ? "true" : undefined}
              className={`btn ${lift.slotId === shown ? "border-base-content font-bold" : ""}`}
              onClick={() => setShown(lift.slotId)}
            >
              {lift.name}
            </button>
          ))}
        </nav>
      ) : null}
      {lifts.map((lift) => (
        <div key={lift.slotId} hidden={lift.slotId !== shown}>
          <LiftGroups
            lift={lift}
            whatIf={whatIf}
            times={times}
            day={day}
            groups={groups[lift.slotId] ?? []}
            others={lifts.flatMap((one) =>
              one === lift ? [] : [{ name: one.name, groups: groups[one.slotId] ?? [] }],
            )}
            change={(next) => setGroups((all) => ({ ...all, [lift.slotId]: next }))}
          />
        </div>
      ))}
      <DayClock day={day} slots={simulated} stations={stations} />
    </Page>
  );
}
