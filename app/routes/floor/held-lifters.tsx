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
  const held = floor.racks.flatMap((rack) =>
    rack.lifters
      .filter((one) => one.held.length > 0)
      .map((one) => ({
        rack,
        one,
        last: one.sets[Math.max(0, (one.current ?? one.sets.length) - 1)],
      })),
  );
  if (held.length === 0) return null;
  return (
    <section aria-label="Held by coach" className="mt-3 border-t border-rule pt-2">
      <h2>Held by coach: {held.length}</h2>
      {held.map(({ rack, one, last }) => (
        <div
          key={`${rack.slot.slotId}/${one.lifter.athleteId}`}
          className="border-b border-rule py-2"
        >
          <p>
            <b>{one.lifter.name}</b> flagged a pain. No load rises on this lift, now or later, until
            a coach has spoken.
          </p>
          {mayDecide && last ? (
            <p className="mt-1 flex flex-wrap items-center gap-3">
              <button
                type="button"
                className="btn btn-sm"
                onClick={() =>
                  over(
                    {
                      athleteId: one.lifter.athleteId,
                      slotId: rack.slot.slotId,
                      stationId: rack.rack.id,
                      setKey: last.prescription.key,
                    },
                    one.held,
                  )
                }
              >
                Loads may rise again
              </button>
              <a className="underline" href={`/athletes/${one.lifter.athleteId}#limits`}>
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
