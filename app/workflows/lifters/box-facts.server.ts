import { ladderStanding } from "../../../core/boxsquat/ladder";
import { styleById } from "../../../core/boxsquat/styles";
import type { CheckedOnBox } from "../../../core/checks/input";
import { limitHolds } from "../../../core/maxes/limits";
import { trainingYears } from "../../../core/maxes/records";
import type { LocalDate } from "../../../core/units/time";
import { boxSetups, ladderMarks } from "../../../db/queries/box.server";
import { type limitsOf, setupsOf } from "../../../db/queries/person.server";
import type { TeamTransaction } from "../../../db/team.server";
import { builtOf, seatOf, seatStockOf } from "./box-seat.server";
import type { AthleteRow } from "./read-lifters.server";

/**
 * What some athletes bring to a box squat, as a plan's checks judge it: the ladder, what a coach
 * signed, the seat that the room builds for them. Five readings whatever their number.
 */
export async function boxFacts(
  tx: TeamTransaction,
  asked: {
    people: readonly AthleteRow[];
    variantIds: readonly string[];
    roomId: string;
    today: LocalDate;
    limits: Awaited<ReturnType<typeof limitsOf>>;
  },
): Promise<Map<string, CheckedOnBox>> {
  const { people, today } = asked;
  const ids = people.map((one) => one.id);
  const [boxes, trials, stock, marks] = [
    await boxSetups(tx, ids),
    await setupsOf(tx, ids),
    await seatStockOf(tx, asked.roomId),
    await ladderMarks(tx, ids),
  ];
  return new Map(
    people.map((person): [string, CheckedOnBox] => {
      const onIt = (one: { athleteId: string; variantId: string }) =>
        one.athleteId === person.id && asked.variantIds.includes(one.variantId);
      const box = boxes.find(onIt);
      const seat = seatOf(stock, trials.find(onIt), styleById(box?.styleId));
      const build = seat && builtOf(seat.answer);
      const stand = ladderStanding(
        marks
          .filter((one) => one.athleteId === person.id)
          .map((one) => ({ ...one, by: one.enteredBy })),
      );
      const limit = asked.limits.find(
        (one) =>
          one.athleteId === person.id &&
          limitHolds(one, today) &&
          (one.lift === undefined || one.lift === "squat" || one.lift === "box-squat"),
      );
      return [
        person.id,
        {
          facts: {
            trainingYears: trainingYears(person.trainingSince ?? undefined, today),
            age:
              person.birthYear === null ? undefined : Number(today.slice(0, 4)) - person.birthYear,
            squatLimit: limit?.instruction,
            goal: person.goal ?? undefined,
            ladderDone: stand.ready,
            rungName: stand.rung?.name,
            freeSquatSigned: box?.freeSquatSigned ?? false,
          },
          setAside: (box?.styleNote ?? "") !== "",
          seat: build && {
            name: build.base.name,
            substitute: build.base.substitute?.caution,
            limitKg: build.base.substitute?.limitKg,
          },
          rehearsed: box && box.rehearsedOn !== null,
        },
      ];
    }),
  );
}
