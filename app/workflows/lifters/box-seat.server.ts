import {
  boxHeightFromTrial,
  type SeatAnswer,
  type SeatBuild,
  seatFor,
} from "../../../core/boxsquat/stack";
import { type BOX_STYLES, styleById } from "../../../core/boxsquat/styles";
import type { FrozenLifter } from "../../../core/floor/frozen";
import { seatStock } from "../../../core/gear/room";
import { plainNumber } from "../../../core/units/mass";
import { boxSetups } from "../../../db/queries/box.server";
import { itemsOf } from "../../../db/queries/gear.server";
import { setupsOf } from "../../../db/queries/person.server";
import type { TeamTransaction } from "../../../db/team.server";

/** What the room can build for an athlete's trial seat. */
export async function seatOf(
  tx: TeamTransaction,
  roomId: string | undefined,
  trial: { boxSeatCm: number | null; boxCreaseCm: number | null } | undefined,
  style: (typeof BOX_STYLES)[number] | undefined,
): Promise<{ targetCm: number; answer: SeatAnswer; mats: string[] } | undefined> {
  if (roomId === undefined || trial?.boxSeatCm == null || trial.boxCreaseCm == null)
    return undefined;
  const targetCm = boxHeightFromTrial({
    seatCm: trial.boxSeatCm,
    creaseOverKneeCm: trial.boxCreaseCm,
    offsetCm: style?.offsetCm ?? 0,
  });
  const items = (await itemsOf(tx, roomId)).filter((one) => one.awayOn === null);
  const { bases, mats } = seatStock(items);
  const tolerance = style && { underCm: style.underCm, overCm: style.overCm };
  return {
    targetCm,
    answer: seatFor({ targetCm, bases, mats, ...(tolerance ? { tolerance } : {}) }),
    mats: mats.map((one) => one.name),
  };
}

/** A build in words: "Pin box at 36 cm + 1 × Thin mat". */
export const buildWords = (build: SeatBuild, mats: readonly string[]): string =>
  [
    `${build.base.name} at ${plainNumber(build.pinCm, 1)} cm`,
    ...build.mats.flatMap((n, i) => (n > 0 ? [`${n} × ${mats[i]}`] : [])),
  ].join(" + ");

/** What fits, else the nearest build; undefined where the room has nothing to build with. */
export const builtOf = (answer: SeatAnswer): SeatBuild | undefined =>
  answer.ok ? answer.build : "nearest" in answer ? answer.nearest : undefined;

/** The set-up on the box of some athletes for one variant, as a rack's screen shows it. */
export async function rackSetups(
  tx: TeamTransaction,
  input: { athleteIds: readonly string[]; variantId: string; roomId: string },
): Promise<Map<string, Pick<FrozenLifter, "setup" | "box">>> {
  const rows = await boxSetups(tx);
  const found = new Map<string, Pick<FrozenLifter, "setup" | "box">>();
  for (const athleteId of input.athleteIds) {
    const box = rows.find(
      (one) => one.athleteId === athleteId && one.variantId === input.variantId,
    );
    const trial = (await setupsOf(tx, athleteId)).find((one) => one.variantId === input.variantId);
    const style = styleById(box?.styleId);
    const seat = await seatOf(tx, input.roomId, trial, style);
    const lines: string[] = [];
    if (seat?.answer.ok)
      lines.push(
        `Box ${plainNumber(seat.answer.build.heightCm, 1)} cm: ${buildWords(seat.answer.build, seat.mats)}`,
      );
    else if (seat && "nearest" in seat.answer)
      lines.push(
        `Box ${plainNumber(seat.answer.nearest.heightCm, 1)} cm is the nearest: ${buildWords(seat.answer.nearest, seat.mats)}, ${plainNumber(seat.targetCm, 1)} cm wanted`,
      );
    else lines.push("No box height yet: take a trial seat");
    if (box) {
      lines.push(
        [
          style?.name,
          box.distanceCm === null ? undefined : `heel ${plainNumber(box.distanceCm, 1)} cm`,
          box.rehearsedOn ? undefined : "NOT REHEARSED: empty bar first",
        ]
          .filter(Boolean)
          .join(" · "),
      );
    }
    const build = seat && builtOf(seat.answer);
    found.set(athleteId, {
      setup: lines,
      box: { heightCm: build?.heightCm, styleId: box?.styleId },
    });
  }
  return found;
}
