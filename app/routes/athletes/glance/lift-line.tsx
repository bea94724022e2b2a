import { Link } from "react-router";
import { velocityAt } from "../../../../core/profile/line";
import { signedMps } from "../../../../core/review/equal-load";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../../core/units/mass";
import { filmedWords, formatVelocity } from "../../../../core/units/velocity";
import { Day, useDated } from "../../../ui/dates";
import { useUnit } from "../../../ui/unit";
import { Figure } from "../../../ui/working";
import type { LiftOnPage } from "../page-data";
import { liftPart, OpensPart } from "./opens";

type Glance = LiftOnPage["glance"];

/** A main lift in one line: working max with its age, speed at one load, own line, faults. */
export function LiftLine({
  lift,
  athleteId,
  young,
}: {
  lift: LiftOnPage;
  athleteId: string;
  young: boolean;
}) {
  return (
    <div className="grid gap-x-4 gap-y-1 py-1 sm:grid-cols-2 lg:grid-cols-[12.5rem_1fr_1fr_11.5rem]">
      <div>
        <h3 className="font-bold">
          <OpensPart part={liftPart(lift.id)}>
            <LiftName name={lift.name} />
          </OpensPart>
        </h3>
        <MaxCell lift={lift} young={young} />
      </div>
      <SpeedCell glance={lift.glance} name={lift.name} liftId={lift.id} />
      <LineCell lift={lift} athleteId={athleteId} />
      <FaultCell glance={lift.glance} name={lift.name} />
    </div>
  );
}

/** The lift large, its bar small: "Bench press, straight bar". */
function LiftName({ name }: { name: string }) {
  const at = name.indexOf(",");
  return at < 0 ? (
    name
  ) : (
    <>
      {name.slice(0, at)}
      <span className="text-sm font-normal text-muted">{name.slice(at)}</span>
    </>
  );
}

function MaxCell({ lift, young }: { lift: LiftOnPage; young: boolean }) {
  const unit = useUnit();
  const { resolved } = lift;
  if (!("max" in resolved))
    return <p className="text-secondary">No working max: percentages are refused.</p>;
  const { max, viaBase } = resolved;
  return (
    <p className="flex items-baseline gap-2">
      <Figure
        id={`glance/max/${lift.id}`}
        working={max.working}
        label={`Working max ${formatKg(max.kg, unit, 1)}, ${lift.name}`}
        className={`text-[1.7rem] font-bold leading-tight ${young ? "text-muted" : ""}`}
      >
        {plainNumber(massIn(kgToGrains(max.kg), unit), 1)}
      </Figure>
      <span className="text-sm leading-tight">
        <span className="text-muted">
          {unit}
          {viaBase ? ", from its base" : ""}
        </span>
        <span className={`block ${max.stale ? "font-medium text-secondary" : "text-muted"}`}>
          {max.stale ? "▲ stale, " : ""}
          {max.ageDays} days old
        </span>
      </span>
    </p>
  );
}

const SPEED = { width: 176, height: 52 };
const VERDICTS = { rises: "▲ Rises", falls: "▼ Falls", unclear: "Not settled" } as const;

