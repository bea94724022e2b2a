import type { FrozenStation } from "../../../core/floor/frozen";
import type { Absent } from "../../../core/floor/state";
import { Sheet } from "./sheet";

const BIG = "btn min-h-[64px] text-[18px]";

/** What a station may need besides lifting, so that nobody is ever stuck at it. */
export function MoreSheet({
  name,
  workName,
  onClose,
  set,
  move,
  off,
  absent,
  comeIn,
  stations,
}: {
  /** Who is up; undefined where nobody is. */
  name: string | undefined;
  workName: string;
  onClose: () => void;
  /** What can be said of the set; nothing where it runs or is done. */
  set: ReadonlyArray<{ name: string; run: () => void }>;
  move: (stationId: string) => void;
  off: () => void;
  /** Who may come in; undefined where nobody does. */
  absent: readonly Absent[] | undefined;
  comeIn: (athleteId: string) => void;
  /** Where else this can be done. */
  stations: readonly FrozenStation[];
}) {
  const run = (act: () => void) => () => {
    act();
    onClose();
  };
  return (
    <Sheet title={name ? `${name}, ${workName}` : workName} onClose={onClose} wide>
      {set.length > 0 ? (
        <div className="mt-2 grid grid-cols-2 gap-2 md:grid-cols-3">
          {set.map((one) => (
            <button key={one.name} type="button" className={BIG} onClick={run(one.run)}>
              {one.name}
            </button>
          ))}
        </div>
      ) : null}
      {name ? (
        <>
          {stations.length > 0 ? (
            <section aria-label="Another station" className="mt-4">
              <p className="text-[18px]">{name} goes to</p>
              <div className="mt-1 flex flex-wrap gap-2">
                {stations.map((one) => (
                  <button
                    key={one.id}
                    type="button"
                    className={BIG}
                    onClick={run(() => move(one.id))}
                  >
                    {one.kind === "rack" ? `rack ${one.name}` : one.name}
                  </button>
                ))}
              </div>
            </section>
          ) : null}
          <section aria-label="Take off" className="mt-4">
            <button type="button" className={BIG} onClick={run(off)}>
              Take {name} off {workName}
            </button>
          </section>
        </>
      ) : null}
      {absent ? (
        <section aria-label="Came in" className="mt-4 border-t border-rule pt-3">
          <p className="text-[18px]">
            {absent.length > 0
              ? "Somebody came in:"
              : "Everybody of the plan is here. Who is of another squad is added by the coach, before the start."}
          </p>
          <div className="mt-1 flex flex-wrap gap-2">
            {absent.map((one) => (
              <button
                key={one.athleteId}
                type="button"
                className={BIG}
                onClick={run(() => comeIn(one.athleteId))}
              >
                {one.name}
              </button>
            ))}
          </div>
        </section>
      ) : null}
    </Sheet>
  );
}
