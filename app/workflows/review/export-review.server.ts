import { STANDING_WORDS } from "../../../core/review/set-working";
import { csvOf } from "../../forms/delimited";
import { done, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readReview } from "./read-review.server";

const HEAD = [
  "slot",
  "athlete",
  "set",
  "load_kg",
  "percent",
  "reps",
  "best_mps",
  "wanted_low_mps",
  "wanted_high_mps",
  "standing",
  "rest_s",
  "rest_measured",
  "cut",
  "faults",
];

/** A session's sets as CSV, a line each, in kilograms and metres a second. */
export async function exportReview(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<{ name: string; text: string }>> {
  const found = await readReview(principal, sessionId);
  if (!found.ok) return found;
  const { session, review } = found.value;
  const rows = review.slots.flatMap((slot) =>
    slot.kind !== "lift"
      ? []
      : slot.lifters.flatMap((lifter) =>
          lifter.sets.map((set) => [
            slot.name,
            lifter.name,
            String(set.number),
            set.loadKg === undefined ? "" : String(set.loadKg),
            set.percent === undefined ? "" : set.percent.toFixed(1),
            String(set.counted),
            set.bestMps === undefined ? "" : set.bestMps.toFixed(3),
            set.target ? set.target.lowMps.toFixed(3) : "",
            set.target ? set.target.highMps.toFixed(3) : "",
            STANDING_WORDS[set.standing],
            set.rest ? String(Math.round(set.rest.seconds)) : "",
            set.rest ? (set.rest.measured ? "yes" : "no") : "",
            set.cut ? "yes" : "no",
            set.faults.join("; "),
          ]),
        ),
  );
  return done({ name: `review-${session.date}.csv`, text: csvOf(HEAD, rows) });
}
