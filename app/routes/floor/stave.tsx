import { Link } from "react-router";
import { setTimes } from "../../../core/floor/forecast";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { FloorState, RackState } from "../../../core/floor/state";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { formatVelocity } from "../../../core/units/velocity";
import { useUnit } from "../../ui/unit";
import { Figure, Figures } from "../../ui/working";

/** Minutes of the session shown at once: what was done lately and what comes. */
const BEHIND_MIN = 11;
const AHEAD_MIN = 11;
const ROW = 30;

interface Placed {
  set: SetState;
  /** Minutes on the session's clock; the end of the set. */
  minute: number;
}

/**
 * The running session drawn to time: a band a rack, a line a lifter, a block a set. Done sets
 * stand where they ended, coming ones where turn-taking and rest will put them.
 */
export function FloorStave({
  floor,
  firstMs,
  sessionId,
  rest,
  nowMs,
  open,
}: {
  floor: FloorState;
  /** When the first entry was made. */
  firstMs: number;
  sessionId: string;
  rest: { leastS: number; mostS: number };
  nowMs: number;
  /** Opens a set to be put right. */
  open: (shown: { athleteId: string; setKey: string }) => void;
}) {
  const nowMin = (nowMs - firstMs) / 60_000;
  const from = Math.max(-1, nowMin - BEHIND_MIN);
  const to = from + BEHIND_MIN + AHEAD_MIN;
  const share = (minute: number) => ((minute - from) / (to - from)) * 100;
  const ticks: number[] = [];
  for (let m = Math.ceil(from / 2) * 2; m <= to; m += 2) if (m >= 0) ticks.push(m);

  return (
    <Figures label="Racks" className="relative">
      <div className="grid grid-cols-[210px_1fr] text-sm text-muted max-sm:grid-cols-[150px_1fr]">
        <span className="pl-12">minutes in</span>
        <span className="relative h-5" aria-hidden="true">
          {ticks
            .filter((tick) => Math.abs(share(tick) - share(nowMin)) > 5)
            .map((tick) => (
              <span
                key={tick}
                className="absolute -translate-x-1/2"
                style={{ left: `${share(tick)}%` }}
              >
                {tick}
              </span>
            ))}
          <span
            className="absolute -translate-x-1/2 font-bold text-accent"
            style={{ left: `${share(nowMin)}%` }}
          >
            now
          </span>
        </span>
      </div>
      {floor.racks.map((rack) => (
        <Band
          key={rack.rack.id}
          rack={rack}
          sessionId={sessionId}
          placed={rack.lifters.map((one) => {
            const times = setTimes({ rack, one, nowMs, leastRestS: rest.leastS });
            return one.sets.map((set, i) => ({
              set,
              minute: ((times[i] as number) - firstMs) / 60_000,
            }));
          })}
          share={share}
          now={share(nowMin)}
          ticks={ticks.map(share)}
          nowMs={nowMs}
          rest={rest}
          open={open}
        />
      ))}
    </Figures>
  );
}

function Band({
  rack,
  sessionId,
  placed,
  share,
  now,
  ticks,
  nowMs,
  rest,
  open,
}: {
  rack: RackState;
  sessionId: string;
  placed: Placed[][];
  share: (minute: number) => number;
  now: number;
  ticks: number[];
  nowMs: number;
  rest: { leastS: number };
  open: (shown: { athleteId: string; setKey: string }) => void;
}) {
  return (
    <section
      aria-label={`Rack ${rack.rack.name}`}
      className="relative grid grid-cols-[40px_170px_1fr] border-t border-rule py-1.5 max-sm:grid-cols-[32px_118px_1fr]"
    >
      <Link
        to={`/rack/${sessionId}/${rack.rack.id}`}
        className="self-start text-[28px] leading-9 font-bold hover:underline"
        aria-label={`Open rack ${rack.rack.name}`}
      >
        {rack.rack.name}
      </Link>
      <ul>
        {rack.lifters.map((one) => (
          <LifterLine
            key={one.lifter.athleteId}
            one={one}
            up={one.lifter.athleteId === rack.upId}
            nowMs={nowMs}
            rest={rest}
            open={open}
          />
        ))}
      </ul>
      <div className="relative overflow-hidden" aria-hidden="true">
        {ticks.map((tick) => (
          <span
            key={tick}
            className="absolute inset-y-0 border-l border-faint"
            style={{ left: `${tick}%` }}
          />
        ))}
        <span
          className="absolute inset-y-0 z-10 border-l-2 border-accent"
          style={{ left: `${now}%` }}
        />
        {placed.map((sets, row) => (
          <Row key={rack.lifters[row]?.lifter.athleteId} sets={sets} row={row} share={share} />
        ))}
      </div>
    </section>
  );
}

