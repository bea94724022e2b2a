import {
  CYCLE_DECISION_NAMES,
  CYCLE_DECISIONS,
  type CycleDecision,
} from "../../../core/review/box-cycle";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import type { BoxCyclePage } from "../../workflows/review/box-cycle.server";

type Athlete = NonNullable<BoxCyclePage["athlete"]>;
type Cycle = NonNullable<BoxCyclePage["cycle"]>;

const PROPOSALS = {
  raise: "Raise the load.",
  hold: "Hold the load.",
  lower: "Take load off.",
  "not-enough": "Not enough measured for a proposal.",
};

/** The review of an athlete's cycle, and the coach's word on it. */
export function Decision({
  athlete,
  cycle,
  mayDecide,
  problem,
}: {
  athlete: Athlete;
  cycle: Cycle;
  mayDecide: boolean;
  problem: string | undefined;
}) {
  const { review } = athlete;
  return (
    <section aria-labelledby="cycle-review">
      <h2 id="cycle-review">Review, up to week {athlete.reached}</h2>
      {review.weeks.length === 0 ? null : (
        <>
          <p className="mt-1 font-bold">{PROPOSALS[review.proposal]}</p>
          <ul className="mt-1">
            {review.findings.map((one) => (
              <li key={one.words} className="border-b border-faint py-1">
                {one.words}
                {one.speaksFor === "none" ? null : (
                  <span className="block text-sm text-muted">
                    speaks for: {one.speaksFor === "look" ? "a look" : one.speaksFor}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {mayDecide && review.weeks.length > 0 ? (
        <Form
          method="post"
          aria-label="Decide on the cycle"
          preventScrollReset
          className="no-print mt-3 grid gap-2"
        >
          <input type="hidden" name="planId" value={cycle.planId} />
          <input type="hidden" name="slotId" value={cycle.slotId} />
          <input type="hidden" name="athleteId" value={athlete.id} />
          <Select
            label="Your decision"
            name="decision"
            defaultValue={review.proposal === "not-enough" ? "hold" : review.proposal}
          >
            {CYCLE_DECISIONS.map((id) => (
              <option key={id} value={id}>
                {CYCLE_DECISION_NAMES[id]}
              </option>
            ))}
          </Select>
          <Field label="Why, where it is another way" name="note" problem={problem} />
          <button type="submit" className="btn justify-self-start">
            Keep the decision
          </button>
        </Form>
      ) : null}
      {athlete.decisions.length > 0 ? (
        <>
          <h3 className="mt-4 font-bold">Decided</h3>
          <ul>
            {athlete.decisions.map((one) => (
              <li key={one.id} className="border-b border-faint py-1">
                {CYCLE_DECISION_NAMES[one.decision as CycleDecision]}, week {one.week}
                {one.note ? `: ${one.note}` : ""}
                <span className="block text-sm text-muted">
                  {one.by}, <Day of={one.on} />
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}
