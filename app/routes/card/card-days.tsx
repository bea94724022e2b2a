import { describeSide } from "../../../core/barload/load";
import { formatKg } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { formatVelocity } from "../../../core/units/velocity";
import { Form } from "../../ui/form";
import { Empty } from "../../ui/page";
import { Figure, Figures } from "../../ui/working";
import type { Route } from "./+types/card";

export type CardData = Pick<
  Route.ComponentProps["loaderData"],
  "name" | "instructions" | "next" | "also"
>;
type Next = NonNullable<CardData["next"]>;

/** What an athlete does next, and what else is on that day. */
export function CardDays({
  next,
  also,
  away = false,
}: Pick<CardData, "next" | "also"> & {
  /** Without the network: nothing is begun. */
  away?: boolean;
}) {
  const days = next ? [next, ...also] : [];
  const timesOn = (slotName: string) =>
    days.flatMap((day) => day.slots).filter((slot) => slot.name === slotName).length;
  return (
    <>
      {next ? (
        days.map((day) => (
          <section key={day.planId} aria-label={day.title} className="mb-6">
            <h2>
              {day.title}, week {day.week} of {day.weeks}
            </h2>
            <p className="text-muted">
              {day.dayName}
              {day.startAt ? ` at ${day.startAt}` : ""} · {day.roomName} · version {day.version}
            </p>
            {day.own && !away ? <OwnTraining day={day} own={day.own} /> : null}
            {day.slots.map((slot) => (
              <SlotOnCard
                key={slot.id}
                slot={slot}
                unit={day.unit}
                of={day.planId}
                // Two blocks of a day may have the same lift.
                called={timesOn(slot.name) > 1 ? `${slot.name}, ${day.title}` : slot.name}
              />
            ))}
            {day.pairings.map((pairing) => (
              <PairingOnCard key={pairing.id} pairing={pairing} />
            ))}
          </section>
        ))
      ) : (
        <Empty>Nothing is planned for you from today on. Your coach puts the next wave here.</Empty>
      )}
    </>
  );
}

/** Today's day on the athlete's own phone: begun, gone on with, done; or why not. */
function OwnTraining({ day, own }: { day: Next; own: NonNullable<Next["own"]> }) {
  const { standing, refusal } = own;
  const big = "btn btn-primary min-h-14 w-full text-[17px] sm:w-auto";
  if (standing?.with === "squad")
    return (
      <p className="my-2">
        {standing.status === "running"
          ? "You are on the floor with your squad. Your sets are logged there."
          : "Done with your squad today."}
      </p>
    );
  if (standing?.status === "running")
    return (
      <p className="my-2">
        <a className={big} href={`/card/${standing.sessionId}`}>
          Go on: {standing.done} of {standing.planned} sets done
        </a>
      </p>
    );
  if (standing)
    return (
      <Form method="post" action="/card" className="my-2 flex flex-wrap items-center gap-3">
        <span>
          Done alone today: {standing.done} of {standing.planned} sets.
        </span>
        <input type="hidden" name="sessionId" value={standing.sessionId} />
        <button type="submit" name="intent" value="again" className="btn">
          Open it again
        </button>
      </Form>
    );
  if (refusal !== undefined) return <p className="my-2 text-muted">{refusal}</p>;
  return (
    <details className="my-2">
      <summary className="flex min-h-11 cursor-pointer items-center underline">
        Train it alone
      </summary>
      <Form method="post" action="/card" className="border-l-[3px] border-warning pl-3">
        <p>
          Nobody spots you: set the safeties for every set, leave out what your coach wants watched,
          and stop where it hurts. What your coach and the room's rules say goes before this page.
        </p>
        <p className="mt-1 text-muted">
          It is logged on this phone, without the network too once it is open. Your coach sees it.
        </p>
        <input type="hidden" name="planId" value={day.planId} />
        <input type="hidden" name="week" value={day.week} />
        <input type="hidden" name="dayId" value={day.dayId} />
        <button type="submit" name="intent" value="begin" className={`${big} mt-2`}>
          Begin alone
        </button>
      </Form>
    </details>
  );
}

