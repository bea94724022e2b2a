import type { SimulatedDay, SimulatedSlot } from "../../../core/racks/simulate-day";
import { formatClock } from "../../../core/units/time";

/** A place that everybody uses at their own pace is drawn as one. */
const placeOf = (stationId: string) => stationId.split("/")[0] ?? stationId;
const MINUTE_S = 60;
/** Waits shorter than this are not named, s. */
const NAMED_WAIT_S = 30;

/** The hour that comes of the groups: each station on the clock, and what to look at. */
export function DayClock({
  day,
  slots,
  stations,
}: {
  day: SimulatedDay;
  slots: readonly SimulatedSlot[];
  stations: ReadonlyArray<{ id: string; name: string }>;
}) {
  const used = stations.filter((one) => day.sets.some((set) => placeOf(set.stationId) === one.id));
  const slotAt = new Map(slots.map((slot, i) => [slot.slotId, i]));
  const share = (s: number) => `${(100 * s) / Math.max(1, day.lengthS)}%`;
  const ticks = Array.from(
    { length: Math.floor(day.lengthS / (10 * MINUTE_S)) + 1 },
    (_, i) => 10 * i,
  );
  return (
    <section aria-labelledby="clock-title" className="mt-6">
      <h2 id="clock-title">The hour that comes of it: {formatClock(day.lengthS)} of work</h2>
      <div
        role="img"
        aria-label={`${used.length} stations over ${formatClock(day.lengthS)}: ${slots.map((slot) => slot.name).join(", ")}`}
        className="mt-1"
      >
        {used.map((station) => (
          <div
            key={station.id}
            className="grid grid-cols-[120px_1fr] items-center border-b border-faint"
          >
            <span className="truncate pr-2">{station.name}</span>
            <div className="relative h-7">
              {day.sets
                .filter((set) => placeOf(set.stationId) === station.id)
                .map((set) => (
                  <span
                    key={`${set.slotId}/${set.athleteId}/${set.number}`}
                    className={`absolute inset-y-1 ${SHADES[(slotAt.get(set.slotId) ?? 0) % SHADES.length]}`}
                    style={{
                      left: share(set.startS),
                      width: `max(2px, ${share(set.endS - set.startS)})`,
                    }}
                  />
                ))}
              {day.sets
                .filter((set) => set.stationId === station.id && set.waitS > 5 && set.changeS > 0)
                .map((set) => (
                  <span
                    key={`wait ${set.slotId}/${set.athleteId}/${set.number}`}
                    className="absolute bottom-0 h-1 bg-accent"
                    style={{ left: share(set.startS - set.waitS), width: share(set.waitS) }}
                  />
                ))}
            </div>
          </div>
        ))}
        <div className="grid grid-cols-[120px_1fr]">
          <span className="text-sm text-muted">minutes</span>
          <div className="relative h-5 text-sm text-muted">
            {ticks.map((minute) => (
              <span key={minute} className="absolute" style={{ left: share(minute * MINUTE_S) }}>
                {minute}
              </span>
            ))}
          </div>
        </div>
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-5 text-sm">
        {slots.map((slot, i) => (
          <li key={slot.slotId} className="flex items-center gap-1.5">
            <span
              aria-hidden="true"
              className={`inline-block h-3 w-3 ${SHADES[i % SHADES.length]}`}
            />
            {slot.name}
          </li>
        ))}
        <li className="flex items-center gap-1.5">
          <span aria-hidden="true" className="inline-block h-1 w-3 bg-accent" /> waits
        </li>
      </ul>
    </section>
  );
}

const SHADES = ["bg-primary", "bg-secondary", "bg-muted", "bg-base-content", "bg-rule"] as const;

/** What of the simulated day is not as it was wanted. */
export function LookAt({
  day,
  slots,
  stations,
  people,
}: {
  day: SimulatedDay;
  slots: readonly SimulatedSlot[];
  stations: ReadonlyArray<{ id: string; name: string }>;
  people: ReadonlyArray<{ id: string; name: string }>;
}) {
  const nameOf = (id: string) => people.find((one) => one.id === id)?.name ?? "Somebody";
  const stationName = (id: string) =>
    stations.find((one) => one.id === placeOf(id))?.name ?? "A station";
  const waits = day.waits.filter(
    (one) => one.waitS >= NAMED_WAIT_S && !one.stationId.includes("/"),
  );
  const clashes = day.clashes.filter((one) => one.waitS >= NAMED_WAIT_S);
  return (
    <section aria-labelledby="look-title" className="mt-4">
      <h2 id="look-title">What to look at</h2>
      <ul className="mt-1 grid gap-1">
        {waits.map((one) => (
          <li key={one.stationId}>
            {stationName(one.stationId)} stands still for {formatClock(one.waitS)} of rest or for
            who is not there yet.
          </li>
        ))}
        {slots.flatMap((slot) => {
          const own = day.tooLong.filter((one) => one.slotId === slot.slotId);
          const longest = Math.max(0, ...own.map((one) => one.longestS));
          return own.length === 0
            ? []
            : [
                <li key={slot.slotId}>
                  {slot.name}:{" "}
                  {own.length === 1 ? nameOf(own[0]?.athleteId ?? "") : `${own.length} athletes`}{" "}
                  rest longer than {slot.rest.mostS} s, up to {formatClock(longest)}.
                </li>,
              ];
        })}
        {clashes.map((one) => (
          <li key={`${one.slotId}/${one.athleteId}`}>
            {nameOf(one.athleteId)} is awaited at {stationName(one.stationId)} for{" "}
            {formatClock(one.waitS)}.
          </li>
        ))}
        {waits.length + day.tooLong.length + clashes.length === 0 ? (
          <li className="text-muted">Every rest is as wanted, and no station waits.</li>
        ) : null}
      </ul>
    </section>
  );
}
