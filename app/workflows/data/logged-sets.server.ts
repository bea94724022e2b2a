import { reduceFloor } from "../../../core/floor/state";
import { entriesOfSessions, frozenById, sessionIds } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";

export const LOGGED_SETS_HEADER = [
  "date",
  "session",
  "athlete",
  "lift",
  "set",
  "load_kg",
  "reps",
  "failed",
  "metric",
  "speeds",
  "faults",
] as const;

/** Sessions that are folded together: a year of one team never stands in memory at once. */
const AT_ONCE = 20;

/**
 * Every set that was lifted, a line each, as its session's own log comes to: with its load as it
 * was called, its reps and their speeds in the session's metric.
 * @param name an athlete's name by id
 */
export async function loggedSets(
  tx: TeamTransaction,
  name: (id: string) => string,
): Promise<Array<Array<string | number>>> {
  const heads = await sessionIds(tx);
  const rows: Array<Array<string | number>> = [];
  for (let i = 0; i < heads.length; i += AT_ONCE) {
    const some = heads.slice(i, i + AT_ONCE);
    const ids = some.map((head) => head.id);
    const frozen = await frozenById(tx, ids);
    const entries = await entriesOfSessions(tx, ids);
    for (const { id, date, title } of some) {
      const session = frozen.get(id);
      if (!session) continue;
      for (const rack of reduceFloor(session, entries.get(id) ?? []).racks)
        for (const { lifter, sets } of rack.lifters)
          for (const [at, set] of sets.entries()) {
            if (set.stage !== "done") continue;
            const counted = set.reps.filter((rep) => rep.outcome === "counted");
            rows.push([
              date,
              title ?? "",
              name(lifter.athleteId),
              rack.slot.liftName,
              at + 1,
              set.loadKg ?? "",
              counted.length,
              set.reps.length - counted.length,
              rack.slot.metric,
              counted.map((rep) => rep.velocityMps ?? "").join(" "),
              set.faults.map((one) => one.fault).join("; "),
            ]);
          }
    }
  }
  return rows;
}
