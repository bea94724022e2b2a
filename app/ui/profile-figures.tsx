import type { ProfileResult } from "../../core/profile/analysis";
import { REFUSAL_WORDS } from "../../core/profile/analysis";
import type { ForcePower, Peak } from "../../core/profile/power";
import { bandWords, type PowerBand } from "../../core/profile/power-band";
import type { IntervalResult } from "../../core/profile/prediction";
import type { Threshold } from "../../core/profile/threshold";
import { formatKg, type MassUnit, plainNumber } from "../../core/units/mass";
import { formatVelocity } from "../../core/units/velocity";
import { readIn } from "../../core/units/written";
import { Notice } from "./page";
import { useUnit } from "./unit";
import { Figure } from "./working";

function range(one: IntervalResult, unit: MassUnit): string {
  if (!one.ok) return one.reason === "no-freedom" ? "no interval from two loads" : "not bounded";
  return `${formatKg(one.low, unit, 1)} to ${formatKg(one.high, unit, 1)}`;
}

/** The figures of one profile test: fit, window, 1RM with both intervals, peaks, warnings. */
export function ProfileFigures({
  id,
  result,
  threshold,
  power,
  band,
  warnings = true,
}: {
  /** Prefix of the figures' ids on the page. */
  id: string;
  result: ProfileResult;
  threshold: Threshold | undefined;
  power: ForcePower | undefined;
  /** Where the coach says a group's power usually peaks; beside the own peak. */
  band?: PowerBand | undefined;
  warnings?: boolean;
}) {
  const unit = useUnit();
  if (!result.ok) {
    return <Notice kind="warning" title={REFUSAL_WORDS[result.reason]} />;
  }
  const { line, fit, oneRepMax } = result;
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        <dt className="text-muted">1RM by velocity</dt>
        <dd>
          {oneRepMax ? (
            <>
              <Figure id={`${id}/1rm`} working={oneRepMax.working} className="text-xl font-bold">
                {formatKg(oneRepMax.kg, unit, 1)}
              </Figure>
              <span className="block text-sm text-muted">
                line only {range(oneRepMax.lineOnly, unit)} · planning{" "}
                {range(oneRepMax.planning, unit)}
              </span>
              <span className="block text-sm text-muted">
                Tends to read high: by {formatKg(10, unit, 0)} and more in squats.
              </span>
            </>
          ) : (
            "no threshold for this metric: confirm a maximal single"
          )}
        </dd>
        <dt className="text-muted">Threshold</dt>
        <dd>
          {threshold ? (
            <>
              <Figure id={`${id}/mvt`} working={threshold.working}>
                {formatVelocity(threshold.mps)} m/s
              </Figure>{" "}
              <span className="text-sm text-muted">
                {threshold.ownMps === undefined
                  ? "group mean"
                  : `default ${formatVelocity(threshold.defaultMps)}, own ${formatVelocity(threshold.ownMps)} from ${threshold.singles}`}
              </span>
            </>
          ) : (
            "not set"
          )}
        </dd>
        <dt className="text-muted">Window</dt>
        <dd>
          <Figure id={`${id}/line`} working={result.working}>
            V0 {formatVelocity(line.v0Mps)} m/s, L0 {formatKg(line.l0Kg, unit, 1)}
          </Figure>
        </dd>
        <dt className="text-muted">Fit</dt>
        <dd>
          n {fit.n}, R² {fit.rSquared.toFixed(3)}, SEE{" "}
          {fit.see === undefined ? "none" : `${fit.see.toFixed(3)} m/s`}, span{" "}
          {formatKg(result.spanKg, unit, 1)}
        </dd>
        {power ? (
          <>
            <dt className="text-muted">Peak power</dt>
            <dd>
              <PeakFigure id={`${id}/power`} peak={power.peakPower} watts="W" unit={unit} />
              {band ? <span className="text-sm text-muted"> · {bandWords(band)}</span> : null}
            </dd>
            <dt className="text-muted">Peak force</dt>
            <dd>
              {power.peakForce ? (
                <PeakFigure id={`${id}/force`} peak={power.peakForce} watts="N" unit={unit} />
              ) : (
                "needs measured force"
              )}
            </dd>
            <dt className="text-muted">System mass</dt>
            <dd>
              {power.addedKg === 0
                ? "bar only"
                : `bar and ${formatKg(power.addedKg, unit, 1)} of the body`}
            </dd>
          </>
        ) : null}
      </dl>
      {warnings
        ? result.warnings.map((warning) => (
            <Notice key={warning.code} kind="warning" title={readIn(warning.text, unit)} />
          ))
        : null}
    </>
  );
}

function PeakFigure({
  id,
  peak,
  watts,
  unit,
}: {
  id: string;
  peak: Peak;
  watts: string;
  unit: MassUnit;
}) {
  return (
    <>
      <Figure id={id} working={peak.working}>
        {formatKg(peak.loadKg, unit, 1)} at {formatVelocity(peak.velocityMps)} m/s
      </Figure>{" "}
      <span className="text-sm text-muted">
        {peak.reached ? "" : "not reached: at least "}
        {plainNumber(peak.value, 0)} {watts}
        {peak.measured ? "" : ", estimated"}
        {peak.percentOfMax === undefined ? "" : ` · ${plainNumber(peak.percentOfMax, 0)} % of 1RM`}
        {peak.fallAfterPercent === undefined
          ? ""
          : ` · then −${plainNumber(peak.fallAfterPercent, 1)} %`}
      </span>
    </>
  );
}
