import { addDays, type LocalDate } from "../../../core/units/time";
import { foundWeights } from "../../../db/queries/box.server";
import { recordsOf } from "../../../db/queries/maxes.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { decidedCalls, type StoredCall } from "../../../db/queries/reviews.server";
import type { TeamTransaction } from "../../../db/team.server";

/** Decisions that are looked back on, days. */
export const DECIDED_DAYS = 120;

/** What was agreed about one athlete and is still to be done. */
export async function toDosOf(
  tx: TeamTransaction,
  athleteId: string,
  today: LocalDate,
): Promise<StoredCall[]> {
  const decided = await decidedCalls(tx, addDays(today, -DECIDED_DAYS));
  return openToDos(
    tx,
    decided.filter((call) => call.athleteId === athleteId),
    today,
  );
}

/** What was agreed and is not done: a test until there is a newer one, all else until its day. */
export async function openToDos(
  tx: TeamTransaction,
  calls: readonly StoredCall[],
  today: LocalDate,
): Promise<StoredCall[]> {
  const agreed = calls.filter((call) => call.effect.type === "to-do" && call.undoneAt === null);
  const athletes = [...new Set(agreed.flatMap((call) => call.athleteId ?? []))];
  if (agreed.length === 0) return [];
  const [records, profiles, found] = [
    await recordsOf(tx, athletes),
    await newestProfiles(tx, { of: athletes }),
    await foundWeights(tx, athletes),
  ];
  return agreed.filter((call) => {
    if (call.effect.type !== "to-do") return false;
    const of = (one: { athleteId: string; variantId: string }) =>
      one.athleteId === call.athleteId && one.variantId === call.variantId;
    if (call.effect.what === "test")
      return !records.some((one) => of(one) && one.date >= call.date);
    if (call.effect.what === "profile")
      return !profiles.some((one) => of(one) && one.testedOn >= call.date);
    if (call.effect.what === "speed-weight")
      return !found.some((one) => of(one) && one.date > call.date);
    return call.effect.until >= today;
  });
}
