import { useState } from "react";
import { plateChange } from "../../../core/barload/load";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import { kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { readIn } from "../../../core/units/written";

const BIG = "btn h-auto min-h-[72px] border-2 py-1 text-[20px] leading-tight";

/** A set that no plan gave a load: what to put on, from what was lifted, and why. */
export function PutOn({
  lifter,
  set,
  putOn,
  other,
}: {
  lifter: LifterState;
  set: SetState;
  putOn: (kg: number) => void;
  /** Asks for another load. */
  other: () => void;
}) {
  const [asked, setAsked] = useState(false);
  const { unit } = lifter.lifter;
  const { next } = lifter;
  const last = [...lifter.ramp, ...lifter.sets].filter((one) => one.stage === "done").at(-1);
  const words = (kg: number) => `${plainNumber(massIn(kgToGrains(kg), unit), 2)} ${unit}`;
  const proposal = next?.kind === "load" ? next : undefined;
  return (
    <section aria-label="What to put on" className="my-3">
      <p className="border-l-[3px] border-secondary pl-3 text-[20px]">
        {next ? readIn(next.text, unit) : set.prescription.loadReason}
      </p>
      {next && set.prescription.loadReason ? (
        <p className="mt-1 text-[17px] text-muted">{set.prescription.loadReason}</p>
      ) : null}
      <div className="mt-3 flex flex-wrap gap-2.5">
        {proposal ? (
          <button
            type="button"
            className={`${BIG} btn-primary`}
            onClick={() =>
              proposal.asks && !asked ? setAsked(true) : putOn(proposal.loading.totalKg)
            }
          >
            {proposal.asks && asked
              ? `Asked: put on ${words(proposal.loading.totalKg)}`
              : `Put on ${words(proposal.loading.totalKg)}`}
          </button>
        ) : null}
        {last?.loadKg === undefined ? null : (
          <button type="button" className={BIG} onClick={() => putOn(last.loadKg as number)}>
            The same, {words(last.loadKg)}
          </button>
        )}
        <button type="button" className={BIG} onClick={other}>
          Another load
        </button>
      </div>
      {proposal?.asks && !asked ? (
        <p className="mt-2 font-bold">Tap once, ask the athlete, tap again.</p>
      ) : null}
      {proposal && last ? (
        <p className="mt-2 text-[19px] text-muted">
          each side: {changeOf(last, proposal.loading.side.plates)}
        </p>
      ) : null}
    </section>
  );
}

function changeOf(last: SetState, side: Parameters<typeof plateChange>[1]): string {
  const { off, on } = plateChange(last.side, side);
  const list = (plates: typeof off) => plates.map((one) => plainNumber(one.amount, 3)).join(", ");
  return [off.length > 0 ? `off ${list(off)}` : "", on.length > 0 ? `on ${list(on)}` : ""]
    .filter(Boolean)
    .join(" · ");
}
