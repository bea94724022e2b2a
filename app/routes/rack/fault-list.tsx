import { useState } from "react";
import { PAIN_PLACES, type PainPlace } from "../../../core/floor/entries";
import type { FrozenLift } from "../../../core/floor/frozen";
import { Sheet } from "./sheet";

/** For sessions from before they brought their own list. */
const OLDER: NonNullable<FrozenLift["faults"]> = [{ seen: "Out of line" }, { seen: "Short range" }];

/** One tap a fault; it may cut the set. And it may hurt: one tap says where. */
export function FaultList({
  faults = OLDER,
  onFault,
  onPain,
  onClose,
}: {
  faults: FrozenLift["faults"];
  onFault: (fault: string, cut: boolean) => void;
  onPain: (place: PainPlace) => void;
  onClose: () => void;
}) {
  const [cut, setCut] = useState(false);
  return (
    <Sheet title="Fault or pain" onClose={onClose} wide={faults.length > 8}>
      <label className="flex min-h-[64px] items-center gap-3 text-[18px]">
        <input
          type="checkbox"
          className="checkbox border-control"
          checked={cut}
          onChange={(event) => setCut(event.target.checked)}
        />
        and cut the set
      </label>
      <div
        className={`mt-1 grid gap-2 ${faults.length > 8 ? "grid-cols-3 md:grid-cols-4" : "grid-cols-2"}`}
      >
        {faults.map(({ seen, cue }) => (
          <button
            key={seen}
            type="button"
            className="btn h-auto min-h-[64px] py-1 text-[18px] leading-tight"
            onClick={() => {
              onFault(seen, cut);
              onClose();
            }}
          >
            <span>
              {seen}
              {cue ? <span className="block text-[17px] font-normal text-muted">{cue}</span> : null}
            </span>
          </button>
        ))}
      </div>
      <section aria-label="Pain" className="mt-4 border-t border-rule pt-2">
        <p className="text-[18px]">
          <b>Pain: where?</b> It ends the set, and nothing goes heavier until a coach has spoken.
          The place goes to the coaches only. Stop and refer.
        </p>
        <div className="mt-2 grid grid-cols-3 gap-2 md:grid-cols-5">
          {PAIN_PLACES.map((place) => (
            <button
              key={place}
              type="button"
              className="btn min-h-[56px] text-[18px]"
              onClick={() => {
                onPain(place);
                onClose();
              }}
            >
              {place}
            </button>
          ))}
        </div>
      </section>
    </Sheet>
  );
}
