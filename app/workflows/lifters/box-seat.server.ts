import {
  boxHeightFromTrial,
  buildWords,
  type SeatAnswer,
  type SeatBuild,
  seatFor,
} from "../../../core/boxsquat/stack";
import { type BOX_STYLES, styleById } from "../../../core/boxsquat/styles";
import type { LifterSetup } from "../../../core/floor/freeze";
import { seatStock } from "../../../core/gear/room";
import { plainNumber } from "../../../core/units/mass";
import { boxSetups } from "../../../db/queries/box.server";
import { itemsOf } from "../../../db/queries/gear.server";
import { setupsOf } from "../../../db/queries/person.server";
import type { TeamTransaction } from "../../../db/team.server";

export type SeatStock = ReturnType<typeof seatStock>;

/** Boxes and mats that a room has to build a seat of. */
export async function seatStockOf(
  tx: TeamTransaction,
  roomId: string | undefined,
): Promise<SeatStock | undefined> {
  if (roomId === undefined) return undefined;
  return seatStock((await itemsOf(tx, roomId)).filter((one) => one.awayOn === null));
}

/** What a room's boxes and mats come to for an athlete's trial seat. */
export function seatOf(
  stock: SeatStock | undefined,
  trial: { boxSeatCm: number | null; boxCreaseCm: number | null } | undefined,
  style: (typeof BOX_STYLES)[number] | undefined,
  /** That a slot asks for, off the athlete's own height. */
  slotOffsetCm = 0,
):
  | { targetCm: number; parallelCm: number; answer: SeatAnswer; mats: SeatStock["mats"] }
  | undefined {
  if (!stock || trial?.boxSeatCm == null || trial.boxCreaseCm == null) return undefined;
  const targetCm = boxHeightFromTrial({
    seatCm: trial.boxSeatCm,
    creaseOverKneeCm: trial.boxCreaseCm,
    offsetCm: (style?.offsetCm ?? 0) + slotOffsetCm,
  });
  const parallelCm = boxHeightFromTrial({
    seatCm: trial.boxSeatCm,
    creaseOverKneeCm: trial.boxCreaseCm,
  });
  if (targetCm === undefined || parallelCm === undefined) return undefined;
  const tolerance = style && { underCm: style.underCm, overCm: style.overCm };
  return {
    targetCm,
    parallelCm,
    answer: seatFor({ targetCm, ...stock, ...(tolerance ? { tolerance } : {}) }),
    mats: stock.mats,
  };
}

/** What fits, else the nearest build; undefined where the room has nothing to build with. */
export const builtOf = (answer: SeatAnswer): SeatBuild | undefined =>
  answer.ok ? answer.build : "nearest" in answer ? answer.nearest : undefined;

/** A seat as it is drawn: what it is built of, and how far off what is wanted; none without a trial. */
export function drawnSeat(seat: ReturnType<typeof seatOf>) {
  const build = seat && builtOf(seat.answer);
  if (!seat || !build) return undefined;
  return {
    wantedCm: seat.targetCm,
    kneeCm: seat.parallelCm,
    heightCm: build.heightCm,
    baseCm: build.pinCm,
    baseName: build.base.name,
    matsCm: build.mats.flatMap((count, i) =>
      Array.from({ length: count }, () => seat.mats[i]?.thicknessCm ?? 0),
    ),
    offCm: build.offCm,
    fits: seat.answer.ok,
  };
}

/** The set-up on the box of some athletes for one variant, as a rack's screen shows it. */
export async function rackSetups(
  tx: TeamTransaction,
  input: {
    athleteIds: readonly string[];
    variantId: string;
    roomId: string;
    /** How the school has them breathe at the bottom, in words. */
    breathing?: string;
    /** Off the athletes' own heights, as the slot asks, cm. */
    offsetCm?: number | undefined;
  },
): Promise<Map<string, LifterSetup>> {
  const { athleteIds, variantId } = input;
  const [boxes, trials, stock] = [
    await boxSetups(tx, athleteIds),
    await setupsOf(tx, athleteIds),
    await seatStockOf(tx, input.roomId),
  ];
  return new Map(
    athleteIds.map((athleteId) => {
      const isTheirs = (one: { athleteId: string; variantId: string }) =>
        one.athleteId === athleteId && one.variantId === variantId;
      const box = boxes.find(isTheirs);
      const style = styleById(box?.styleId);
      const seat = seatOf(stock, trials.find(isTheirs), style, input.offsetCm);
      const build = seat && builtOf(seat.answer);
      const setUp = box && [
        style?.name,
        box.distanceCm === null ? undefined : `heel ${plainNumber(box.distanceCm, 1)} cm`,
        input.breathing,
      ];
      return [
        athleteId,
        {
          setup: [seatWords(seat), ...(setUp ? [setUp.filter(Boolean).join(" · ")] : [])],
          box: {
            heightCm: build?.heightCm,
            styleId: box?.styleId,
            ...(box && box.rehearsedOn === null ? { rehearse: true as const } : {}),
            overCm: seat && build ? build.heightCm - seat.parallelCm : undefined,
            ...(seat && build ? { seat: piecesOfSeat(build, seat.mats) } : {}),
          },
        },
      ];
    }),
  );
}

const piecesOfSeat = (build: SeatBuild, mats: SeatStock["mats"]) => ({
  base: build.base.name,
  pinCm: build.pinCm,
  mats: build.mats.flatMap((count, i) => {
    const name = mats[i]?.name;
    return count > 0 && name !== undefined ? [{ name, count }] : [];
  }),
});

/** The seat as a rack shows it. */
function seatWords(seat: ReturnType<typeof seatOf>): string {
  const build = seat && builtOf(seat.answer);
  if (!seat || !build) return "No box height yet: take a trial seat";
  const height = `Box ${plainNumber(build.heightCm, 1)} cm`;
  const words = buildWords(build, seat.mats);
  return seat.answer.ok
    ? `${height}: ${words}`
    : `${height} is the nearest: ${words}, ${plainNumber(seat.targetCm, 1)} cm wanted`;
}
