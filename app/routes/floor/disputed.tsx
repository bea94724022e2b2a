import { useState } from "react";
import { actWords } from "../../../core/floor/act-words";
import type { LogConflict } from "../../../core/floor/conflicts";
import type { LogEntry } from "../../../core/floor/entries";
import type { FloorFold, FloorState } from "../../../core/floor/state";

const DOUBTS = {
  "time-unknown": "Nobody knows whether it was made before the session had ended.",
  "revoked-tablet": "It came from a tablet that was taken off the team.",
} as const;

type Names = Readonly<Record<string, string>>;

const whoWrote = (entry: LogEntry | undefined, names: Names) =>
  entry?.by === undefined ? "this browser" : (names[entry.by] ?? "a tablet or person not here");

/** Entries that count only by a coach's word, by athlete. */
export function LateEntries({
  floor,
  names,
  zone,
  mayDecide,
  decide,
}: {
  floor: FloorState;
  names: Names;
  zone: string;
  mayDecide: boolean;
  decide: (of: string[], take: boolean) => void;
}) {
  const [time] = useState(
    () => new Intl.DateTimeFormat("en-GB", { timeStyle: "short", timeZone: zone }),
  );
  if (floor.doubtful.length === 0) return null;
  const nameOf = new Map([
    ...floor.racks.flatMap((rack) =>
      rack.lifters.map((one) => [one.lifter.athleteId, one.lifter.name] as const),
    ),
    ...floor.exercises.flatMap((exercise) =>
      exercise.athletes.map((one) => [one.athlete.athleteId, one.athlete.name] as const),
    ),
    ...floor.pairings.flatMap((pairing) =>
      pairing.athletes.map((one) => [one.athlete.athleteId, one.athlete.name] as const),
    ),
  ]);
  const groups = new Map<string, typeof floor.doubtful>();
  for (const one of floor.doubtful) {
    const { body } = one.entry;
    const who = "athleteId" in body ? (nameOf.get(body.athleteId) ?? "") : "";
    const key = `${who}/${one.doubt}/${one.entry.by ?? ""}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return (
    <section aria-label="Late entries" className="mt-3 border-t border-rule pt-2">
      <h2>Late: your word decides</h2>
      {[...groups].map(([key, group]) => {
        const [first] = group;
        if (!first) return null;
        const ids = group.map((one) => one.entry.id);
        return (
          <div key={key} className="border-b border-rule py-2">
            <p className="font-bold">
              {key.split("/")[0] || "Corrections"}: {group.length}{" "}
              {group.length === 1 ? "entry" : "entries"}
            </p>
            <p className="text-muted">
              {DOUBTS[first.doubt]} From {whoWrote(first.entry, names)}.
            </p>
            <details>
              <summary className="cursor-pointer">What they say</summary>
              <ul className="text-muted">
                {group.map(({ entry }) => (
                  <li key={entry.id}>
                    {actWords(entry.body)}, by its clock{" "}
                    {time.format(new Date(entry.madeAt ?? entry.wallTime))}
                  </li>
                ))}
              </ul>
            </details>
            {mayDecide ? (
              <div className="mt-1 flex gap-2">
                <button type="button" className="btn btn-primary" onClick={() => decide(ids, true)}>
                  They count
                </button>
                <button type="button" className="btn" onClick={() => decide(ids, false)}>
                  They do not
                </button>
              </div>
            ) : (
              <p className="text-muted">A coach decides.</p>
            )}
          </div>
        );
      })}
    </section>
  );
}

const CONFLICTS: Record<LogConflict["code"], string> = {
  "same-set-twice": "was ended twice; the first end stands",
  "two-detectors": "was measured by two; the first detector's rep stands",
  "double-decision": "has two decisions on one call; the first stands",
  "same-item-twice": "was tapped twice; the first tap stands",
  "double-correction": "was corrected twice; the first correction stands",
};

/** Entries that disagree, each with what stands and what does not. */
export function Conflicts({
  floor,
  fold,
  names,
  open,
}: {
  floor: FloorState;
  fold: FloorFold;
  names: Names;
  open: (shown: { slotId: string; athleteId: string; setKey: string }) => void;
}) {
  if (floor.conflicts.length === 0) return null;
  const lines = [
    ...floor.racks.flatMap((rack) =>
      rack.lifters.map((one) => ({ slotId: rack.slot.slotId, person: one.lifter, lifted: one })),
    ),
    ...floor.exercises.flatMap((exercise) =>
      exercise.athletes.map((one) => ({
        slotId: exercise.slot.slotId,
        person: one.athlete,
        lifted: undefined,
      })),
    ),
  ];
  return (
    <section aria-label="Entries that disagree" className="mt-3 border-t border-rule pt-2">
      <h2>Entries that disagree: {floor.conflicts.length}</h2>
      <ul>
        {floor.conflicts.map((conflict) => {
          const kept = fold.entry(conflict.kept);
          const other = fold.entry(conflict.other);
          const about = conflict.code === "double-correction" ? fold.entry(conflict.of) : kept;
          const body = about?.body;
          const line =
            body && "athleteId" in body
              ? lines.find(
                  (one) => one.slotId === body.slotId && one.person.athleteId === body.athleteId,
                )
              : undefined;
          const setKey = body && "setKey" in body ? body.setKey : undefined;
          const number = line?.person.sets.find((set) => set.key === setKey)?.number;
          const isOfPlan = line?.lifted !== undefined && number !== undefined;
          return (
            <li key={`${conflict.kept}/${conflict.other}`} className="border-b border-rule py-1">
              <p>
                {line ? `${line.person.name}${number ? `, set ${number}` : ""}` : "An entry"}{" "}
                {CONFLICTS[conflict.code]}.
              </p>
              <p className="text-muted">
                Stands: {kept ? actWords(kept.body) : "?"}, {whoWrote(kept, names)}. Not:{" "}
                {other ? actWords(other.body) : "?"}, {whoWrote(other, names)}.
              </p>
              {line && isOfPlan && setKey ? (
                <button
                  type="button"
                  className="btn btn-sm my-1"
                  onClick={() =>
                    open({ slotId: line.slotId, athleteId: line.person.athleteId, setKey })
                  }
                >
                  Put it right
                </button>
              ) : null}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
