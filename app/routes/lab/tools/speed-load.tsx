import { useMemo } from "react";
import { analyseProfile, REFUSAL_WORDS } from "../../../../core/profile/analysis";
import {
  GROUP_CURVES,
  groupPercent,
  groupVelocity,
  loadAt,
  velocityAt,
} from "../../../../core/profile/line";
import { fiellerAt } from "../../../../core/profile/prediction";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { formatVelocity } from "../../../../core/units/velocity";
import { Field, Select } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { ProfileChart } from "../../../ui/profile-chart";
import { Figure, Figures } from "../../../ui/working";
import { numberAt, numbersOf, type ToolProps } from "./tool";

const POINTS = "40 1.21 60 0.99 80 0.78 100 0.55 110 0.46";

/** Speed for a load and load for a speed: by an own line, or by a labelled group curve. */
export function SpeedLoad({ address }: ToolProps) {
  const { get, set } = address;
  const by = get("by") === "group" ? "group" : "own";
  const target = numberAt(address, "speed", 0.7);
  const load = numberAt(address, "load", 80);
  const max = numberAt(address, "max", 120);
  const lift = get("lift") === "squat" ? "squat" : "bench";
  const { values, wrong } = numbersOf(get("points") || POINTS);
  const text = get("points") || POINTS;
  const reps = useMemo(() => {
    const all = numbersOf(text).values;
    return all.flatMap((loadKg, i) => {
      const velocityMps = all[i + 1];
      return i % 2 === 0 && velocityMps !== undefined
        ? [{ id: String(i), loadKg, velocityMps }]
        : [];
    });
  }, [text]);
  const result = useMemo(
    () => analyseProfile({ reps, metric: "MCV", threshold: undefined }),
    [reps],
  );
  const curve = GROUP_CURVES[lift];
  const share = target === undefined ? undefined : groupPercent(curve, target);
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-4" onSubmit={(e) => e.preventDefault()}>
        <Select label="By" value={by} onChange={(event) => set("by", event.target.value)}>
          <option value="own">an own line</option>
          <option value="group">a group's curve</option>
        </Select>
        <Field
          label="Wanted speed, m/s"
          inputMode="decimal"
          defaultValue={get("speed") || "0.7"}
          onChange={(event) => set("speed", event.target.value)}
          problem={target === undefined ? "A speed, for example 0.7." : undefined}
        />
        {by === "own" ? (
          <Field
            label="Load, kg"
            inputMode="decimal"
            defaultValue={get("load") || "80"}
            onChange={(event) => set("load", event.target.value)}
            problem={load === undefined ? "A load, for example 80." : undefined}
          />
        ) : (
          <>
            <Field
              label="Max, kg"
              inputMode="decimal"
              defaultValue={get("max") || "120"}
              onChange={(event) => set("max", event.target.value)}
              problem={max === undefined ? "A max, for example 120." : undefined}
            />
            <Select label="Lift" value={lift} onChange={(event) => set("lift", event.target.value)}>
              <option value="bench">bench press</option>
              <option value="squat">full squat</option>
            </Select>
          </>
        )}
        {by === "own" ? (
          <div className="sm:col-span-4">
            <Field
              label="Load and speed of each point, in pairs"
              defaultValue={text}
              onChange={(event) => set("points", event.target.value)}
              problem={
                wrong[0]
                  ? `"${wrong[0]}" is not a number.`
                  : values.length % 2 === 1
                    ? "The last load has no speed."
                    : undefined
              }
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
            />
            {target !== undefined ? (
              <p className="text-xl">
                <Figure id="lab/load-at" working={result.working} className="font-bold">
                  {formatKg(loadAt(result.line, target), "kg", 1)}
                </Figure>{" "}
                for {formatVelocity(target)} m/s
                <span className="block text-sm text-muted">
                  {intervalWords(fiellerAt(result.fit, target, 0.95))}
                </span>
              </p>
            ) : null}
            {load !== undefined ? (
              <p className="text-xl">
                <Figure id="lab/speed-at" working={result.working} className="font-bold">
                  {formatVelocity(velocityAt(result.line, load))} m/s
                </Figure>{" "}
                at {formatKg(load, "kg", 1)}
              </p>
            ) : null}
          </Figures>
        ) : (
          <Notice kind="warning" title={REFUSAL_WORDS[result.reason]} />
        )
      ) : target !== undefined && share && max !== undefined ? (
        <Figures label="Answers" className="mt-3">
          <p className="text-xl">
            <Figure
              id="lab/group"
              className="font-bold"
              working={{
                title: "By a group's curve",
                lines: [
                  {
                    label: "%1RM",
                    value: `${curve.c2}v² ${curve.c1 < 0 ? "−" : "+"} ${Math.abs(curve.c1)}v + ${curve.c0}`,
                    detail: `${curve.metric}, held to 30–100 %`,
                  },
                  { label: "v", value: `${formatVelocity(target)} m/s` },
                  {
                    label: "Share",
                    value: `${plainNumber(share.percent, 1)} %`,
                    emphasis: "answer",
                  },
                ],
                sources: [curve.source],
                changes: ["An own profile: a group's mean is not this athlete."],
              }}
            >
              {plainNumber(share.percent, 1)} % = {formatKg((share.percent * max) / 100, "kg", 1)}
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

function intervalWords(found: ReturnType<typeof fiellerAt>): string {
  return found.ok
    ? `95 %, line only: ${formatKg(found.low, "kg", 1)} to ${formatKg(found.high, "kg", 1)}`
    : found.reason === "no-freedom"
      ? "Two points give no interval."
      : "The slope is too unclear for an interval.";
}
