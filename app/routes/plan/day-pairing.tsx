import { Link } from "react-router";
import {
  type Complex,
  type ComplexItem,
  complexTotals,
  DIRECTION_NAMES,
} from "../../../core/contrast/complex";
import { loadInWeek } from "../../../core/contrast/item-load";
import { type Block, pairingsOf, pairingWeek } from "../../../core/plan/block";
import { describeBasis } from "../../../core/recipe/basis";
import type { MassUnit } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { ComplexStave } from "../../ui/complex-stave";
import { useUnit } from "../../ui/unit";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** The pairings that a day has in a week, each with its complex and its own week. */
export function pairingsIn(data: PlanPage, block: Block, dayId: string, week: number) {
  return pairingsOf(block, dayId).flatMap((one) => {
    const own = pairingWeek(block, one, week);
    const complex = data.complexes.find((two) => two.id === one.complexId)?.complex;
    return own === undefined || !complex
      ? []
      : [{ id: one.id, own, complex, complexId: one.complexId }];
  });
}

export const pairingsS = (pairings: ReturnType<typeof pairingsIn>): number =>
  pairings.reduce((sum, one) => sum + complexTotals(one.complex).lengthS, 0);

const loadWords = (item: ComplexItem, load: ReturnType<typeof loadInWeek>, unit: MassUnit) =>
  load.by === "none" ? "" : ` at ${describeBasis(load, unit)}${item.of ? ` of ${item.of}` : ""}`;

/** What is done in one round in the pairing's own week. */
export const itemsWords = (complex: Complex, own: number, unit: MassUnit): string =>
  complex.items
    .map(
      (item) =>
        `${item.name} × ${item.reps}${loadWords(item, loadInWeek(complex, item, own), unit)}`,
    )
    .join(" · ");

/** The pairings of a day to time, with this week's loads. */
export function DayPairingStaves({
  pairings,
  groupId,
}: {
  pairings: ReturnType<typeof pairingsIn>;
  groupId: string;
}) {
  const unit = useUnit();
  return (
    <>
      {pairings.map(({ id, own, complex, complexId }) => (
        <div key={id} className="mb-2">
          <p>
            <span className="text-muted">Pairing </span>
            <b>{complex.name}</b>{" "}
            <span className="text-muted">
              {complex.rounds} rounds · {formatClock(complexTotals(complex).lengthS)} · its week{" "}
              {own}
              {complex.direction === "hold" ? "" : `, ${DIRECTION_NAMES[complex.direction]}`}
            </span>{" "}
            <Link
              className="no-print underline"
              to={`/floor/pairing?complex=${complexId}&squad=${groupId}&week=${own}`}
            >
              Run it
            </Link>
          </p>
          <ComplexStave complex={complex} />
          <p className="text-sm text-muted">{itemsWords(complex, own, unit)}</p>
        </div>
      ))}
    </>
  );
}
