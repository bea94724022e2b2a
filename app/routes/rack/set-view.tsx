import type { ReactNode } from "react";
import { plateChange } from "../../../core/barload/load";
import { boxRepWords } from "../../../core/boxsquat/stops";
import { rampNumber } from "../../../core/floor/entries";
import type { FrozenLift } from "../../../core/floor/frozen";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { Pins } from "../../../core/gear/pins";
import { endedWords, lossLine } from "../../../core/liverules/rep";
import { isShortRest } from "../../../core/prescribe/turns";
import { kgToGrains, type Mass, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { LoadedBar } from "../../ui/loaded-bar";
import { SpeedStrip, stripWords } from "../../ui/speed-strip";

export function Head({
  lifter,
  set,
  total,
}: {
  lifter: LifterState;
  set: SetState;
  total: number;
}) {
  const { prescription } = set;
  const onWayUp = rampNumber(prescription.key) !== undefined;
  return (
    <>
      <h1 className="flex flex-wrap items-baseline gap-x-4 text-[46px] leading-none font-bold">
        {lifter.callName}{" "}
        <span className="text-[22px] font-normal text-muted">
          {onWayUp ? `warm-up ${prescription.number}` : `set ${prescription.number} of ${total}`} ·{" "}
          {prescription.reps} reps
          {prescription.cycleItem ? ` · ${prescription.cycleItem} grip` : ""}
        </span>
      </h1>
      {lifter.lifter.setup?.map((line) => (
        <p key={line} className="text-[18px] leading-tight font-medium">
          {line}
        </p>
      ))}
    </>
  );
}

export function Load({
  lifter,
  set,
  onBar,
  pinsBefore,
  rested,
  restWanted,
  beside,
}: {
  lifter: LifterState;
  set: SetState;
  /** Beside the load: the way up to it. */
  beside: ReactNode;
  onBar: { callName: string; side: Mass[] } | undefined;
  /** Where the pins stand for the lifter before. */
  pinsBefore: Pins | undefined;
  rested: number | undefined;
  restWanted: number;
}) {
  if (set.loadKg === undefined) return null;
  const { unit } = lifter.lifter;
  const change = onBar ? plateChange(onBar.side, set.side) : undefined;
  const short = rested !== undefined && isShortRest(rested, restWanted);
  return (
    <>
      <div className="mt-1 flex items-center gap-x-6 max-md:flex-wrap">
        <p className="text-[clamp(88px,12vw,148px)] leading-none font-bold" data-testid="load">
          {plainNumber(massIn(kgToGrains(set.loadKg), unit), 1)}
          <span className="ml-1 text-[36px] font-normal text-muted">{unit}</span>
        </p>
        <div className="min-w-0 text-[20px]">
          {change ? (
            <>
              <p className="text-muted">
                {onBar?.callName === lifter.callName
                  ? "from the set before, each side"
                  : `from ${onBar?.callName}'s bar, each side`}
              </p>
              <p className="text-[22px] leading-tight font-bold" data-testid="change">
                {changeWords(change)}
              </p>
            </>
          ) : set.stage === "to-come" ? (
            <p className="text-muted">build it from the empty bar</p>
          ) : null}
          {rested !== undefined && set.stage === "to-come" ? (
            <p className={short ? "text-secondary" : "text-muted"}>
              rested {formatClock(rested)} of {formatClock(restWanted)}
              {short ? ", too short" : ""}
            </p>
          ) : null}
          {set.prescription.informationOnly ? (
            <p className="text-secondary">percentage is information only: ramp by speed</p>
          ) : null}
          {beside}
        </div>
      </div>
      <div className="flex flex-wrap items-baseline gap-x-6 text-[18px]">
        <Totals set={set} lifter={lifter} />
        <PinWords pins={lifter.lifter.pins} before={pinsBefore} />
      </div>
      <div className="shrink-0">
        <LoadedBar side={set.side} added={change?.on.length ?? 0} height={88} />
      </div>
    </>
  );
}

/** With bands or chains a load is three: at the bottom, over the path, at lockout. */
function Totals({ set, lifter }: { set: SetState; lifter: LifterState }) {
  const { hang, unit } = lifter.lifter;
  const barKg = set.loadKg;
  if (!hang || barKg === undefined) return null;
  const totals = [
    ["bottom", hang.bottomKg],
    ["mean", hang.meanKg],
    ["lockout", hang.lockoutKg],
  ] as const;
  return (
    <dl className="flex flex-wrap items-baseline gap-x-4" data-testid="totals">
      {totals.map(([name, addedKg]) => (
        <div key={name} className="flex items-baseline gap-1.5">
          <dt className="text-muted">{name}</dt>
          <dd className="text-[28px] leading-tight font-bold">
            {plainNumber(massIn(kgToGrains(barKg + addedKg), unit), 1)}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Hooks and safeties; what changes from the lifter before stands out. */
function PinWords({ pins, before }: { pins: Pins | undefined; before: Pins | undefined }) {
  if (!pins) return null;
  const shown = [
    { name: "hooks", now: pins.hooksCm, was: before?.hooksCm },
    { name: "safeties", now: pins.safetiesCm, was: before?.safetiesCm },
  ].filter((pin) => pin.now !== undefined);
  return (
    <p data-testid="pins" className="text-muted">
      {shown.map(({ name, now = 0, was }, i) => {
        const moves = was !== undefined && was !== now;
        return (
          <span key={name} className={moves ? "font-bold text-accent" : ""}>
            {i > 0 ? " · " : ""}
            {name} {plainNumber(now, 0)}
            {moves ? `, was ${plainNumber(was, 0)}` : ""}
          </span>
        );
      })}{" "}
      cm{pins.measured ? "" : ", by stature"}
    </p>
  );
}

function changeWords(change: ReturnType<typeof plateChange>): string {
  const list = (plates: readonly Mass[]) =>
    plates.map((plate) => plainNumber(plate.amount, 3)).join(", ");
  if (change.moves === 0) return "nothing to change";
  const off = change.off.length > 0 ? `off ${list(change.off)}` : "";
  const on = change.on.length > 0 ? `on ${list(change.on)}` : "";
  return [off, on].filter(Boolean).join(" · ");
}

function stripReps(set: SetState) {
  return set.reps.flatMap((rep) =>
    rep.velocityMps === undefined || rep.outcome === "failed"
      ? []
      : [{ number: rep.number, velocityMps: rep.velocityMps }],
  );
}

export function Strip({
  set,
  slot,
  stop,
  ramp,
  lifting,
  trace,
  instead,
}: {
  set: SetState;
  slot: FrozenLift;
  /** What ends this lifter's sets. */
  stop: FrozenLift["stop"];
  /** The sets on the way up: their stops stand beside the work sets'. */
  ramp: readonly SetState[];
  lifting: boolean;
  trace: ReadonlyArray<{ timeS: number; heightM: number }>;
  /** In the strip's place, where no speed is there to draw. */
  instead: ReactNode | undefined;
}) {
  const reps = stripReps(set);
  const rules = { cap: set.prescription.reps, ...stop };
  const strip = {
    reps,
    target: set.target,
    lossLineMps: lossLine(
      reps.map((rep) => rep.velocityMps),
      rules,
    ),
    floorMps: stop.floorMps,
    height: 150,
    label: stripWords(reps, set.target),
  };
  return (
    <>
      {instead ?? (
        <>
          {/* The same strip, drawn narrower on a phone so that its words keep their size. */}
          <div className="max-md:hidden">
            <SpeedStrip {...strip} />
          </div>
          <div className="md:hidden">
            <SpeedStrip {...strip} width={370} />
          </div>
        </>
      )}
      <div className="flex min-h-[66px] items-start justify-between gap-4">
        <div aria-live="assertive">
          <p className="text-[26px] leading-tight font-bold" data-testid="verdict">
            {verdictWords(set, lifting)}
          </p>
          <p className="text-[18px] text-muted">{evidenceWords(set, slot, ramp)}</p>
        </div>
        {lifting ? <Trace samples={trace} /> : null}
      </div>
    </>
  );
}

function verdictWords(set: SetState, lifting: boolean): string {
  if (set.stage === "done") return set.verdict?.text ?? "Set done.";
  if (set.advice) return set.advice.text;
  if (lifting) return "Measuring.";
  return set.target
    ? `Ready. Wanted ${set.target.lowMps.toFixed(2)} to ${set.target.highMps.toFixed(2)} m/s.`
    : "Ready.";
}

/** "warm-up stopped 0.55 to 0.70 s"; nothing where none was measured, or this is one of them. */
function warmStops(set: SetState, ramp: readonly SetState[]): string {
  if (rampNumber(set.prescription.key) !== undefined) return "";
  const stops = ramp.flatMap((one) => one.reps.flatMap((rep) => rep.pauseS ?? []));
  if (stops.length === 0) return "";
  const [least, most] = [Math.min(...stops).toFixed(2), Math.max(...stops).toFixed(2)];
  return `warm-up stopped ${least === most ? least : `${least} to ${most}`} s`;
}

function evidenceWords(set: SetState, slot: FrozenLift, ramp: readonly SetState[]): string {
  const advice = set.advice;
  const parts: string[] = [];
  if (set.stage === "done") {
    parts.push(`Ended by ${endedWords(set.endedBy)}${set.cut ? ", cut short" : ""}`);
  }
  if (advice?.best !== undefined && advice.lossPercent !== undefined) {
    const allowed =
      slot.stop.lossPercent === undefined ? "" : `, ${slot.stop.lossPercent} % allowed`;
    const reference = slot.stop.lossFrom === "first" ? "first rep" : "best rep";
    parts.push(`last ${advice.lossPercent.toFixed(0)} % under the ${reference}${allowed}`);
  }
  const last = slot.box && set.reps[set.reps.length - 1];
  const onBox = last ? boxRepWords({ ...last, mostContactMps: slot.mostContactMps }) : "";
  if (onBox) parts.push(onBox);
  const warm = slot.box ? warmStops(set, ramp) : "";
  if (warm) parts.push(warm);
  if (set.faults.length > 0) parts.push(`fault: ${set.faults.map((one) => one.fault).join(", ")}`);
  if (parts.length === 0) {
    return set.target ? "The reps appear here as they happen." : "Wanted speed not set.";
  }
  return parts.join(" · ");
}

/** The last seconds of the bar's height: shows that the sensor is alive. */
function Trace({ samples }: { samples: ReadonlyArray<{ timeS: number; heightM: number }> }) {
  const newest = samples[samples.length - 1]?.timeS ?? 0;
  const points = samples
    .filter((_, i) => i % 4 === 0)
    .map(
      (one) =>
        `${(180 - (newest - one.timeS) * 45).toFixed(1)},${(60 - one.heightM * 48).toFixed(1)}`,
    )
    .join(" ");
  return (
    <svg viewBox="0 0 180 60" width={180} height={60} role="img" aria-label="Bar height, live">
      <polyline points={points} fill="none" className="stroke-primary" strokeWidth={2.5} />
    </svg>
  );
}

/** The athlete's last sets, small; each opens to be put right. */
export function Earlier({
  lifter,
  set,
  onOpen,
}: {
  lifter: LifterState;
  set: SetState;
  onOpen: (shown: { athleteId: string; setKey: string }) => void;
}) {
  const earlier = lifter.sets.filter((other) => other.stage === "done" && other !== set).slice(-4);
  if (earlier.length === 0) return null;
  const { athleteId, unit } = lifter.lifter;
  return (
    <ul className="mt-1 flex gap-4 max-md:hidden" aria-label="Last sets">
      {earlier.map((other) => (
        <li key={other.prescription.key}>
          <button
            type="button"
            className="min-h-[64px] w-[132px] cursor-pointer text-left text-[17px] text-muted"
            aria-label={`Correct set ${other.prescription.number}. ${stripWords(stripReps(other), other.target)}`}
            onClick={() => onOpen({ athleteId, setKey: other.prescription.key })}
          >
            set {other.prescription.number} ·{" "}
            {plainNumber(massIn(kgToGrains(other.loadKg ?? 0), unit), 1)}
            <SpeedStrip
              reps={stripReps(other)}
              target={other.target}
              height={24}
              width={132}
              label={`Set ${other.prescription.number}. ${stripWords(stripReps(other), other.target)}`}
            />
          </button>
        </li>
      ))}
    </ul>
  );
}
