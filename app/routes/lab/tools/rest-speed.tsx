import { restEffect } from "../../../../core/profile/rest-effect";
import { formatClock } from "../../../../core/units/time";
import { formatVelocity } from "../../../../core/units/velocity";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { ListField, partsOf } from "./list-field";
import { type ToolProps, valueAt } from "./tool";

const STEPS = "60 -0.04 75 -0.02 90 -0.03 120 -0.01 150 0.01 180 0 210 0.02 240 0.03";
const signed = (mps: number) => `${mps < 0 ? "−" : "+"}${formatVelocity(Math.abs(mps))}`;
const REFUSED = {
  "too-few": "Four pairs of sets are needed, of one load on one day.",
  "one-rest": "All rests are alike: nothing can be told of another.",
  "not-finite": "Rests from 1 to 1200 s, changes in m/s.",
};
const VERDICTS = {
  helps: "a longer rest makes the next set faster",
  costs: "a longer rest goes with slower sets: look for what else differed",
  unclear: "not settled by these pairs",
};

/** What rest does to the next set's speed, from an athlete's own sets. */
export function RestSpeed({ address, unit }: ToolProps) {
  const steps = partsOf(address, "steps", STEPS, 2).map(([restS = 0, changeMps = 0]) => ({
    restS,
    changeMps,
  }));
  const atS = valueAt(address, "at", 90) ?? Number.NaN;
  const found = restEffect({ steps, atS });
  useAnswer(
    found.ok
      ? `${signed(found.perMinute.estimate)} m/s for a minute more rest (90 % ${signed(found.perMinute.low)} to ${signed(found.perMinute.high)}), ${found.pairs} pairs`
      : undefined,
  );
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <div className="sm:col-span-2">
          <ListField
            address={address}
            label="Rest, s, and change of speed from set to set, m/s, in pairs"
            name="steps"
            start={STEPS}
            each={2}
            what="a rest and a change"
          />
        </div>
        <ToolField address={address} unit={unit} label="Rest asked about, s" name="at" start={90} />
      </form>
      {found.ok ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/rest-speed" working={found.working}>
              {signed(found.perMinute.estimate)} m/s
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              for a minute more, 90 % {signed(found.perMinute.low)} to{" "}
              {signed(found.perMinute.high)}
            </span>
          </p>
          <p className="mt-2">{VERDICTS[found.verdict]}.</p>
          {found.evenS === undefined ? null : (
            <p>As fast as the set before from {formatClock(found.evenS)} on.</p>
          )}
          <p className="mt-2 text-sm text-muted">
            No experiment: long rests are often taken where something was hard, and later sets are
            slower whatever the rest.
          </p>
        </Figures>
      ) : (
        <Notice kind="problem" title={REFUSED[found.reason]} />
      )}
    </>
  );
}