/** Speed at one load by day, in the band that nine of ten days lie in while nothing changes. */
function SpeedCell({ glance, name, liftId }: { glance: Glance; name: string; liftId: string }) {
  const unit = useUnit();
  const dated = useDated();
  const { speed } = glance;
  if (!speed)
    return (
      <p className="self-center text-sm text-muted">
        {glance.days === 0
          ? "Nothing trained of it in a year."
          : "No speed on two days yet: measure a set."}
      </p>
    );
  const { days, levelMps, bandMps } = speed;
  const values = days.map((day) => day.speedMps);
  const low = Math.min(levelMps - bandMps, ...values);
  const high = Math.max(levelMps + bandMps, ...values);
  const x = (i: number) => 5 + (i / (days.length - 1)) * (SPEED.width - 10);
  const y = (mps: number) => 4 + ((high - mps) / (high - low)) * (SPEED.height - 8);
  const last = days.at(-1);
  const chance = speed.verdict === "falls" ? 1 - speed.chanceRises : speed.chanceRises;
  const says = `${plainNumber(100 * chance, 0)} % that it ${speed.verdict === "falls" ? "falls" : "rises"}`;
  return (
    <div className="flex items-center gap-2">
      <svg
        role="img"
        aria-label={dated(
          `Speed of ${name} at ${formatKg(speed.loadKg, unit, 1)} on ${days.length} days from ${days[0]?.date}: ${values.map(formatVelocity).join(", ")} m/s. ${VERDICTS[speed.verdict].replace(/^\W+/, "")}, ${says}.`,
        )}
        viewBox={`0 0 ${SPEED.width} ${SPEED.height}`}
        className="block w-full max-w-[176px] min-w-0"
      >
        <rect
          x={0}
          width={SPEED.width}
          y={y(levelMps + bandMps)}
          height={y(levelMps - bandMps) - y(levelMps + bandMps)}
          className="fill-[var(--wash)]"
        />
        <line
          x1={0}
          x2={SPEED.width}
          y1={y(levelMps)}
          y2={y(levelMps)}
          strokeDasharray="2 3"
          className="stroke-control"
        />
        <polyline
          points={days.map((day, i) => `${x(i)},${y(day.speedMps)}`).join(" ")}
          className="fill-none stroke-primary"
          strokeWidth={1.5}
        />
        {days.map((day, i) => (
          <circle
            key={day.date}
            cx={x(i)}
            cy={y(day.speedMps)}
            r={i === days.length - 1 ? 3.5 : 2.5}
            className={i === days.length - 1 ? "fill-primary" : "fill-base-100 stroke-primary"}
          />
        ))}
      </svg>
      <p className="shrink-0 text-sm leading-tight">
        <span className="text-muted">
          at {formatKg(speed.loadKg, unit, 1)}
          {filmedWords(speed)}
        </span>
        <span className="block">
          <Figure
            id={`glance/speed/${liftId}`}
            working={speed.working}
            label={`Speed on the last day, ${formatVelocity(last?.speedMps ?? 0)} m/s`}
            className="text-[1.15rem] font-bold"
          >
            {formatVelocity(last?.speedMps ?? 0)}
          </Figure>
        </span>
        <span className={`block ${speed.verdict === "falls" ? "font-medium text-secondary" : ""}`}>
          {VERDICTS[speed.verdict]}
        </span>
        <span className="block text-muted">{says}</span>
      </p>
    </div>
  );
}

const LINE = { width: 150, height: 52 };

/** The own line with its tested points, where it meets the threshold, and what today's sets read. */
function LineCell({ lift, athleteId }: { lift: LiftOnPage; athleteId: string }) {
  const unit = useUnit();
  const dated = useDated();
  const { profile, glance } = lift;
  if (!profile?.result.ok)
    return (
      <p className="self-center text-sm text-muted">
        No line of its own: wanted speeds come from the recipe.{" "}
        <Link className="underline" to={`/lab/profile?athlete=${athleteId}&variant=${lift.id}`}>
          Test it
        </Link>
      </p>
    );
  const { line, used, oneRepMax } = profile.result;
  const loads = used.map((rep) => rep.loadKg);
  const fromKg = Math.min(...loads) * 0.9;
  const toKg = Math.max(oneRepMax?.kg ?? 0, ...loads) * 1.04;
  const top = Math.max(...used.map((rep) => rep.velocityMps)) * 1.1;
  const x = (kg: number) => 4 + ((kg - fromKg) / (toKg - fromKg)) * (LINE.width - 8);
  const y = (mps: number) => 3 + (1 - mps / top) * (LINE.height - 6);
  const ends = [fromKg, oneRepMax?.kg ?? Math.max(...loads)] as const;
  const { today } = glance;
  return (
    <div className="flex items-center gap-2">
      <svg
        role="img"
        aria-label={dated(
          `Own line of ${lift.name}, tested ${profile.date}: ${formatVelocity(line.v0Mps)} m/s at no load${oneRepMax ? `, 1RM by speed ${formatKg(oneRepMax.kg, unit, 1)}` : ""}${today ? `. Today: ${today.sets.map((set) => `${formatVelocity(set.velocityMps)} at ${formatKg(set.loadKg, unit, 1)}`).join(", ")}` : ""}.`,
        )}
        viewBox={`0 0 ${LINE.width} ${LINE.height}`}
        className="block w-full max-w-[150px] min-w-0"
      >
        <path d={`M4 2V${LINE.height - 3}H${LINE.width}`} className="fill-none stroke-control" />
        <line
          x1={x(ends[0])}
          y1={y(velocityAt(line, ends[0]))}
          x2={x(ends[1])}
          y2={y(velocityAt(line, ends[1]))}
          className="stroke-primary"
          strokeWidth={1.5}
        />
        {oneRepMax ? (
          <line
            x1={x(oneRepMax.kg)}
            x2={x(oneRepMax.kg)}
            y1={y(velocityAt(line, oneRepMax.kg))}
            y2={LINE.height - 3}
            strokeDasharray="2 2"
            className="stroke-primary"
          />
        ) : null}
        {used.map((rep) => (
          <circle
            key={`${rep.loadKg}/${rep.velocityMps}`}
            cx={x(rep.loadKg)}
            cy={y(rep.velocityMps)}
            r={2.2}
            className="fill-base-content"
          />
        ))}
        {today?.sets.map((set, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: readings of one day, in order
            key={i}
            d={`M${x(set.loadKg)} ${y(set.velocityMps) - 4.5}l4.5 4.5l-4.5 4.5l-4.5 -4.5z`}
            className="fill-secondary"
          />
        ))}
      </svg>
      <p className="shrink-0 text-sm leading-tight">
        <span className="text-muted">
          <Day of={profile.date} />
        </span>
        {oneRepMax ? (
          <span className="block">
            1RM <b>{formatKg(oneRepMax.kg, unit, 1)}</b>
          </span>
        ) : null}
        {today?.shift ? (
          <>
            <span className="block font-bold">◆ {signedMps(today.shift.estimate)} today</span>
            <span className="block text-muted">
              {signedMps(today.shift.low)} to {signedMps(today.shift.high)}
            </span>
          </>
        ) : (
          <span className="block text-muted">{today ? "◆ today's sets" : "no set today"}</span>
        )}
      </p>
    </div>
  );
}

