import { numberSet } from "../../../core/contrast/item-load";
import { dueIn, earlyStart, loadSet, type RunSettings } from "../../../core/contrast/run";
import type { PairingLine } from "../../../core/floor/pairing-state";
import type { ClockMark } from "../../../core/units/clock";
import { ItemWords, RowClock, RowRests, RowTaps } from "./pairing-row";
import type { Tap } from "./tap";

/** From so many athletes on a pairing is shown in tiles: sixteen stand on one screen. */
export const TILES_FROM = 7;

/**
 * One of many in a pairing: the clock, what comes now and on what, one tap. Loads, outputs and sides are
 * behind the name.
 */
export function PairingTile({
  name,
  line,
  last,
  now,
  tap,
  undo,
  settings,
  closed,
  opened,
  open,
}: {
  name: string;
  line: PairingLine;
  last: string | undefined;
  now: ClockMark | undefined;
  tap: (entry: Tap) => void;
  undo: () => void;
  settings: RunSettings;
  closed: boolean;
  opened: boolean;
  open: () => void;
}) {
  const { complex, run } = line;
  const { unit, loads } = line.athlete;
  const { stage } = run;
  const due = now === undefined ? undefined : dueIn(stage, now);
  const soon = now === undefined ? undefined : earlyStart(stage, now, settings);
  const at = stage.kind === "over" ? undefined : stage;
  const item = at && complex.items[at.item];
  const planned = at && loads[at.item];
  const number = at && planned && numberSet(planned, loadSet(run, at.item, at.round), unit);
  return (
    <li
      aria-label={name}
      className={`flex flex-col gap-1 border border-rule p-2 ${opened ? "bg-wash" : ""}`}
    >
      <div className="flex items-start justify-between gap-2">
        <button
          type="button"
          className="min-h-11 min-w-0 text-left leading-tight"
          aria-expanded={opened}
          onClick={open}
        >
          <b className="block overflow-hidden text-[1.15rem] text-ellipsis whitespace-nowrap underline">
            {name}
          </b>
          <span className="text-sm text-muted">
            {stage.kind === "over"
              ? stage.why === "done"
                ? "all rounds done"
                : "stopped"
              : `round ${stage.round} of ${complex.rounds}`}
          </span>
        </button>
        <RowClock stage={stage} due={due} now={now} />
      </div>
      <p className="min-h-10 leading-tight">
        {item ? (
          <>
            <ItemWords item={item} />
            {number ? `, ${number.words}` : ""}
            {number?.side ? <span className="text-muted">, side {number.side}</span> : null}
          </>
        ) : null}
        {run.endProposed ? (
          <span className="block text-accent">output fell: open to end it</span>
        ) : null}
      </p>
      <div className="text-sm leading-tight">
        <RowRests run={run} />
      </div>
      {closed ? null : (
        <RowTaps
          name={name}
          run={run}
          last={last}
          soon={soon !== undefined}
          tap={tap}
          undo={undo}
        />
      )}
    </li>
  );
}
