import { useMemo } from "react";
import { analyseProfile, REFUSAL_WORDS } from "../../../../core/profile/analysis";
import { loadAt, velocityAt } from "../../../../core/profile/line";
import { fiellerAt } from "../../../../core/profile/prediction";
import {
  GROUP_CURVES,
  groupPercent,
  groupVelocity,
  groupWorking,
} from "../../../../core/profile/target-speed";
import { formatKg, type MassUnit, plainNumber } from "../../../../core/units/mass";
import { formatVelocity } from "../../../../core/units/velocity";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { ProfileChart } from "../../../ui/profile-chart";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { pointsOf, pointsProblem, type ToolProps, valueAt } from "./tool";

const POINTS = "40 1.21 60 0.99 80 0.78 100 0.55 110 0.46";

/** Speed for a load and load for a speed: by an own line, or by a labelled group curve. */
export function SpeedLoad({ address, unit }: ToolProps) {
  const { get, set } = address;
  const by = get("by") === "group" ? "group" : "own";
  const target = valueAt(address, "speed", 0.7);
  const load = valueAt(address, "load", 80, "mass");
  const max = valueAt(address, "max", 120, "mass");
  const lift = get("lift") === "squat" ? "squat" : "bench";
  const text = get("points") || POINTS;
  const reps = useMemo(() => pointsOf(text), [text]);
  const result = useMemo(
    () => analyseProfile({ reps, metric: "MCV", threshold: undefined }),
    [reps],
  );
  const curve = GROUP_CURVES[lift];
  const share = target === undefined ? undefined : groupPercent(curve, target);
  useAnswer(
    target === undefined
      ? undefined
      : by === "own"
        ? result.ok
          ? `${formatKg(loadAt(result.line, target), unit, 1)} for ${formatVelocity(target)} m/s, own line`
          : undefined
        : share && max !== undefined
          ? `${formatKg((share.percent * max) / 100, unit, 1)} for ${formatVelocity(target)} m/s, a group's curve`
          : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-4" onSubmit={(e) => e.preventDefault()}>
        <ToolChoice
          address={address}
          label="By"
          name="by"
          options={[
            ["own", "an own line"],
            ["group", "a group's curve"],
          ]}
        />
        <ToolField {...shared} label="Wanted speed, m/s" name="speed" start={0.7} />
        {by === "own" ? (
          <ToolField {...shared} label="Load" name="load" kind="mass" start={80} />
        ) : (
          <>
            <ToolField {...shared} label="Max" name="max" kind="mass" start={120} />
            <ToolChoice
              address={address}
              label="Lift"
              name="lift"
              options={[
                ["bench", "bench press"],
                ["squat", "full squat"],
              ]}
            />
          </>
        )}
        {by === "own" ? (
          <div className="sm:col-span-4">
            <Field
              label="Load and speed of each point, in pairs"
              defaultValue={text}
              onChange={(event) => set("points", event.target.value)}
              problem={pointsProblem(text)}
            />
          </div>
        ) : null}
      </form>
      {by === "own" ? (
        result.ok ? (
          <Figures label="Answers" className="mt-3 max-w-3xl">
            <ProfileChart
              title="Points"
              reps={reps}
              result={result}
              thresholdMps={undefined}
              height={230}
              drawnPx={672}
            />
            {target !== undefined ? (
              <p className="text-xl">
                <Figure id="lab/load-at" working={result.working} className="font-bold">
                  {formatKg(loadAt(result.line, target), unit, 1)}
                </Figure>{" "}
                for {formatVelocity(target)} m/s
                <span className="block text-sm text-muted">
                  {intervalWords(fiellerAt(result.fit, target, 0.95), unit)}
                </span>
              </p>
            ) : null}
            {load !== undefined ? (
              <p className="text-xl">
                <Figure id="lab/speed-at" working={result.working} className="font-bold">
                  {formatVelocity(velocityAt(result.line, load))} m/s
                </Figure>{" "}
                at {formatKg(load, unit, 1)}
              </p>
            ) : null}
          </Figures>
        ) : (
          <Notice kind="warning" title={REFUSAL_WORDS[result.reason]} />
        )
      ) : target !== undefined && share && max !== undefined ? (
        <Figures label="Answers" className="mt-3">
          <p className="text-xl">
            <Figure id="lab/group" className="font-bold" working={groupWorking(curve, target)}>
              {plainNumber(share.percent, 1)} % = {formatKg((share.percent * max) / 100, unit, 1)}
            </Figure>{" "}
            for {formatVelocity(target)} m/s ({curve.metric})
          </p>
          {share.held ? (
            <p className="text-secondary">
              Held to 30–100 %: the curve reaches from {formatVelocity(groupVelocity(curve, 100))}{" "}
              to {formatVelocity(groupVelocity(curve, 30))} m/s.
            </p>
          ) : null}
          <p className="text-sm text-muted">
            A group's mean, {curve.source}; not this athlete's line.
          </p>
        </Figures>
      ) : null}
    </>
  );
}

function intervalWords(found: ReturnType<typeof fiellerAt>, unit: MassUnit): string {
  return found.ok
    ? `95 %, line only: ${formatKg(found.low, unit, 1)} to ${formatKg(found.high, unit, 1)}`
    : found.reason === "no-freedom"
      ? "Two points give no interval."
      : "The slope is too unclear for an interval.";
}