/** A pairing of the day: its items in order, each on the athlete's own load, with the gaps. */
function PairingOnCard({ pairing }: { pairing: Next["pairings"][number] }) {
  return (
    <section aria-label={pairing.name} className="mt-4">
      <h3 className="font-bold">
        {pairing.name}
        <span className="font-normal text-muted">
          {" "}
          · {pairing.rounds} rounds, {formatClock(pairing.restS)} between
        </span>
      </h3>
      <Figures label={`My loads, ${pairing.name}`}>
        <ol className="border-t border-rule">
          {pairing.items.map((item, i) => (
            <li
              key={item.id}
              className="grid grid-cols-[1.6rem_5.8rem_1fr] items-baseline gap-x-2 border-b border-faint py-1.5"
            >
              <span className="text-muted">{i + 1}</span>
              <span className={item.number.kg === undefined ? "" : "text-xl font-bold"}>
                <Figure
                  id={`${pairing.id}/${item.id}`}
                  working={item.number.working}
                  label={`${item.name}, ${item.number.words}`}
                >
                  {item.number.words}
                </Figure>
              </span>
              <span>
                {item.name} × {item.reps}
                {item.kind === "sprint" ? " m" : item.sides ? " a side" : ""}
                <span className="block text-sm text-muted">
                  {item.number.side ? `side ${item.number.side} · ` : ""}
                  {item.gapS === undefined ? "then the rest" : `then ${formatClock(item.gapS)}`}
                </span>
              </span>
            </li>
          ))}
        </ol>
      </Figures>
      <p className="mt-1 text-sm text-muted">
        Clear floor for throws and jumps. Pain or dizziness: stop, and tell your coach.
      </p>
    </section>
  );
}

type CardSlot = Next["slots"][number];

function SlotOnCard({
  slot,
  unit,
  of,
  called,
}: {
  slot: CardSlot;
  unit: "kg" | "lb";
  /** The plan: two blocks of a day may name their slots alike. */
  of: string;
  /** Its name, and the block's where another slot of the card has the same. */
  called: string;
}) {
  const { free } = slot;
  const what = slot.counts === "metres" ? "m" : slot.counts === "contacts" ? "contacts" : "reps";
  return (
    <section aria-label={called} className="mt-4">
      <h3 className="font-bold">
        {slot.name}
        <span className="font-normal text-muted">
          {" "}
          · rest {slot.rest.leastS} to {slot.rest.mostS} s
        </span>
      </h3>
      {slot.refused ? (
        <p>No load for you here: your coach has to decide first. Ask before you lift it.</p>
      ) : null}
      {slot.rack ? <p className="text-muted">Rack {slot.rack}: as it is set up there.</p> : null}
      {slot.how.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {free ? (
        <p className="border-y border-rule py-1.5">
          <span className="text-xl font-bold">
            {free.sets} × {free.reps}
            {free.repsTo && free.repsTo !== free.reps ? ` to ${free.repsTo}` : ""}
          </span>{" "}
          {what}
          {free.loadKg === undefined
            ? ""
            : `, ${formatKg(free.loadKg, unit, 1)}${free.hands === 2 ? " a hand" : ""}`}
          {free.reason ? <span className="block text-muted">{free.reason}</span> : null}
          {slot.cue ? <span className="block">{slot.cue}</span> : null}
        </p>
      ) : (
        <Figures label={`My sets, ${called}`}>
          <ol className="border-t border-rule">
            {slot.sets.map((set) => (
              <li
                key={set.key}
                className="grid grid-cols-[1.6rem_5.8rem_1fr] items-baseline gap-x-2 border-b border-faint py-1.5"
              >
                <span className="text-muted">{set.number}</span>
                <span className="text-xl font-bold">
                  {set.loadKg === undefined ? (
                    "no load"
                  ) : (
                    <Figure
                      id={`${of}/${slot.id}/${set.key}`}
                      working={set.working}
                      label={`Set ${set.number}, ${formatKg(set.loadKg, unit, 1)}`}
                    >
                      {formatKg(set.loadKg, unit, 1)}
                    </Figure>
                  )}
                </span>
                <span>
                  {set.reps} {what}
                  {set.cycleItem ? `, ${set.cycleItem}` : ""}
                  <span className="block text-sm text-muted">
                    {[
                      set.loadKg === undefined
                        ? set.loadReason
                        : slot.rack && `side ${describeSide(set.side)}`,
                      set.resistance &&
                        `${formatKg(set.resistance.lockoutKg, unit, 1)} at lockout with what hangs on`,
                      set.target &&
                        `${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)} m/s`,
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </span>
                </span>
              </li>
            ))}
          </ol>
        </Figures>
      )}
      {slot.caution ? <p className="mt-1 text-sm text-muted">{slot.caution}</p> : null}
    </section>
  );
}
