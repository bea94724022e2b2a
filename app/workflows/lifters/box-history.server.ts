import { type FaultHistory, faultHistory } from "../../../core/boxsquat/box-faults";
import type { DepthSet } from "../../../core/boxsquat/depth";
import { isHighBox } from "../../../core/boxsquat/depth";
import { faultNotes } from "../../../db/queries/box.server";
import { faultsTagged, squatDays } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";

/** What some athletes' squats and box squats came to: depth by day, and each fault's history. */
export async function boxHistories(
  tx: TeamTransaction,
  athleteIds: readonly string[],
  highBox = false,
): Promise<Map<string, { depth: DepthSet[]; faults: FaultHistory[] }>> {
  const [days, tagged, notes] = [
    await squatDays(tx, athleteIds),
    await faultsTagged(tx, athleteIds),
    await faultNotes(tx, athleteIds),
  ];
  const own = <T extends { athleteId: string }>(rows: readonly T[]) => {
    const by = new Map<string, T[]>();
    for (const row of rows) by.set(row.athleteId, [...(by.get(row.athleteId) ?? []), row]);
    return by;
  };
  const [dayOf, tagOf, noteOf] = [own(days), own(tagged), own(notes)];
  return new Map(
    athleteIds.map((id) => {
      const squatted = dayOf.get(id) ?? [];
      const seen = [...(tagOf.get(id) ?? []), ...(noteOf.get(id) ?? [])].map(
        ({ fault, date, percent }) => ({ fault, date, percent: percent ?? undefined }),
      );
      return [
        id,
        {
          depth: squatted.map(
            ({ date, sets, lift, overCm }): DepthSet => ({
              date,
              sets,
              // By the seat of that day; sessions from before it was kept go by today's.
              depth:
                lift === "box-squat" && (overCm === null ? highBox : isHighBox(overCm))
                  ? "high-box"
                  : "full",
            }),
          ),
          faults: faultHistory(
            seen,
            squatted.map((one) => one.date),
          ),
        },
      ];
    }),
  );
}

/** The same of one athlete. */
export async function boxHistory(tx: TeamTransaction, athleteId: string, highBox = false) {
  const found = (await boxHistories(tx, [athleteId], highBox)).get(athleteId);
  return found ?? { depth: [], faults: [] };
}