function LifterLine({
  one,
  up,
  nowMs,
  rest,
  open,
}: {
  one: LifterState;
  up: boolean;
  nowMs: number;
  rest: { leastS: number };
  open: (shown: { athleteId: string; setKey: string }) => void;
}) {
  const set = one.current === undefined ? undefined : one.sets[one.current];
  const last = one.sets.filter((other) => other.stage === "done").at(-1);
  const rested = last?.end ? (nowMs - last.end.atMs) / 1000 : undefined;
  const left = rested === undefined ? 0 : rest.leastS + one.addedRestS - rested;
  const best = last?.reps.flatMap((rep) => rep.velocityMps ?? []);
  const words = best?.length ? formatVelocity(Math.max(...best)) : "";
  return (
    <li
      className={`flex items-center justify-between gap-1 rounded px-1.5 ${up ? "bg-neutral text-neutral-content" : ""}`}
      style={{ height: ROW }}
    >
      <button
        type="button"
        className="min-w-0 cursor-pointer truncate text-left font-medium hover:underline"
        title="Open a set to put it right"
        onClick={() => {
          const setKey = (last ?? set ?? one.sets[0])?.prescription.key;
          if (setKey) open({ athleteId: one.lifter.athleteId, setKey });
        }}
      >
        {one.lifter.name.split(" ")[0]}
        <span className="sr-only">
          {up ? ", up now" : ""}
          {words ? `, last best ${words} m/s` : ""}
          {left > 0 ? `, rests ${formatClock(left)} more` : ""}
        </span>
      </button>
      {set?.loadKg !== undefined ? (
        <Figure
          id={`floor/${one.lifter.athleteId}/${set.prescription.key}`}
          working={set.prescription.working}
          label={`${one.lifter.name}, ${formatKg(set.loadKg, one.lifter.unit, 1)}, set ${set.prescription.number}`}
        >
          {plainNumber(Number.parseFloat(formatKg(set.loadKg, one.lifter.unit, 1)))}
          {one.lifter.unit === "lb" ? <span className="text-[0.8em]"> lb</span> : null}
        </Figure>
      ) : (
        <span className="text-sm">{set ? "no load" : "done"}</span>
      )}
    </li>
  );
}

function Row({
  sets,
  row,
  share,
}: {
  sets: Placed[];
  row: number;
  share: (minute: number) => number;
}) {
  const unit = useUnit();
  const loads = sets.flatMap(({ set }) => set.loadKg ?? []);
  const least = Math.min(...loads);
  const most = Math.max(...loads);
  return (
    <span
      className="absolute inset-x-0 border-b border-faint"
      style={{ top: row * ROW, height: ROW }}
    >
      {sets.map(({ set, minute }) => {
        if (set.stage === "dropped") return null;
        const span = most > least ? ((set.loadKg ?? least) - least) / (most - least) : 0.5;
        const height = 11 + 10 * span;
        const under = set.verdict?.standing === "under";
        const look = {
          done: "bg-primary",
          running: "bg-base-content",
          "to-come": "border border-control",
          dropped: "",
        }[set.stage];
        return (
          <span
            key={set.prescription.key}
            title={blockWords(set, unit)}
            className={`absolute bottom-0.5 w-[9px] -translate-x-full ${look}`}
            style={{ left: `${share(minute)}%`, height }}
          >
            {under ? (
              <span className="absolute -top-[7px] left-1/2 -translate-x-1/2 border-x-[5px] border-t-[6px] border-x-transparent border-t-accent" />
            ) : null}
          </span>
        );
      })}
    </span>
  );
}

function blockWords(set: SetState, unit: MassUnit): string {
  const speeds = set.reps.flatMap((rep) => rep.velocityMps ?? []).map(formatVelocity);
  const load = set.loadKg === undefined ? "no load" : formatKg(set.loadKg, unit, 1);
  return `Set ${set.prescription.number}, ${load}${speeds.length > 0 ? `: ${speeds.join(", ")} m/s` : ""}`;
}
