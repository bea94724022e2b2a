import type { SetAddress } from "../../../core/floor/entries";
import type { FloorState } from "../../../core/floor/state";

/** Who flagged a pain: held until a coach has spoken. Where it hurts stands with the reasons. */
export function HeldLifters({
  floor,
  mayDecide,
  over,
}: {
  floor: FloorState;
  mayDecide: boolean;
  over: (at: SetAddress, of: string[]) => void;
}) {
  const lifts = floor.racks.flatMap((rack) =>
    rack.lifters.map((one) => ({
      person: one.lifter,
      held: one.held,
      slotId: rack.slot.slotId,
      stationId: rack.rack.id,
      what: "this lift",
      last: one.sets[Math.max(0, (one.current ?? one.sets.length) - 1)]?.prescription.key,
    })),
  );
  const exercises = floor.exercises.flatMap((exercise) =>
    exercise.athletes.map((one) => ({
      person: one.athlete,
      held: one.held,
      slotId: exercise.slot.slotId,
      stationId: exercise.stationId,
      what: exercise.slot.name,
      last: one.sets[Math.max(0, (one.current ?? one.sets.length) - 1)]?.prescription.key,
    })),
  );
  const held = [...lifts, ...exercises].filter((one) => one.held.length > 0);
  if (held.length === 0) return null;
  return (
    <section aria-label="Held by coach" className="mt-3 border-t border-rule pt-2">
      <h2>Held by coach: {held.length}</h2>
      {held.map(({ person, slotId, stationId, what, last, held: pains }) => (
        <div key={`${slotId}/${person.athleteId}`} className="border-b border-rule py-2">
          <p>
            <b>{person.name}</b> flagged a pain. No load rises on {what}, now or later, until a
            coach has spoken.
          </p>
          {mayDecide && last !== undefined ? (
            <p className="mt-1 flex flex-wrap items-center gap-3">
              <button
                type="button"
                className="btn btn-sm"
                onClick={() =>
                  over({ athleteId: person.athleteId, slotId, stationId, setKey: last }, pains)
                }
              >
                Loads may rise again
              </button>
              <a className="underline" href={`/athletes/${person.athleteId}?open=limits`}>
                Where it hurts
              </a>
            </p>
          ) : (
            <p className="text-muted">A coach decides.</p>
          )}
        </div>
      ))}
      <p className="text-sm text-muted">
        No medical advice: a new injury, pain that stays or dizziness is for a licensed
        practitioner.
      </p>
    </section>
  );
}