const FAULT = { width: 172, row: 13, fromPercent: 30, toPercent: 105 };

/** Where on the share of the max a fault is seen, over what the next day asks. */
function FaultCell({ glance, name }: { glance: Glance; name: string }) {
  const { faults, asked } = glance;
  if (faults.length === 0)
    return (
      <p className="self-center text-sm text-muted">
        {glance.days === 0 ? "" : `No fault noted on ${glance.days} days.`}
      </p>
    );
  const x = (percent: number) =>
    4 +
    ((Math.min(FAULT.toPercent, Math.max(FAULT.fromPercent, percent)) - FAULT.fromPercent) /
      (FAULT.toPercent - FAULT.fromPercent)) *
      (FAULT.width - 8);
  return (
    <div className="text-sm leading-tight">
      {faults.map((one) => {
        const back = one.returnsAt;
        const meets = back !== undefined && asked !== undefined && asked.high >= back - 1e-9;
        return (
          <div key={one.fault}>
            <p className="truncate" title={one.fault}>
              {one.cured ? <span className="text-muted">cured: </span> : null}
              {one.fault}
            </p>
            <svg
              role="img"
              aria-label={`${one.fault} in ${name}: seen at ${one.seen.map((percent) => plainNumber(percent, 0)).join(", ") || "no known share"} %, clean up to ${one.clean.length > 0 ? `${plainNumber(Math.max(...one.clean), 0)} %` : "nothing"}${asked ? `; the next day asks ${plainNumber(asked.low, 0)} to ${plainNumber(asked.high, 0)} %` : ""}.`}
              viewBox={`0 0 ${FAULT.width} ${FAULT.row}`}
              className="block w-full max-w-[172px]"
            >
              <line
                x1={4}
                x2={FAULT.width - 4}
                y1={6}
                y2={6}
                className="stroke-[var(--color-base-300)]"
              />
              {asked ? (
                <line
                  x1={x(asked.low)}
                  x2={Math.max(x(asked.high), x(asked.low) + 2)}
                  y1={11.5}
                  y2={11.5}
                  strokeWidth={3}
                  className="stroke-base-content"
                />
              ) : null}
              {one.clean.map((percent, i) => (
                <circle
                  // biome-ignore lint/suspicious/noArrayIndexKey: days, in order
                  key={`clean-${i}`}
                  cx={x(percent)}
                  cy={6}
                  r={2.5}
                  className="fill-base-100 stroke-control"
                />
              ))}
              {one.seen.map((percent, i) => (
                <path
                  // biome-ignore lint/suspicious/noArrayIndexKey: days, in order
                  key={`seen-${i}`}
                  d={`M${x(percent) - 3} 3l6 6m0 -6l-6 6`}
                  className="stroke-accent"
                  strokeWidth={1.8}
                />
              ))}
            </svg>
            {back === undefined ? null : (
              <p className={meets ? "font-medium text-secondary" : "text-muted"}>
                {meets ? "▲ " : ""}returns at {plainNumber(back, 0)} %
                {asked ? `, asked ${plainNumber(asked.high, 0)}` : ""}
              </p>
            )}
          </div>
        );
      })}
    </div>
  );
}
