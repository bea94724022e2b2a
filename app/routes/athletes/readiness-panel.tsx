import { useState } from "react";

import { READINESS_WORDS, type Readiness, readiness } from "../../../core/profile/readiness";
import {
  LEAST_LOADS,
  type ReadinessChange,
  type RepAtLoad,
  readinessChange,
} from "../../../core/profile/todays-form";
import { readDecimal } from "../../../core/units/decimal";
import { formatKg, type MassUnit, massKg, readMass } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { Adder, type FormResult } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { MassInput } from "../../ui/mass-input";
import { Notice } from "../../ui/page";
import { Figure } from "../../ui/working";
import type { LiftOnPage } from "./page-data";

const LINES = 3;

/** Speeds of one load as they are typed: "1.15 1.16 1.12", in the order of the reps. */
function speedsIn(text: string): number[] {
  return text.split(/[\s;·]+/).flatMap((part) => {
    const speed = readDecimal(part);
    return speed.ok && speed.value > 0 && speed.value <= 5 ? [speed.value] : [];
  });
}

/**
 * Today's form from warm-up reps: every rep at each load goes in, in order; today's max and load
 * for the wanted speed come out, and a call when they exceed noise and a loadable step.
 */
export function ReadinessPanel({
  lift,
  unit,
  result,
}: {
  lift: LiftOnPage;
  unit: MassUnit;
  result: FormResult | undefined;
}) {
  const [texts, setTexts] = useState<Array<{ load: string; speed: string }>>(
    Array.from({ length: LINES }, () => ({ load: "", speed: "" })),
  );
  const profile = lift.profile;
  const fit = profile?.result.ok ? profile.result.fit : undefined;
  const [target, setTarget] = useState(() =>
    fit ? (fit.intercept + fit.slope * (fit.meanX + (fit.maxX - fit.meanX) / 3)).toFixed(2) : "",
  );
  const [planned, setPlanned] = useState("");

  const readings = texts.flatMap(({ load, speed }) => {
    const mass = readMass(load, unit);
    if (!mass.ok || mass.mass.amount <= 0) return [];
    const loadKg = massKg(mass.mass);
    return speedsIn(speed).map((velocityMps): RepAtLoad => ({ loadKg, velocityMps }));
  });
  const targetMps = readDecimal(target);
  const plannedMass = readMass(planned, unit);
  const found =
    fit && targetMps.ok && readings.length > 0
      ? readiness({
          profile: profile?.reps.filter((rep) => rep.excluded === undefined) ?? [],
          today: readings,
          thresholdMps: profile?.threshold?.mps,
          targetMps: targetMps.value,
        })
      : undefined;
  if (!fit || !profile) return null;
  const stepKg = lift.stepKg ?? 2.5;
  const plannedKg = plannedMass.ok
    ? massKg(plannedMass.mass)
    : found?.ok
      ? found.profileLoadKg
      : undefined;
  const change =
    found?.ok && plannedKg !== undefined
      ? readinessChange({
          plannedKg,
          targetLoadKg: found.targetLoad.estimate,
          targetSdKg: found.targetSdKg,
          stepKg,
        })
      : undefined;
  const show = (kg: number) => formatKg(kg, unit, 1);

  return (
    <Adder title="Today's form, from warm-up speeds" open={result !== undefined || undefined}>
      {fit.n < LEAST_LOADS ? (
        <p>{READINESS_WORDS["too-few-loads"]}</p>
      ) : (
        <>
          <div className="grid max-w-md grid-cols-2 gap-x-3 gap-y-1">
            {texts.map((text, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines keep their places
              <div key={i} className="contents">
                <Field
                  label={`Load ${i + 1}`}
                  value={text.load}
                  inputMode="decimal"
                  onChange={(event) =>
                    setTexts(
                      texts.map((one, j) => (j === i ? { ...one, load: event.target.value } : one)),
                    )
                  }
                />
                <Field
                  label={`Its reps in order, ${profile.metric}`}
                  value={text.speed}
                  placeholder="0.95 0.92"
                  onChange={(event) =>
                    setTexts(
                      texts.map((one, j) =>
                        j === i ? { ...one, speed: event.target.value } : one,
                      ),
                    )
                  }
                />
              </div>
            ))}
            <Field
              label="Wanted speed, m/s"
              value={target}
              inputMode="decimal"
              onChange={(event) => setTarget(event.target.value)}
            />
            <Field
              label="Planned load"
              value={planned}
              placeholder={plannedKg === undefined ? "" : show(plannedKg)}
              onChange={(event) => setPlanned(event.target.value)}
            />
          </div>
          {found && !found.ok ? <p className="mt-2">{READINESS_WORDS[found.reason]}</p> : null}
          {found?.ok && change && targetMps.ok && plannedKg !== undefined ? (
            <div className="mt-2">
              <p>
                Load for {formatVelocity(targetMps.value)} m/s today:{" "}
                <Figure
                  id={`today/${lift.id}`}
                  working={found.working}
                  className="text-lg font-bold"
                >
                  {show(found.targetLoad.estimate)}
                </Figure>{" "}
                <span className="text-muted">
                  90 % {show(found.targetLoad.low)} to {show(found.targetLoad.high)}
                </span>
              </p>
              <p>
                1RM today:{" "}
                {found.oneRepMax ? (
                  <>
                    {show(found.oneRepMax.estimate)}{" "}
                    <span className="text-muted">
                      90 % {show(found.oneRepMax.low)} to {show(found.oneRepMax.high)}. The stored
                      max stays.
                    </span>
                  </>
                ) : (
                  <span className="text-muted">
                    not set: no threshold is known for {profile.metric}.
                  </span>
                )}
              </p>
              <CallOfDay
                found={found}
                change={change}
                plannedKg={plannedKg}
                stepKg={stepKg}
                unit={unit}
                sent={{ testId: profile.id, readings: JSON.stringify(readings), targetMps: target }}
                result={result}
              />
            </div>
          ) : null}
          {result?.ok ? (
            <p role="status" className="font-medium text-primary">
              Decision kept.
            </p>
          ) : null}
        </>
      )}
    </Adder>
  );
}

