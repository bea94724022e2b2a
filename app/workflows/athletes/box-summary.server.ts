import { ladderStanding, passWords } from "../../../core/boxsquat/ladder";
import { styleById } from "../../../core/boxsquat/styles";
import { boxSetups, ladderMarks } from "../../../db/queries/box.server";
import type { VariantRow } from "../../../db/queries/maxes.server";
import { setupsOf } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import type { TeamTransaction } from "../../../db/team.server";
import { boxHistory } from "../lifters/box-history.server";
import { drawnSeat, rackSetups, seatOf, seatStockOf } from "../lifters/box-seat.server";

/** What an athlete's page says of the box: the set-up's lines, the rung, the newest faults. */
export async function readBoxSummary(
  tx: TeamTransaction,
  athleteId: string,
  roomId: string | undefined,
  variants: readonly VariantRow[],
) {
  const rows = await boxSetups(tx, athleteId);
  const boxes = variants.filter((one) => one.lift === "box-squat");
  const variant = boxes.find((one) => rows[0]?.variantId === one.id) ?? boxes[0];
  const marks = await ladderMarks(tx, athleteId);
  const stand = ladderStanding(marks.map((one) => ({ ...one, by: one.enteredBy })));
  const { faults } = await boxHistory(tx, athleteId);
  const setup =
    variant && roomId && rows.length > 0
      ? (await rackSetups(tx, { athleteIds: [athleteId], variantId: variant.id, roomId })).get(
          athleteId,
        )?.setup
      : undefined;
  const row = rows.find((one) => one.variantId === variant?.id);
  const trial = (await setupsOf(tx, athleteId)).find((one) => one.variantId === variant?.id);
  const style = styleById(row?.styleId);
  const seat = drawnSeat(seatOf(await seatStockOf(tx, roomId), trial, style));
  return {
    /** What the set-up is drawn from, cm; undefined without a trial seat or anything to build with. */
    drawn: seat && {
      ...seat,
      heelCm: row?.distanceCm ?? undefined,
      style: style?.name,
      stance: trial?.stance ?? "",
      hook: trial?.hook ?? "",
      safety: trial?.safety ?? "",
      rehearsedOn: row?.rehearsedOn ?? undefined,
    },
    variantName: variant?.name,
    setup,
    ladder:
      marks.length === 0
        ? undefined
        : stand.rung
          ? {
              rung: stand.rung.name,
              pass: passWords(stand.rung, (await coachValues(tx)).ladderReps),
            }
          : { rung: "all rungs passed", pass: undefined },
    faults,
  };
}

export type BoxSummary = Awaited<ReturnType<typeof readBoxSummary>>;
