import { useState } from "react";
import type { EntryBody } from "../../../core/floor/entries";
import type { FrozenStation } from "../../../core/floor/frozen";
import type { StationState } from "../../../core/floor/stations";

const nameOf = ({ kind, name }: FrozenStation) => (kind === "rack" ? `Rack ${name}` : name);

/** Who still has something to do of a station's work, and may be sent on; a pairing keeps its place. */
function leftAt(station: StationState | undefined): { slotId: string; athleteIds: string[] } {
  const work = station?.current;
  if (!work || work.kind === "pairing") return { slotId: "", athleteIds: [] };
  const lines =
    work.kind === "lift"
      ? work.rack.lifters.map((one) => ({ id: one.lifter.athleteId, current: one.current }))
      : work.exercise.athletes.map((one) => ({ id: one.athlete.athleteId, current: one.current }));
  return {
    slotId: work.slot.slotId,
    athleteIds: lines.flatMap((one) => (one.current === undefined ? [] : [one.id])),
  };
}

/** A whole group goes to another station with what it has left to do. */
export function MoveGroup({
  stations,
  all,
  append,
}: {
  stations: readonly StationState[];
  /** Every station of the session, those without work too. */
  all: readonly FrozenStation[];
  append: (body: EntryBody) => unknown;
}) {
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const movable = stations.filter((one) => leftAt(one).athleteIds.length > 0);
  const chosen = movable.find((one) => one.station.id === from);
  const { slotId, athleteIds } = leftAt(chosen);
  // A bar is lifted at a rack, and the rest is done at places.
  const targets = all.filter(
    (one) => chosen && one.id !== from && one.kind === chosen.station.kind,
  );
  const target = targets.find((one) => one.id === to);
  if (movable.length === 0 || all.length < 2) return null;
  return (
    <form
      aria-label="Move a group"
      className="mt-3 border-t border-rule pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!target) return;
        for (const athleteId of athleteIds)
          append({ kind: "move", athleteId, slotId, stationId: target.id });
        setFrom("");
        setTo("");
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <label className="min-w-0 flex-1">
          <span className="block text-sm text-muted">Group at</span>
          <select
            className="select border-control w-full"
            value={from}
            onChange={(event) => setFrom(event.target.value)}
          >
            <option value="">Choose</option>
            {movable.map((one) => (
              <option key={one.station.id} value={one.station.id}>
                {nameOf(one.station)}: {one.current?.name}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-0 flex-1">
          <span className="block text-sm text-muted">goes to</span>
          <select
            className="select border-control w-full"
            value={to}
            disabled={!chosen}
            onChange={(event) => setTo(event.target.value)}
          >
            <option value="">Choose</option>
            {targets.map((one) => (
              <option key={one.id} value={one.id}>
                {nameOf(one)}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn" disabled={!target}>
          Move {athleteIds.length > 0 ? athleteIds.length : ""}
        </button>
      </div>
    </form>
  );
}
