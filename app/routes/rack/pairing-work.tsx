import { useEffect, useState } from "react";
import { dueIn } from "../../../core/contrast/run";
import { actWords } from "../../../core/floor/act-words";
import type { PairingState } from "../../../core/floor/state";
import type { ClockMark } from "../../../core/units/clock";
import { formatClock } from "../../../core/units/time";
import { deviceClock } from "../../offline/device";
import { PairingRow } from "../../ui/pairing/pairing-row";
import { WorkingProvider } from "../../ui/working";
import { Finished } from "./finished";
import { StationFrame, type WorkProps } from "./station-frame";
import { useCountdowns } from "./use-signals";

const TICK_MS = 250;

/** A pairing at its station: everybody's gaps and rests at once. */
export function PairingWork({
  pairing,
  next,
  ...props
}: WorkProps & {
  pairing: PairingState;
  next: { name: string; go: () => void } | undefined;
}) {
  const { log, view } = props;
  const { slot, athletes } = pairing;
  const [clock, setClock] = useState<ClockMark>();
  useEffect(() => {
    const tick = () => setClock(deviceClock().mark());
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, []);
  const clocks = athletes.flatMap((row) => {
    const at = clock === undefined ? undefined : dueIn(row.run.stage, clock);
    return at ? [{ id: row.athlete.athleteId, leftS: at.leftS }] : [];
  });
  useCountdowns(clocks, !view.ended && !view.floor.paused);
  const due = athletes
    .flatMap((row) => {
      const at = clock === undefined ? undefined : dueIn(row.run.stage, clock);
      return at ? [{ name: row.callName, ...at }] : [];
    })
    .sort((a, b) => a.leftS - b.leftS)[0];
  const through = athletes.every((row) => row.run.stage.kind === "over");
  return (
    <StationFrame
      head={props.head}
      foot={props.foot}
      aside={
        <p className="text-[18px]">
          {slot.complex.rounds} rounds. Output {slot.settings.endAtLossPercent} % under round 1
          proposes the end.
        </p>
      }
    >
      {props.top}
      <h1 className="text-[22px] leading-tight font-bold">{slot.complex.name}</h1>
      <p role="status" className="mb-2 min-h-9 text-[24px]">
        {due === undefined ? (
          <span className="text-muted">Nobody rests.</span>
        ) : due.leftS > 0 ? (
          <>
            Next: <b>{due.name}</b> in {formatClock(Math.ceil(due.leftS))}
          </>
        ) : (
          <>
            <b>{due.name}</b> is due
          </>
        )}
      </p>
      <WorkingProvider>
        <ul className="border-t border-rule">
          {athletes.map((row) => {
            const { athleteId } = row.athlete;
            const last = log.fold.counting(slot.slotId, athleteId).at(-1);
            const at = { athleteId, slotId: slot.slotId, stationId: row.stationId };
            return (
              <PairingRow
                key={athleteId}
                name={row.callName}
                line={row}
                last={
                  last && actWords(last.body, { complex: slot.complex, unit: row.athlete.unit })
                }
                now={clock}
                tap={(tap) => log.append({ ...tap, ...at })}
                undo={() => last && log.append({ kind: "void" }, [last.entry.id])}
                settings={slot.settings}
                closed={view.ended}
              />
            );
          })}
        </ul>
      </WorkingProvider>
      {through ? (
        <Finished
          atPlace
          sessionId={props.sessionId}
          fixed={props.fixed}
          next={next}
          after={props.after}
        />
      ) : null}
    </StationFrame>
  );
}