/** The day's call with its keys, or why there is none. */
function CallOfDay({
  found,
  change,
  plannedKg,
  stepKg,
  unit,
  sent,
  result,
}: {
  found: Extract<Readiness, { ok: true }>;
  change: ReadinessChange;
  plannedKg: number;
  stepKg: number;
  unit: MassUnit;
  /** What the decision stands on, as the server computes it again. */
  sent: Record<"testId" | "readings" | "targetMps", string>;
  result: FormResult | undefined;
}) {
  const [changing, setChanging] = useState<"change" | "decline" | undefined>();
  const show = (kg: number) => formatKg(kg, unit, 1);
  if (!change.changes)
    return (
      <p className="text-muted">
        No call:{" "}
        {change.reason === "within-noise"
          ? `the difference is within noise (${show(found.targetSdKg)}).`
          : `the difference is under a loadable step (${formatKg(stepKg, unit)}).`}
      </p>
    );
  return (
    <Form method="post" aria-label="Call on today's load" className="mt-2">
      <Notice
        kind="note"
        title={`${change.loadKg > plannedKg ? "Raise" : "Lower"} ${show(plannedKg)} to ${show(change.loadKg)}`}
      >
        {change.reason === "held-to-ten-percent"
          ? "Held to ten percent of the plan."
          : `More than noise (${show(found.targetSdKg)}) and a loadable step (${formatKg(stepKg, unit)}).`}
      </Notice>
      {Object.entries(sent).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <input type="hidden" name="plannedKg" value={plannedKg} />
      <input type="hidden" name="stepKg" value={stepKg} />
      <input type="hidden" name="intent" value="readiness" />
      {changing === "change" ? <MassInput label="Take instead" name="decidedKg" /> : null}
      {changing ? <Field label="Reason" name="reason" /> : null}
      {result && !result.ok ? (
        <Notice kind="problem" title={result.message ?? "Check the fields."} />
      ) : null}
      <div className="mt-1 flex flex-wrap gap-2">
        {changing === undefined ? (
          <button type="submit" name="decision" value="take" className="btn btn-primary">
            Take {show(change.loadKg)}
          </button>
        ) : (
          <button type="submit" name="decision" value={changing} className="btn btn-primary">
            {changing === "change" ? "Change" : "Decline"}
          </button>
        )}
        <button type="button" className="btn" onClick={() => setChanging("change")}>
          Change …
        </button>
        <button type="button" className="btn" onClick={() => setChanging("decline")}>
          Decline …
        </button>
      </div>
    </Form>
  );
}
